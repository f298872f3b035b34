import 'server-only';
import type { z } from 'zod';
import { droppedLenses, expiryState, EYES, type Eye, readinessOf, type OnEyeFact, type VisitRow } from '../../core';
import { listDiagnosticLenses, lockDiagnosticLenses } from '../../db/diagnosticLens';
import { withdrawRemoval } from '../../db/lensOnEye';
import { recalledOf } from '../../db/lotRecall';
import { takeInHand, takeTrials, type TakenTrial } from '../../db/trialStock';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { broughtInForm, confirmLensForm, putBackForm, putOnForm, takeOffForm } from '../../schema/lensOnEye';
import { defineCommand, type Context } from '../define';
import { lockVisit, touching, type LockedVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { passJudgements, shutOut, type Fitted } from './judgements';
import { makeableLenses, type MadeLens } from './makeableLens';
import { confirm, remove, takeOffOthers } from './onOff';
import { unlistedLens } from './unlistedLens';

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

/** Lenses that may go on this wearer's eyes, today or once they came: made, not shut out, and judgements passed with a sentence. */
export async function lensesToPutOn(
  context: Context,
  taken: LockedVisit,
  form: z.output<typeof putOnForm>,
): Promise<Result<readonly (MadeLens & { readonly eye: Eye })[]>> {
  const reading = readingOf(context, taken.visit);
  const eyes = EYES.flatMap((eye) => (form[eye] ? [{ eye, spec: form[eye] }] : []));
  const wearer: Fitted = {
    age: (await reading.wearer()).age,
    kind: (await reading.health()).decisions.at(-1)?.chosen ?? null,
    health: await reading.state(),
    fitted: eyes.map((e) => e.eye),
    dropped: await droppedBefore(context, taken.visit),
  };
  const made = await makeableLenses(
    context,
    eyes.map(({ eye, spec }) => ({ path: [eye], spec })),
  );
  if (!made.ok) return made;
  const lenses = eyes.map((of, i) => ({ ...of, ...must(made.value[i], 'lens') }));
  for (const { eye, spec, family } of lenses) {
    const shut = shutOut(context, family, spec, wearer);
    if (shut) return shut;
    const held = await passJudgements(context, taken, { eye, family, power: spec, wearer, reason: form.despiteReason });
    if (held) return held;
  }
  return ok(lenses);
}

/** The trial lens for each eye: out of the drawer, or in the hand though nobody had counted it. Null where there is none. */
async function trialsFor(
  { tx, caller, now, today, newId }: Context,
  taken: LockedVisit,
  form: z.output<typeof putOnForm>,
  lenses: readonly (MadeLens & { readonly eye: Eye })[],
): Promise<readonly (TakenTrial | null)[]> {
  const moved = { at: now, by: caller.personId, visitId: taken.visit.id };
  const counted = lenses.filter(({ eye }) => form[eye]?.inHand === null);
  const fromDrawer = await takeTrials(
    tx,
    caller.practiceId,
    counted.map((l) => l.lensId),
    today,
    moved,
  );
  const trials: (TakenTrial | null)[] = [];
  for (const lens of lenses) {
    const inHand = form[lens.eye]?.inHand ?? null;
    if (inHand === null) trials.push(fromDrawer[counted.indexOf(lens)] ?? null);
    else trials.push(await takeInHand(tx, caller.practiceId, { lensId: lens.lensId, ...inHand }, moved, newId));
  }
  return trials;
}

export const putOnTrials = defineCommand({
  name: 'putOnTrials',
  right: 'clinicalWrite',
  input: putOnForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { now, today } = context;
    const eyes = EYES.filter((eye) => form[eye] !== null);
    const old = eyes.find((eye) => expiryState(form[eye]?.inHand?.expiresOn ?? today, today) === 'expired');
    if (old) return invalid([old, 'inHand', 'expiresOn'], 'trialExpired', { expired: form[old]?.inHand?.expiresOn ?? '' });
    // A lens was chosen for powers, and for a kind.
    const locked = await lockVisit(context, form, { touches: [...touching(['lensOnEye', 'choice', 'refraction'], eyes), { what: 'decision' }] });
    if (!locked.ok) return locked;
    const taken = locked.value;
    const lenses = await lensesToPutOn(context, taken, form);
    if (!lenses.ok) return lenses;
    // Lenses that serve several people go on from their set alone, where each is known and disinfected.
    const ofSet = lenses.value.find(({ family }) => family.irregular || family.reusableTrial);
    if (ofSet) return invalid([ofSet.eye], 'fromItsSet', { family: ofSet.family.name });
    const [recalled] = await recalledOf(
      context.tx,
      context.caller.practiceId,
      lenses.value.flatMap(({ eye, lensId }) => {
        const lot = form[eye]?.inHand?.lot;
        return lot === undefined ? [] : [{ lot, lensId }];
      }),
    );
    const held = recalled && eyes.find((eye) => form[eye]?.inHand?.lot === recalled.lot);
    if (held) return invalid([held, 'inHand', 'lot'], 'lotRecalled', { lot: recalled.lot });
    const trials = await trialsFor(context, taken, form, lenses.value);
    const facts = await readingOf(context, taken.visit).facts();
    for (const [i, { eye, family }] of lenses.value.entries()) {
      const trial = trials[i];
      if (!trial) return invalid([eye], 'noTrialInDrawer', { family: family.name });
      const earlier = takeOffOthers(context, taken, facts, eye);
      const values = {
        lensId: trial.lensId,
        description: null,
        source: 'trial',
        trialNumber: earlier.filter((e) => e.source === 'trial').length + 1,
        trialStockId: trial.id,
        diagnosticLensId: null,
        lot: trial.lot,
        expiresOn: trial.expiresOn,
        putOnAt: now,
      };
      confirm(context, taken, taken.add('lensOnEye', eye, values), 'putOnHere');
    }
    taken.forgetDraft('lens');
    taken.changed('measures', 'drawer');
    return ok(taken.done());
  },
});

