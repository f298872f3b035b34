import 'server-only';
import { addSeconds, ageOn, chains, droppedLenses, EYES, isMade, isOrderable, type Eye, type OnEyeFact } from '../core';
import { findFact, insertConfirmation, insertRemoval, listFacts, listOnEyeExtras, withdrawRemoval } from '../db/facts';
import { listDecisions } from '../db/health';
import { ensureLens, findFamily, findFamilyInForce, insertFamily, listLenses, takeTrial, type FamilyWithBlocks } from '../db/lenses';
import { deleteDraft, listVisits, type VisitRow } from '../db/visits';
import { findWearer } from '../db/wearers';
import { must } from '../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../lib/outcome';
import { broughtInForm, confirmLensForm, putBackForm, putOnForm, takeOffForm, wornForm, type LensSpecInput } from '../schema/measureForms';
import { takeVisit } from './change';
import { defineService, type Context } from './define';
import { readHealth } from './healthRecord';
import { passJudgements, shutOut } from './lensJudgements';
import type { HandOverFact } from './visitRecord';

/** The family and row of a lens that is really made; its row in `lens` appears when it is first met. */
export async function makeableLens(
  context: Context,
  path: readonly string[],
  spec: LensSpecInput,
): Promise<Result<{ lensId: string; family: FamilyWithBlocks }>> {
  const { tx, caller, today } = context;
  const named = await findFamily(tx, caller.practiceId, spec.familyId);
  if (!named?.listed) return notFound('family');
  // The page may be older than the catalogue: what holds is the version in force today.
  const family = await findFamilyInForce(tx, caller.practiceId, named.code, today);
  if (!family) return notFound('family');
  if (!isOrderable(family, today)) return invalid(path, 'familyEnded', { family: family.name, day: family.lastOrderOn ?? '' });
  const axis = spec.cylinder === 0 ? 180 : spec.axis;
  if (!isMade({ ...spec, axis }, family)) return invalid(path, 'lensNotMade', { family: family.name });
  const lensId = await ensureLens(tx, caller.practiceId, context.newId(), {
    familyVersionId: family.id,
    sphereD: spec.sphere,
    cylinderD: spec.cylinder,
    axisDeg: axis,
    addBand: spec.add,
    baseCurveMm: spec.baseCurve,
    diameterMm: spec.diameter,
  });
  return ok({ lensId, family });
}

/** A lens already on the eye comes off when another goes on. */
async function takeOffOthers(context: Context, visitId: string, eye: Eye): Promise<OnEyeFact[]> {
  const { tx, caller, now } = context;
  const all = chains(await listFacts<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, [visitId]));
  const extras = await listOnEyeExtras(tx, caller.practiceId, [visitId]);
  const earlier: OnEyeFact[] = [];
  for (const chain of all) {
    if (chain.current?.eye !== eye) continue;
    earlier.push(chain.current);
    if (extras.find((e) => e.lensOnEyeId === chain.rootId)?.takenOffAt) continue;
    await insertRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: chain.rootId, at: now, by: caller.personId });
  }
  return earlier;
}

/** Lenses this wearer stopped with for a reason that lies in the lens. */
async function droppedBefore(context: Context, visit: VisitRow): Promise<readonly string[]> {
  const { state } = await readHealth(context, visit);
  const visits = await listVisits(context.tx, context.caller.practiceId, visit.wearerId);
  const ids = visits.filter((v) => v.id !== visit.id).map((v) => v.id);
  const given = chains(await listFacts<HandOverFact>(context.tx, 'hand_over', context.caller.practiceId, ids));
  const lenses = await listLenses(
    context.tx,
    context.caller.practiceId,
    given.flatMap((c) => (c.current ? [c.current.lensId] : [])),
  );
  return droppedLenses(
    state.answers,
    lenses.map((l) => l.familyCode),
  );
}

export const putOnTrials = defineService({
  name: 'putOnTrials',
  right: 'clinicalWrite',
  input: putOnForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now, today } = context;
    const taken = await takeVisit(context, form.visitId, form.version);
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const dropped = await droppedBefore(context, visit);
    const found = must(await findWearer(tx, caller.practiceId, visit.wearerId), 'wearer of the visit');
    const [decision] = (await listDecisions(tx, caller.practiceId, [form.visitId])).slice(-1);
    const { state: health } = await readHealth(context, visit);
    const wearer = { age: ageOn(found.birthDate, today), kind: decision?.chosen ?? null, health, fitted: EYES.filter((e) => form[e] !== null), dropped };
    for (const eye of EYES) {
      const spec = form[eye];
      if (!spec) continue;
      const made = await makeableLens(context, [eye], spec);
      if (!made.ok) return made;
      const shut = shutOut(context, made.value.family, spec, wearer);
      if (shut) return shut;
      const held = await passJudgements(context, taken.value, { eye, family: made.value.family, power: spec, wearer, reason: form.despiteReason });
      if (held) return held;
      const fromDrawer = await takeTrial(tx, caller.practiceId, made.value.lensId, today);
      if (!fromDrawer) return invalid([eye], 'noTrialInDrawer', { family: made.value.family.name });
      const earlier = await takeOffOthers(context, form.visitId, eye);
      const id = await taken.value.add('lensOnEye', eye, {
        lensId: fromDrawer.lensId,
        description: null,
        source: 'trial',
        trialNumber: earlier.filter((e) => e.source === 'trial').length + 1,
        trialStockId: fromDrawer.id,
        lot: fromDrawer.lot,
        expiresOn: fromDrawer.expiresOn,
        putOnAt: now,
      });
      await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: id, how: 'putOnHere', at: now, by: caller.personId });
    }
    await deleteDraft(tx, caller.practiceId, form.visitId, 'lens', caller.personId);
    return ok(taken.value.done());
  },
});

