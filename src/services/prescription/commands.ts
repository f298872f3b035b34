import 'server-only';
import type { z } from 'zod';
import {
  addKnown,
  addYears,
  dayIn,
  daysInSphere,
  dktAt,
  EYES,
  formatRefraction,
  isFollowUp,
  lastLook,
  lastLookAtWearer,
  nearState,
  powerOf,
  RULE_PROFILES,
  RULE_VERSION,
  writtenAims,
  type Eye,
  type EyeState,
  type HealthState,
  type LookLine,
  type Override,
  type RawOrder,
  type ToSign,
  type PrescriptionEyeRow,
  type WrittenAim,
} from '../../core';
import { findFamily, findFamilyInForce } from '../../db/family';
import { findStaff } from '../../db/staff';
import { insertPrescription, insertPrescriptionCopy, listPrescriptions } from '../../db/prescription';
import { nextNumber } from '../../db/practice';
import { must } from '../../lib/assert';
import { err, invalid, notFound, ok, ruleBroken, type FieldProblem, type Result } from '../../lib/outcome';
import { copyForm, signForm } from '../../schema/prescription';
import { checkPassword } from '../../server/password';
import { lockVisit } from '../visit/lock';
import { readingOf, type VisitReading } from '../visit/reading';
import { defineCommand, type Before, type Context } from '../define';
import { eyesOf, lensIn, namedLenses } from '../visit/lenses';
import { makeableLenses } from '../lensOnEye/makeableLens';
import { placeOf, tryPassword } from '../session/throttle';

const NOTHING = { sphere: 0, cylinder: 0, axis: 180 } as const;
/** A prescription may not run longer than this many years. Our own choice. */
const LONGEST_YEARS = 3;

/** The prescriber's own step-up: the password again, with tries of its own; before anything of the record is held. */
async function stepUp({ deps, caller, now }: Before, password: string): Promise<Result<{ registerNumber: string; address: string | null }>> {
  const tried = await tryPassword(deps, caller.account, placeOf.signing, now);
  if (!tried.ok) return tried;
  const staff = must(await findStaff(deps.sql, caller.practiceId, caller.personId), 'signer');
  if (!(await checkPassword(staff.passwordHash, password))) return invalid('password', 'passwordWrong');
  await tried.value();
  return ok({ registerNumber: staff.registerNumber ?? '', address: staff.address });
}

type Asked = NonNullable<z.output<typeof signForm>['right']>;

type Sentence = z.output<typeof signForm>['overrides'][number];

/** What the last look asks of one eye, or of the wearer: nothing stops it, and each line that asks has its sentence. */
interface Looked {
  readonly overrides: readonly Override[];
  /** Sentences that are missing, all at once. */
  readonly missing: readonly FieldProblem[];
}

function looked(eye: Eye | null, lines: readonly LookLine[], given: readonly Sentence[]): Result<Looked> {
  const stop = lines.find((l) => l.state === 'stop');
  if (stop) return ruleBroken(stop.code, eye ? { eye } : {});
  const asks = lines.filter((l) => l.state === 'asks').map((l) => ({ ...l, said: given.find((g) => g.eye === eye && g.code === l.code) }));
  return ok({
    overrides: asks.flatMap(({ area, code, cost, said }) => (said ? [{ eye, area, code, cost, reason: said.reason }] : [])),
    missing: asks.flatMap(({ code, said }) => (said ? [] : [{ path: ['overrides', eye ?? 'wearer', code], code: 'overrideReasonRequired' }])),
  });
}

/** The lens asked for as the last look sees it: of the family in force, at the power to be ordered. */
async function toSign(
  context: Context,
  state: EyeState,
  asked: Asked,
  { overnight, daysInSphere: days }: { readonly overnight: boolean; readonly daysInSphere: number },
): Promise<ToSign> {
  const { tx, caller, today } = context;
  const triedId = state.onEye?.current.lensId;
  const tried = triedId ? lensIn(await namedLenses(context, [triedId]))(triedId) : undefined;
  const named = asked.mode === 'final' ? await findFamily(tx, caller.practiceId, asked.lens.familyId) : null;
  const code = asked.mode === 'final' ? named?.code : tried?.row.familyCode;
  const family = code ? await findFamilyInForce(tx, caller.practiceId, code, today) : null;
  const power = asked.mode === 'final' ? asked.lens : (tried?.power ?? null);
  return {
    wearsAdd: asked.mode === 'final' && asked.lens.add !== null,
    ...(family ? { dkt: dktAt(family, power) } : {}),
    overnight,
    overnightApproved: family?.overnightApproved ?? false,
    ...(family?.irregular
      ? { irregular: { cylinder: asked.mode === 'final' ? asked.lens.cylinder : (state.overRefraction?.current.cylinderD ?? 0), daysInSphere: days } }
      : {}),
  };
}

