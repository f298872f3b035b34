import 'server-only';
import type { z } from 'zod';
import { addSeconds, droppedLenses, expiryState, EYES, type Eye, type OnEyeFact, type VisitFacts, type VisitRow } from '../../core';
import { withdrawRemoval } from '../../db/lensOnEye';
import { takeInHand, takeTrials, type TakenTrial } from '../../db/trialStock';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { broughtInForm, confirmLensForm, putBackForm, putOnForm, takeOffForm, wornForm } from '../../schema/lensOnEye';
import { defineCommand, type Context } from '../define';
import { lockVisit, touching, type LockedVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { passJudgements, shutOut, type Fitted } from './judgements';
import { makeableLenses, type MadeLens } from './makeableLens';
import { unlistedLens } from './unlistedLens';

/** A lens is vouched for: by whoever put it on, by the wearer's word, or by its box. */
const confirm = ({ caller, now }: Context, taken: LockedVisit, lensOnEyeId: string, how: 'putOnHere' | 'wearerSaid' | 'boxSeen'): void =>
  taken.hang({ table: 'lens_confirmation', row: { lensOnEyeId, practiceId: caller.practiceId, how, confirmedAt: now, confirmedBy: caller.personId } });

const remove = ({ caller, now }: Context, taken: LockedVisit, lensOnEyeId: string): void =>
  taken.hang({ table: 'lens_removal', row: { lensOnEyeId, practiceId: caller.practiceId, takenOffAt: now, takenOffBy: caller.personId } });

/** A lens already on the eye comes off when another goes on. @returns lenses that were on it in this visit */
function takeOffOthers(context: Context, taken: LockedVisit, { onEye, onEyeExtras }: VisitFacts, eye: Eye): OnEyeFact[] {
  const earlier: OnEyeFact[] = [];
  for (const chain of onEye) {
    if (chain.current?.eye !== eye) continue;
    earlier.push(chain.current);
    if (!onEyeExtras.find((e) => e.lensOnEyeId === chain.rootId)?.takenOffAt) remove(context, taken, chain.rootId);
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

/** A lens handed over before is on the eye again: the same lens, of the same lot, with the history of its turn. */
export const recordWorn = defineCommand({
  name: 'recordWorn',
  right: 'clinicalWrite',
  input: wornForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { now } = context;
    const taken = await lockVisit(context, form, {
      gate: 'record',
      touches: touching(
        ['lensOnEye'],
        EYES.filter((eye) => form[eye] !== null),
      ),
    });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const { handOvers: given } = await readingOf(context, visit).supply();
    const facts = await readingOf(context, visit).facts();
    for (const eye of EYES) {
      const handOverId = form[eye];
      if (handOverId === null) continue;
      const lens = given.find((c) => c.rootId === handOverId)?.current;
      if (!lens) return notFound('handOver');
      if (lens.eye !== eye) return invalid([eye], 'otherEye');
      takeOffOthers(context, taken.value, facts, eye);
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
      confirm(context, taken.value, id, form.how);
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
    const done = await withdrawRemoval(tx, { practiceId: caller.practiceId, lensOnEyeId: chain.rootId, at: now, by: caller.personId, reason: form.reason });
    taken.value.changed('measures');
    return done ? ok(taken.value.done()) : ruleBroken('notTakenOff', { eye });
  },
});
