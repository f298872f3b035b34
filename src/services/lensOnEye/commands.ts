import 'server-only';
import { addSeconds, droppedLenses, EYES, type Eye, type OnEyeFact, type VisitRow } from '../../core';
import { insertFamily } from '../../db/family';
import { ensureLens } from '../../db/lens';
import { insertConfirmation, insertRemoval, withdrawRemoval } from '../../db/lensOnEye';
import { takeTrial } from '../../db/trialStock';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { broughtInForm, confirmLensForm, putBackForm, putOnForm, takeOffForm, wornForm } from '../../schema/lensOnEye';
import { defineCommand, type Context } from '../define';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { passJudgements, shutOut } from './judgements';
import { makeableLens } from './makeableLens';

/** A lens already on the eye comes off when another goes on. */
async function takeOffOthers(context: Context, visit: VisitRow, eye: Eye): Promise<OnEyeFact[]> {
  const { tx, caller, now } = context;
  const { onEye, onEyeExtras } = await readingOf(context, visit).facts();
  const earlier: OnEyeFact[] = [];
  for (const chain of onEye) {
    if (chain.current?.eye !== eye) continue;
    earlier.push(chain.current);
    if (onEyeExtras.find((e) => e.lensOnEyeId === chain.rootId)?.takenOffAt) continue;
    await insertRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: chain.rootId, at: now, by: caller.personId });
  }
  return earlier;
}

/** Lenses this wearer stopped with for a reason that lies in the lens. */
async function droppedBefore(context: Context, visit: VisitRow): Promise<readonly string[]> {
  const reading = readingOf(context, visit);
  const { answers } = await reading.state();
  return droppedLenses(answers, (await reading.supply()).givenFamilies);
}

/** A lens of the visit. */
async function lensOf(context: Context, visit: VisitRow, lensOnEyeId: string): Promise<OnEyeFact | null> {
  const { onEye } = await readingOf(context, visit).facts();
  return onEye.find((c) => c.rootId === lensOnEyeId)?.rows[0] ?? null;
}

export const putOnTrials = defineCommand({
  name: 'putOnTrials',
  right: 'clinicalWrite',
  input: putOnForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now, today } = context;
    const taken = await lockVisit(context, form.visitId, form.version);
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const dropped = await droppedBefore(context, visit);
    const reading = readingOf(context, visit);
    const decision = (await reading.health()).decisions.at(-1);
    const health = await reading.state();
    const wearer = { age: (await reading.wearer()).age, kind: decision?.chosen ?? null, health, fitted: EYES.filter((e) => form[e] !== null), dropped };
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
      const earlier = await takeOffOthers(context, visit, eye);
      const id = taken.value.add('lensOnEye', eye, {
        lensId: fromDrawer.lensId,
        description: null,
        source: 'trial',
        trialNumber: earlier.filter((e) => e.source === 'trial').length + 1,
        trialStockId: fromDrawer.id,
        lot: fromDrawer.lot,
        expiresOn: fromDrawer.expiresOn,
        putOnAt: now,
      });
      await context.flush();
      await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: id, how: 'putOnHere', at: now, by: caller.personId });
    }
    await taken.value.forgetDraft('lens');
    taken.value.changed('measures', 'drawer');
    return ok(taken.value.done());
  },
});

/** A lens handed over before is on the eye again: the same lens, of the same lot, with the history of its turn. */
export const recordWorn = defineCommand({
  name: 'recordWorn',
  right: 'clinicalWrite',
  input: wornForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const { handOvers: given } = await readingOf(context, visit).supply();
    for (const eye of EYES) {
      const handOverId = form[eye];
      if (handOverId === null) continue;
      const lens = given.find((c) => c.rootId === handOverId)?.current;
      if (!lens) return notFound('handOver');
      if (lens.eye !== eye) return invalid([eye], 'otherEye');
      await takeOffOthers(context, visit, eye);
      const id = taken.value.add('lensOnEye', eye, {
        lensId: lens.lensId,
        description: null,
        source: 'dispensed',
        trialNumber: null,
        trialStockId: null,
        lot: lens.lot,
        expiresOn: lens.expiresOn,
        putOnAt: addSeconds(now, -Math.round(form.hoursWorn * 3600)),
      });
      await context.flush();
      await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: id, how: form.how, at: now, by: caller.personId });
    }
    taken.value.changed('measures');
    return ok(taken.value.done());
  },
});

export const recordBroughtIn = defineCommand({
  name: 'recordBroughtIn',
  right: 'clinicalWrite',
  input: broughtInForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    if (form.how !== null && form.power === null) return invalid('power', 'powerNeededToConfirm');
    const taken = await lockVisit(context, form.visitId, form.version, 'record');
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
    await takeOffOthers(context, taken.value.visit, form.eye);
    const id = taken.value.add('lensOnEye', form.eye, {
      lensId,
      description: form.description,
      source: 'broughtIn',
      trialNumber: null,
      trialStockId: null,
      lot: null,
      expiresOn: null,
      putOnAt: now,
    });
    await context.flush();
    if (form.how !== null) await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: id, how: form.how, at: now, by: caller.personId });
    taken.value.changed('measures');
    return ok(taken.value.done());
  },
});

export const confirmLens = defineCommand({
  name: 'confirmLens',
  right: 'clinicalWrite',
  input: confirmLensForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form.visitId, form.version, 'measure');
    if (!taken.ok) return taken;
    const row = await lensOf(context, taken.value.visit, form.lensOnEyeId);
    if (!row) return notFound('lensOnEye');
    if (row.lensId === null) return invalid('power', 'powerNeededToConfirm');
    await insertConfirmation(tx, { practiceId: caller.practiceId, lensOnEyeId: row.id, how: form.how, at: now, by: caller.personId });
    taken.value.changed('measures');
    return ok(taken.value.done());
  },
});

export const takeOff = defineCommand({
  name: 'takeOff',
  right: 'clinicalWrite',
  input: takeOffForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    for (const id of form.lensOnEyeIds) {
      if (!(await lensOf(context, taken.value.visit, id))) return notFound('lensOnEye');
      await insertRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: id, at: now, by: caller.personId });
    }
    taken.value.changed('measures');
    return ok(taken.value.done());
  },
});

/** It was never taken off: the removal stays on record, withdrawn with its reason. Only the lens last on that eye. */
export const putBack = defineCommand({
  name: 'putBack',
  right: 'clinicalWrite',
  input: putBackForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { onEye: all } = await readingOf(context, taken.value.visit).facts();
    const chain = all.find((c) => c.rootId === form.lensOnEyeId);
    if (!chain?.current) return notFound('lensOnEye');
    const { eye } = chain.current;
    const newest = all.filter((c) => c.current?.eye === eye).at(-1);
    if (newest?.rootId !== chain.rootId) return ruleBroken('anotherLensOn', { eye });
    const done = await withdrawRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: chain.rootId, at: now, by: caller.personId, reason: form.reason });
    taken.value.changed('measures');
    return done ? ok(taken.value.done()) : ruleBroken('notTakenOff', { eye });
  },
});