export const recordBroughtIn = defineCommand({
  name: 'recordBroughtIn',
  right: 'clinicalWrite',
  input: broughtInForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { now } = context;
    if (form.how !== null && form.power === null) return invalid('power', 'powerNeededToConfirm');
    const taken = await lockVisit(context, form, { gate: 'record', touches: touching(['lensOnEye'], [form.eye]) });
    if (!taken.ok) return taken;
    let lensId: string | null = null;
    if (form.power) {
      lensId = await unlistedLens(context, { name: form.description, modality: form.modality, power: form.power.power, baseCurveMm: null, diameterMm: null });
    }
    takeOffOthers(context, taken.value, await readingOf(context, taken.value.visit).facts(), form.eye);
    const id = taken.value.add('lensOnEye', form.eye, {
      lensId,
      description: form.description,
      source: 'broughtIn',
      trialNumber: null,
      trialStockId: null,
      diagnosticLensId: null,
      lot: null,
      expiresOn: null,
      putOnAt: now,
    });
    if (form.how !== null) confirm(context, taken.value, id, form.how);
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
    const taken = await lockVisit(context, form, { gate: 'measure', touches: [{ what: 'lensOnEye' }] });
    if (!taken.ok) return taken;
    const row = await lensOf(context, taken.value.visit, form.lensOnEyeId);
    if (!row) return notFound('lensOnEye');
    if (row.lensId === null) return invalid('power', 'powerNeededToConfirm');
    confirm(context, taken.value, row.id, form.how);
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
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'lensOnEye' }] });
    if (!taken.ok) return taken;
    for (const id of form.lensOnEyeIds) {
      if (!(await lensOf(context, taken.value.visit, id))) return notFound('lensOnEye');
      remove(context, taken.value, id);
    }
    taken.value.changed('measures');
    return ok(taken.value.done());
  },
});

/** Was a lens of a set disinfected, or on somebody, since it was taken off here? */
async function movedOn({ tx, caller, today, now }: Context, { diagnosticLensId, putOnAt }: OnEyeFact): Promise<boolean> {
  if (diagnosticLensId === null) return false;
  await lockDiagnosticLenses(tx, caller.practiceId, [diagnosticLensId]);
  const lens = (await listDiagnosticLenses(tx, caller.practiceId, today)).find((l) => l.id === diagnosticLensId);
  const lastOn = lens?.uses.at(-1)?.onAt;
  return !lens || readinessOf(lens, now).state !== 'used' || lastOn === undefined || Date.parse(lastOn) !== Date.parse(putOnAt);
}

/** It was never taken off: the removal stays on record, withdrawn with its reason. Only the lens last on that eye. */
export const putBack = defineCommand({
  name: 'putBack',
  right: 'clinicalWrite',
  input: putBackForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'lensOnEye' }] });
    if (!taken.ok) return taken;
    const { onEye: all } = await readingOf(context, taken.value.visit).facts();
    const chain = all.find((c) => c.rootId === form.lensOnEyeId);
    if (!chain?.current) return notFound('lensOnEye');
    const { eye } = chain.current;
    const newest = all.filter((c) => c.current?.eye === eye).at(-1);
    if (newest?.rootId !== chain.rootId) return ruleBroken('anotherLensOn', { eye });
    if (await movedOn(context, chain.current)) return ruleBroken('setLensMovedOn', { eye });
    const done = await withdrawRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: chain.rootId, at: now, by: caller.personId, reason: form.reason });
    taken.value.changed('measures');
    return done ? ok(taken.value.done()) : ruleBroken('notTakenOff', { eye });
  },
});