/** A lens handed over before is on the eye again: the same lens, of the same lot, with the history of its turn. */
export const recordWorn = defineService({
  name: 'recordWorn',
  right: 'clinicalWrite',
  input: wornForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const visits = await listVisits(tx, caller.practiceId, taken.value.visit.wearerId);
    const ids = visits.map((v) => v.id);
    const given = chains(await listFacts<HandOverFact>(tx, 'hand_over', caller.practiceId, ids));
    for (const eye of EYES) {
      const handOverId = form[eye];
      if (handOverId === null) continue;
      const lens = given.find((c) => c.rootId === handOverId)?.current;
      if (!lens) return notFound('handOver');
      if (lens.eye !== eye) return invalid([eye], 'otherEye');
      await takeOffOthers(context, form.visitId, eye);
      const id = await taken.value.add('lensOnEye', eye, {
        lensId: lens.lensId,
        description: null,
        source: 'dispensed',
        trialNumber: null,
        trialStockId: null,
        lot: lens.lot,
        expiresOn: lens.expiresOn,
        putOnAt: addSeconds(now, -Math.round(form.hoursWorn * 3600)),
      });
      await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: id, how: form.how, at: now, by: caller.personId });
    }
    return ok(taken.value.done());
  },
});

export const recordBroughtIn = defineService({
  name: 'recordBroughtIn',
  right: 'clinicalWrite',
  input: broughtInForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    if (form.how !== null && form.power === null) return invalid('power', 'powerNeededToConfirm');
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    let lensId: string | null = null;
    if (form.power) {
      const { sphere, cylinder, axis } = form.power.power;
      const familyId = context.newId();
      // A family of its own that is never offered: what it is made of is not known here.
      await insertFamily(
        tx,
        caller.practiceId,
        {
          id: familyId,
          code: `brought-in:${familyId}`,
          version: 1,
          listed: false,
          maker: '',
          name: form.description,
          geometry: cylinder === 0 ? 'sphere' : 'toric',
          modality: form.modality,
          material: '',
          overnightApproved: false,
          markLayout: cylinder === 0 ? 'none' : 'six',
          stabilisation: null,
          settleMinutes: 10,
          packSize: 1,
          packPriceMinor: 0,
          leadDays: 0,
          blocks: [],
        },
        now,
        () => context.newId(),
      );
      lensId = await ensureLens(tx, caller.practiceId, context.newId(), {
        familyVersionId: familyId,
        sphereD: sphere,
        cylinderD: cylinder,
        axisDeg: axis,
        addBand: null,
        baseCurveMm: null,
        diameterMm: null,
      });
    }
    await takeOffOthers(context, form.visitId, form.eye);
    const id = await taken.value.add('lensOnEye', form.eye, {
      lensId,
      description: form.description,
      source: 'broughtIn',
      trialNumber: null,
      trialStockId: null,
      lot: null,
      expiresOn: null,
      putOnAt: now,
    });
    if (form.how !== null) await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: id, how: form.how, at: now, by: caller.personId });
    return ok(taken.value.done());
  },
});

export const confirmLens = defineService({
  name: 'confirmLens',
  right: 'clinicalWrite',
  input: confirmLensForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'measure');
    if (!taken.ok) return taken;
    const row = await findFact<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, form.lensOnEyeId);
    if (!row || row.visitId !== form.visitId) return notFound('lensOnEye');
    if (row.lensId === null) return invalid('power', 'powerNeededToConfirm');
    await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: row.id, how: form.how, at: now, by: caller.personId });
    return ok(taken.value.done());
  },
});

export const takeOff = defineService({
  name: 'takeOff',
  right: 'clinicalWrite',
  input: takeOffForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    for (const id of form.lensOnEyeIds) {
      const row = await findFact<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, id);
      if (!row || row.visitId !== form.visitId) return notFound('lensOnEye');
      await insertRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: id, at: now, by: caller.personId });
    }
    return ok(taken.value.done());
  },
});

/** It was never taken off: the removal stays on record, withdrawn with its reason. Only the lens last on that eye. */
export const putBack = defineService({
  name: 'putBack',
  right: 'clinicalWrite',
  input: putBackForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const all = chains(await listFacts<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, [form.visitId]));
    const chain = all.find((c) => c.rootId === form.lensOnEyeId);
    if (!chain?.current) return notFound('lensOnEye');
    const { eye } = chain.current;
    const newest = all.filter((c) => c.current?.eye === eye).at(-1);
    if (newest?.rootId !== chain.rootId) return ruleBroken('anotherLensOn', { eye });
    const done = await withdrawRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: chain.rootId, at: now, by: caller.personId, reason: form.reason });
    return done ? ok(taken.value.done()) : ruleBroken('notTakenOff', { eye });
  },
});
