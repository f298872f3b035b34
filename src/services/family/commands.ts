import 'server-only';
import { isMade, type LensBlock } from '../../core';
import { markAll } from '../../db/eyeRunway';
import { insertFamily, listFamilyVersions, newestVersion } from '../../db/family';
import { insertEnding, listFamilyUse, type FamilyUse } from '../../db/familyEnding';
import { holdPractice } from '../../db/practice';
import { listTrialStock } from '../../db/trialStock';
import { err, invalid, notFound, ok, type FieldProblem } from '../../lib/outcome';
import { CatalogueReader } from '../../schema/catalogue';
import { endFamilyForm, saveFamilyForm } from '../../schema/family';
import { defineCommand } from '../define';

/** What a change of a family would do to those who have its lenses. */
export interface Consequences {
  readonly saved: boolean;
  /** The new version; null while nothing is saved. */
  readonly familyId: string | null;
  /** Prescriptions in force of this family. */
  readonly prescriptions: number;
  /** Of them, those whose lens would no longer be made: they keep the version they were signed under, and cannot be ordered again as they are. */
  readonly lost: readonly Pick<FamilyUse, 'wearerId' | 'name' | 'birthDate' | 'eye' | 'number'>[];
  /** Lenses in the drawer that would no longer be made. */
  readonly drawerLost: number;
}

const made = (
  lens: { sphereD: number; cylinderD: number; axisDeg: number; addBand: FamilyUse['addBand']; baseCurveMm: number | null; diameterMm: number | null },
  blocks: readonly LensBlock[],
): boolean =>
  isMade(
    { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg, add: lens.addBand, baseCurve: lens.baseCurveMm ?? 0, diameter: lens.diameterMm ?? 0 },
    { name: '', geometry: 'sphere', blocks },
  );

/** Saves a family as a new version; what was prescribed keeps the version it was signed under. */
export const saveFamily = defineCommand({
  name: 'saveFamily',
  right: 'settings',
  input: saveFamilyForm,
  about: (_form, out: Consequences) => (out.familyId === null ? null : { subjectKind: 'lensFamily', subjectId: out.familyId }),
  run: async (context, form) => {
    const { tx, caller, now, today } = context;
    if (form.startsOn < today) return invalid('startsOn', 'startPast');
    const reader = new CatalogueReader();
    for (const [index, line] of form.lines.entries()) reader.add(index + 1, { ...line, family_code: form.code });
    const faults: FieldProblem[] = reader.faults
      .filter((f) => f.gravity === 'stop')
      .map((f) => ({ path: ['lines', String(f.line - 1), String(f.data.column ?? '')], code: f.code, data: f.data }));
    if (faults.length > 0) return err({ kind: 'invalid', fields: faults });
    const read = reader.family(form.code);
    if (!read) return invalid('lines', 'blockRequired');
    await holdPractice(tx, caller.practiceId);
    const newest = await newestVersion(tx, caller.practiceId, form.code);
    if (newest !== form.baseVersion) {
      const [latest] = await listFamilyVersions(tx, caller.practiceId, form.code);
      const differs = latest
        ? [{ what: 'family', eye: null, text: `${latest.name} ${latest.version}`, by: latest.createdByName ?? '', at: latest.createdAt }]
        : [];
      return err({ kind: 'conflict', what: 'family', differs });
    }
    const use = await listFamilyUse(tx, caller.practiceId, form.code, today);
    const stock = (await listTrialStock(tx, caller.practiceId)).filter((s) => s.familyCode === form.code);
    const familyId = form.confirm ? context.newId() : null;
    const consequences: Consequences = {
      saved: form.confirm,
      familyId,
      prescriptions: new Set(use.map((u) => u.prescriptionId)).size,
      lost: use.filter((u) => !made(u, read.family.blocks)).map(({ wearerId, name, birthDate, eye, number }) => ({ wearerId, name, birthDate, eye, number })),
      drawerLost: stock.filter((s) => !made(s, read.family.blocks)).reduce((sum, s) => sum + s.count, 0),
    };
    if (familyId !== null) {
      const family = { ...read.family, id: familyId, version: newest + 1, listed: true, startsOn: form.startsOn, createdBy: caller.personId };
      await insertFamily(tx, caller.practiceId, family, now, () => context.newId());
      await markAll(tx, caller.practiceId);
    }
    return ok(consequences);
  },
});

/** Says when a family can last be ordered and what replaces it, or takes that back. */
export const endFamily = defineCommand({
  name: 'endFamily',
  right: 'settings',
  input: endFamilyForm,
  about: (_form, out: { id: string }) => ({ subjectKind: 'lensFamilyEnding', subjectId: out.id }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    if ((await newestVersion(tx, caller.practiceId, form.code)) === 0) return notFound('family');
    if (form.replacedBy === form.code) return invalid('replacedBy', 'replacesItself');
    if (form.replacedBy !== null && (await newestVersion(tx, caller.practiceId, form.replacedBy)) === 0) return invalid('replacedBy', 'familyUnknown');
    const id = context.newId();
    await insertEnding(tx, {
      id,
      practiceId: caller.practiceId,
      code: form.code,
      lastOrderOn: form.lastOrderOn,
      replacedBy: form.lastOrderOn === null ? null : form.replacedBy,
      reason: form.reason,
      recordedAt: now,
      recordedBy: caller.personId,
    });
    await markAll(tx, caller.practiceId);
    return ok({ id });
  },
});