/** How long each eye has worn a lens for irregular corneas without a cylinder, days. */
async function daysInSphereOf(context: Context, reading: VisitReading): Promise<(eye: Eye) => number> {
  const { handOvers } = await reading.supply();
  const { lenses } = await namedLenses(
    context,
    handOvers.flatMap((c) => (c.current ? [c.current.lensId] : [])),
  );
  return (eye) => daysInSphere(eye, handOvers, (id) => lenses[id], context.today);
}

interface LookedAt {
  readonly form: z.output<typeof signForm>;
  readonly eyes: Readonly<Record<Eye, EyeState>>;
  readonly health: HealthState;
  readonly overnight: boolean;
}
/** The last look at the wearer, and at each eye that is signed for. */
async function looksAt(context: Context, reading: VisitReading, { form, eyes, health, overnight }: LookedAt): Promise<Result<readonly Looked[]>> {
  const sphereDays = await daysInSphereOf(context, reading);
  const looks: Looked[] = [];
  for (const eye of [null, ...EYES]) {
    const asked = eye === null ? null : form[eye];
    if (eye !== null && !asked) continue;
    const lines =
      eye === null || !asked
        ? lastLookAtWearer(health)
        : lastLook(eyes[eye], health, eye, await toSign(context, eyes[eye], asked, { overnight, daysInSphere: sphereDays(eye) }));
    const look = looked(eye, lines, form.overrides);
    if (!look.ok) return look;
    looks.push(look.value);
  }
  return ok(looks);
}

/** One eye of the prescription: final figures, or raw data for the laboratory; never both. */
async function prescribedRow(context: Context, eye: Eye, state: EyeState, asked: Asked, aim: WrittenAim | null): Promise<Result<PrescriptionEyeRow>> {
  const { verdict } = state;
  const tried = state.onEye && state.onEye.rootId === asked.triedLensOnEyeId ? state.onEye : null;
  const triedLens = tried?.current.lensId ? lensIn(await namedLenses(context, [tried.current.lensId]))(tried.current.lensId) : undefined;
  const base = {
    eye,
    aim,
    triedLensOnEyeId: tried?.rootId ?? null,
    baseCurveTriedMm: triedLens?.row.baseCurveMm ?? null,
    working: {
      order: formatRefraction(verdict.order ?? verdict.orderDespite ?? NOTHING),
      basis: verdict.basis ?? '',
      cylinderFrom: verdict.cylinderFrom ?? '',
      freed: verdict.freed ?? '',
      rotationLeft: state.turn ? String(Math.round(state.turn.mean * 10) / 10) : '',
      blinks: String(state.turn?.count ?? ''),
      rotation: verdict.rotation?.code ?? '',
      gap: verdict.routes ? verdict.routes.gap.toFixed(4) : '',
      gate: verdict.routes ? verdict.routes.gate.toFixed(4) : '',
    },
  };
  if (asked.mode === 'final') {
    const made = await makeableLenses(context, [{ path: [eye], spec: asked.lens }]);
    if (!made.ok) return made;
    return ok({ ...base, mode: 'final', lensId: made.value[0]?.lensId ?? null, raw: null, baseCurveOrderedMm: asked.lens.baseCurve });
  }
  // A laboratory would work out the far power: an eye that is set nearer is ordered in final figures.
  if (state.aim.plus > 0) return ruleBroken('rawNearEye', { eye });
  const over = state.overRefraction?.current;
  const family = triedLens?.tried?.family;
  if (!tried || !triedLens || !family || !over || state.turn === null) return ruleBroken('rawIncomplete', { eye });
  if (!family.blocks.some((b) => b.curves.some((c) => c.baseCurve === asked.baseCurve && c.diameter === asked.diameter))) {
    return invalid([eye], 'lensNotMade', { family: family.name });
  }
  const raw: RawOrder = {
    familyCode: triedLens.row.familyCode,
    familyName: triedLens.row.familyName,
    modality: triedLens.row.modality,
    worn: triedLens.power,
    baseCurveMm: asked.baseCurve,
    diameterMm: asked.diameter,
    overRefraction: powerOf(over),
    vertexMm: over.vertexMm,
    rotationLeft: Math.round(state.turn.mean * 10) / 10,
  };
  return ok({ ...base, mode: 'raw', lensId: null, raw, baseCurveOrderedMm: asked.baseCurve });
}

/** What each eye is to see with what is signed. */
async function aimsToSign(reading: VisitReading): Promise<ReturnType<typeof writtenAims>> {
  const add = addKnown((await reading.facts()).refractions, (await reading.past()).addsBefore);
  return writtenAims(nearState((await reading.supply()).nearFindings), add);
}

