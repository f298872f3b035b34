import 'server-only';
import { isMade, type LensBlock } from '../core';
import { listImports, type ImportRow } from '../db/catalogueImports';
import {
  asCatalogue,
  findFamilyInForce,
  insertFamily,
  listFamilies,
  listFamilyVersions,
  listTrialStock,
  newestVersion,
  type FamilyWithBlocks,
  type TrialStockRow,
  type VersionMark,
} from '../db/lenses';
import { insertEnding, insertHouseList, listFamilyUse, listHouseList, type FamilyUse, type HouseListRow } from '../db/library';
import { holdPractice } from '../db/practices';
import { cellsOf, writeCatalogue } from '../formats/catalogueCsv';
import { must } from '../lib/assert';
import { err, invalid, notFound, ok, type FieldProblem } from '../lib/outcome';
import { CatalogueReader, type Cells } from '../schema/catalogue';
import { emptyForm } from '../schema/wearerForms';
import { endFamilyForm, familyForm, houseListForm, saveFamilyForm } from '../schema/libraryForms';
import { defineService } from './define';
import { houseOf, type House } from './visitRecord';

export interface LibraryPage {
  readonly house: House;
  readonly families: readonly FamilyWithBlocks[];
  readonly houseList: readonly HouseListRow[];
  /** The last files that were brought in. */
  readonly imports: readonly ImportRow[];
}

export const readLibrary = defineService({
  name: 'readLibrary',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const { tx, caller, today } = context;
    const page: LibraryPage = {
      house: await houseOf(context),
      families: await listFamilies(tx, caller.practiceId, today),
      houseList: await listHouseList(tx, caller.practiceId),
      imports: await listImports(tx, caller.practiceId),
    };
    return ok(page);
  },
});

export interface FamilyPage {
  readonly house: House;
  /** Newest first; one announced stands before the one in force. */
  readonly versions: readonly (FamilyWithBlocks & VersionMark)[];
  /** The version in force today; null while the family is only announced. */
  readonly inForce: FamilyWithBlocks | null;
  /** The newest version as lines of a catalogue, for changing it. */
  readonly lines: readonly Cells[];
  readonly stock: readonly TrialStockRow[];
  readonly use: readonly FamilyUse[];
  /** What might replace it. */
  readonly others: readonly { readonly code: string; readonly name: string }[];
}

export const readFamily = defineService({
  name: 'readFamily',
  right: 'read',
  input: familyForm,
  about: () => null,
  run: async (context, form) => {
    const { tx, caller, today } = context;
    const versions = await listFamilyVersions(tx, caller.practiceId, form.code);
    if (versions.length === 0) return notFound('family');
    const page: FamilyPage = {
      house: await houseOf(context),
      versions,
      lines: versions[0]?.blocks.map((block) => cellsOf(asCatalogue(must(versions[0], 'version')), block)) ?? [],
      inForce: await findFamilyInForce(tx, caller.practiceId, form.code, today),
      stock: (await listTrialStock(tx, caller.practiceId)).filter((s) => s.familyCode === form.code),
      use: await listFamilyUse(tx, caller.practiceId, form.code, today),
      others: (await listFamilies(tx, caller.practiceId, today)).filter((f) => f.code !== form.code).map(({ code, name }) => ({ code, name })),
    };
    return ok(page);
  },
});

/** Every family in force as a catalogue file. */
export const exportCatalogue = defineService({
  name: 'exportCatalogue',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async ({ tx, caller, today }) => ok({ csv: writeCatalogue((await listFamilies(tx, caller.practiceId, today)).map(asCatalogue)) }),
});

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
export const saveFamily = defineService({
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
    }
    return ok(consequences);
  },
});

/** Says when a family can last be ordered and what replaces it, or takes that back. */
export const endFamily = defineService({
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
    return ok({ id });
  },
});

/** Sets the families a practice tries first in one cell. Whoever read an older list is told instead. */
export const changeHouseList = defineService({
  name: 'changeHouseList',
  right: 'settings',
  input: houseListForm,
  about: (_form, out: { id: string }) => ({ subjectKind: 'houseList', subjectId: out.id }),
  run: async (context, form) => {
    const { tx, caller, now, today } = context;
    await holdPractice(tx, caller.practiceId);
    const there = (await listHouseList(tx, caller.practiceId)).find((h) => h.modality === form.modality && h.geometry === form.geometry);
    if ((there?.id ?? null) !== form.lastId) {
      const differs = there ? [{ what: 'houseList', eye: null, text: there.codes.join(', '), by: there.recordedByName, at: there.recordedAt }] : [];
      return err({ kind: 'conflict', what: 'houseList', differs });
    }
    const families = await listFamilies(tx, caller.practiceId, today);
    for (const [index, code] of form.codes.entries()) {
      const family = families.find((f) => f.code === code);
      if (!family || family.modality !== form.modality || family.geometry !== form.geometry) return invalid(['codes', String(index)], 'familyUnknown');
    }
    const id = context.newId();
    await insertHouseList(tx, {
      id,
      practiceId: caller.practiceId,
      modality: form.modality,
      geometry: form.geometry,
      codes: form.codes,
      at: now,
      by: caller.personId,
    });
    return ok({ id });
  },
});