/** How long it may run, by the rules in force. @returns why it runs shorter than they would have it, kept only where it does */
function termsOf({ today, settings }: Context, form: z.output<typeof signForm>): Result<string | null> {
  if (form.expiresOn <= today) return invalid('expiresOn', 'expiryNotAfterIssue');
  if (form.expiresOn > addYears(today, LONGEST_YEARS)) return invalid('expiresOn', 'expiryTooFar', { years: LONGEST_YEARS });
  const least = addYears(today, RULE_PROFILES[settings.ruleProfile].leastYears);
  if (form.expiresOn >= least) return ok(null);
  return form.expiryReason === null ? invalid('expiryReason', 'expiryReasonRequired', { day: least }) : ok(form.expiryReason);
}

export const sign = defineCommand({
  name: 'sign',
  right: 'sign',
  input: signForm,
  about: (_form, out: { prescriptionId: string; number: number; version: number; visitId: string }) => ({
    subjectKind: 'prescription',
    subjectId: out.prescriptionId,
  }),
  prepare: (before, form) => stepUp(before, form.password),
  run: async (context, form, signer) => {
    const { tx, caller, now, today, practice, settings } = context;
    // Alone: one in force for each purpose. Who signs at the same moment waits here, and supersedes the other.
    const taken = await lockVisit(context, form, { alone: true });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const eyes = await eyesOf(context, visit, { right: form.rightPicked, left: form.leftPicked });
    const rows: PrescriptionEyeRow[] = [];
    const reading = readingOf(context, visit);
    const health = await reading.state();
    const aims = await aimsToSign(reading);
    const overnight = (await reading.health()).decisions.at(-1)?.chosen.wear === 'overnight';
    const seen = await looksAt(context, reading, { form, eyes, health, overnight });
    if (!seen.ok) return seen;
    const looks = seen.value;
    const missing = looks.flatMap((l) => l.missing);
    if (missing.length > 0) return err({ kind: 'invalid', fields: missing });
    for (const eye of EYES) {
      const asked = form[eye];
      if (!asked) continue;
      const row = await prescribedRow(context, eye, eyes[eye], asked, aims?.[eye] ?? null);
      if (!row.ok) return row;
      rows.push(row.value);
    }
    const ends = termsOf(context, form);
    if (!ends.ok) return ends;
    if (settings.finalPrescription === 'afterAftercare' && !isFollowUp(visit.kind) && form.waitNote === null) return invalid('waitNote', 'waitNoteRequired');
    const before = (await listPrescriptions(tx, caller.practiceId, visit.wearerId)).find((p) => p.purpose === form.purpose);
    taken.value.changed('supply');
    context.supplyOf.add(visit.wearerId);
    const [id, number] = [context.newId(), await nextNumber(tx, caller.practiceId, 'prescription')];
    const examinedAt = latestExamination(eyes) ?? now;
    const stored = await insertPrescription(
      tx,
      {
        id,
        practiceId: caller.practiceId,
        number,
        visitId: form.visitId,
        visitVersion: taken.value.version,
        wearerId: visit.wearerId,
        examinedOn: dayIn(examinedAt, practice.timeZone),
        issuedAt: now,
        issuedOn: today,
        expiresOn: form.expiresOn,
        signedBy: caller.personId,
        prescriber: {
          name: caller.name,
          title: caller.title,
          registerNumber: signer.registerNumber,
          practice: practice.name,
          address: signer.address ?? practice.address,
          telephone: practice.telephone,
        },
        waitNote: form.waitNote,
        expiryReason: ends.value,
        daysPerWeek: form.daysPerWeek,
        purpose: form.purpose,
        supersedesId: before?.id ?? null,
        overrides: looks.flatMap((l) => l.overrides),
        settings,
        ruleVersion: RULE_VERSION,
      },
      rows,
    );
    if (!stored) return err({ kind: 'conflict', what: 'prescription', differs: [] });
    taken.value.forgetDraft('prescription');
    return ok({ prescriptionId: id, number, version: taken.value.version, visitId: form.visitId });
  },
});

/** The wearer has a copy, or would not take one: kept beside the prescription, which never changes. */
export const recordCopy = defineCommand({
  name: 'recordCopy',
  right: 'handOver',
  input: copyForm,
  about: (form) => ({ subjectKind: 'prescription', subjectId: form.prescriptionId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form, { gate: 'record', touches: [] });
    if (!taken.ok) return taken;
    const all = await listPrescriptions(tx, caller.practiceId, taken.value.visit.wearerId);
    if (!all.some((p) => p.id === form.prescriptionId)) return notFound('prescription');
    taken.value.changed('supply');
    const { prescriptionId, how } = form;
    await insertPrescriptionCopy(tx, { id: context.newId(), practiceId: caller.practiceId, prescriptionId, how, givenAt: now, givenBy: caller.personId });
    return ok(taken.value.done());
  },
});

function latestExamination(eyes: Record<Eye, EyeState>): string | null {
  const times = EYES.flatMap((eye) => {
    const state = eyes[eye];
    return [state.refraction, state.overRefraction].flatMap((c) => (c ? [c.current.observedAt] : []));
  });
  return times.sort().at(-1) ?? null;
}
