import 'server-only';
import type { z } from 'zod';
import { chains, EYES, lastSeries, patternData, patternsOfVisit, secondsBetween, type Eye, type OnEyeFact, type RotationFact } from '../core';
import { findFact, listFacts, listOnEyeExtras } from '../db/facts';
import { listLenses } from '../db/lenses';
import { insertChoice } from '../db/onEye';
import { deleteDraft } from '../db/visits';
import { invalid, notFound, ok, ruleBroken, type Result } from '../lib/outcome';
import { chooseLensForm, onEyeForm, refractionForm } from '../schema/measureForms';
import { takeVisit, type Taken } from './change';
import { defineService, type Context } from './define';
import { lensesOf, lensIdsOf } from './eyesOf';
import { settleStops } from './health';
import { readVisitFacts } from './visitRecord';

export const recordRefraction = defineService({
  name: 'recordRefraction',
  right: 'clinicalWrite',
  input: refractionForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'measure', true);
    if (!taken.ok) return taken;
    for (const eye of EYES) {
      const typed = form[eye];
      if (!typed) continue;
      await taken.value.add('refraction', eye, {
        sphereD: typed.power.sphere,
        cylinderD: typed.power.cylinder,
        axisDeg: typed.power.axis,
        vertexMm: form.vertexMm,
        typedText: typed.typed,
        source: 'typed',
        addD: form[`${eye}Add`],
        addSource: form[`${eye}Add`] === null ? null : form.addSource,
        prismText: typed.prism,
        acuityLogMar: form[`${eye}Acuity`]?.logMar ?? null,
        acuityTyped: form[`${eye}Acuity`]?.typed ?? null,
      });
    }
    // A myopic shift under some medicines is an absolute stop.
    await settleStops(context, taken.value.visit, taken.value);
    await deleteDraft(context.tx, context.caller.practiceId, form.visitId, 'power', context.caller.personId);
    return ok(taken.value.done());
  },
});

/** The lens a reading hangs on: of this visit and eye, still on it. */
async function lensUnder(
  context: Context,
  visitId: string,
  eye: Eye,
  id: string,
): Promise<Result<{ row: OnEyeFact; confirmed: boolean; settleMinutes: number }>> {
  const { tx, caller } = context;
  const chain = chains(await listFacts<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, [visitId])).find((c) => c.rootId === id);
  if (chain?.current?.eye !== eye) return notFound('lensOnEye');
  const row = chain.current;
  const extra = (await listOnEyeExtras(tx, caller.practiceId, [visitId])).find((e) => e.lensOnEyeId === id);
  if (extra?.takenOffAt) return ruleBroken('lensTakenOff', { eye });
  const [lens] = row.lensId ? await listLenses(tx, caller.practiceId, [row.lensId]) : [];
  return ok({ row, confirmed: extra?.how !== null && extra !== undefined, settleMinutes: lens?.settleMinutes ?? 15 });
}

type Form = z.output<typeof onEyeForm>;
type Reading = NonNullable<Form['right']>;

/** The number of the series that new blinks belong to. Readings before and after settling never share one. */
async function seriesFor(context: Context, visitId: string, reading: Reading, provisional: boolean): Promise<number> {
  const facts = chains(await listFacts<RotationFact>(context.tx, 'rotation_reading', context.caller.practiceId, [visitId]));
  const last = lastSeries(facts, reading.lensOnEyeId);
  const number = last[0]?.current.seriesNo ?? 0;
  const goesOn = reading.continues && last.length > 0 && last.every((c) => c.current.provisional === provisional);
  return goesOn ? number : number + 1;
}

/** Everything read on one eye, appended. */
async function appendReading(context: Context, taken: Taken, eye: Eye, reading: Reading, visitId: string): Promise<Result<null>> {
  const under = await lensUnder(context, visitId, eye, reading.lensOnEyeId);
  if (!under.ok) return under;
  const { row, confirmed, settleMinutes } = under.value;
  const provisional = secondsBetween(row.putOnAt, context.now) < settleMinutes * 60;
  const hangs = { lensOnEyeId: row.rootId, provisional };
  if (reading.fit !== null) await taken.add('fit', eye, { ...hangs, verdict: reading.fit });
  for (const f of reading.findings) {
    const value = typeof f.value === 'number' ? { numberValue: f.value, wordValue: null } : { numberValue: null, wordValue: f.value };
    await taken.add('lensFinding', eye, { ...hangs, sign: f.sign, ...value, typedText: f.typed });
  }
  if (reading.blinks.length > 0) {
    const seriesNo = await seriesFor(context, visitId, reading, provisional);
    for (const blink of reading.blinks) {
      await taken.add('rotation', eye, {
        ...hangs,
        rotationLeftDeg: blink.rotationLeft,
        how: blink.how,
        seriesNo,
        scaleReading: blink.scaleReading,
        instrumentId: blink.instrumentId,
      });
    }
  }
  if (reading.overRefraction !== null) {
    // The database refuses it too: an over-refraction belongs to a lens somebody vouches for.
    if (!confirmed) return invalid([eye, 'overRefraction'], 'lensUnconfirmed');
    const { typed, power } = reading.overRefraction;
    if (reading.sureOfLens) await taken.add('lensFinding', eye, { ...hangs, sign: 'sureOfLens', numberValue: null, wordValue: 'yes', typedText: null });
    await taken.add('overRefraction', eye, {
      ...hangs,
      sphereD: power.sphere,
      cylinderD: power.cylinder,
      axisDeg: power.axis,
      vertexMm: reading.vertexMm,
      typedText: typed,
      acuityLogMar: reading.overAcuity?.logMar ?? null,
      acuityTyped: reading.overAcuity?.typed ?? null,
      // A cylinder that was found was looked for.
      cylinderTested: reading.cylinderTested || power.cylinder !== 0,
      plusHalf: reading.plusHalf,
      control: reading.control,
    });
  }
  return ok(null);
}

/** What both eyes see together: appended to the two lenses it was read through. */
async function appendTogether(context: Context, taken: Taken, both: NonNullable<Form['both']>, visitId: string): Promise<Result<null>> {
  const ids = { right: both.rightLensOnEyeId, left: both.leftLensOnEyeId };
  let provisional = false;
  for (const eye of EYES) {
    const under = await lensUnder(context, visitId, eye, ids[eye]);
    if (!under.ok) return under;
    provisional ||= secondsBetween(under.value.row.putOnAt, context.now) < under.value.settleMinutes * 60;
  }
  const { logMar, typed } = both.acuity;
  await taken.add('acuityBoth', null, {
    rightLensOnEyeId: ids.right,
    leftLensOnEyeId: ids.left,
    acuityLogMar: logMar,
    acuityTyped: typed,
    provisional,
  });
  return ok(null);
}

export const recordOnEye = defineService({
  name: 'recordOnEye',
  right: 'clinicalWrite',
  input: onEyeForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'measure');
    if (!taken.ok) return taken;
    for (const eye of EYES) {
      const reading = form[eye];
      if (!reading) continue;
      const done = await appendReading(context, taken.value, eye, reading, form.visitId);
      if (!done.ok) return done;
    }
    if (form.both) {
      const done = await appendTogether(context, taken.value, form.both, form.visitId);
      if (!done.ok) return done;
    }
    const surprise = await unansweredSurprise(context, form);
    if (surprise) return surprise;
    await deleteDraft(context.tx, context.caller.practiceId, form.visitId, 'onEye', context.caller.personId);
    return ok(taken.value.done());
  },
});

/** An over-refraction that this lens should not leave: first it is asked whether this is the lens. */
async function unansweredSurprise(context: Context, form: Form): Promise<Result<never> | null> {
  if (form.right?.overRefraction === null && form.left?.overRefraction === null) return null;
  const facts = await readVisitFacts(context, form.visitId);
  const lenses = await lensesOf(context, lensIdsOf(facts));
  const patterns = patternsOfVisit(
    facts,
    (id) => {
      const lens = lenses.get(id);
      return lens && { ...lens, name: lens.row.familyName };
    },
    context.settings,
  );
  for (const eye of EYES) {
    const reading = form[eye];
    const [first] = patterns[eye];
    if (!reading || reading.overRefraction === null || reading.sureOfLens || !first) continue;
    return invalid([eye, 'overRefraction'], `isThisTheLens_${first.code}`, patternData(first));
  }
  return null;
}

/** An earlier lens of the visit is the one to decide on after all. */
export const chooseLens = defineService({
  name: 'chooseLens',
  right: 'clinicalWrite',
  input: chooseLensForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'measure');
    if (!taken.ok) return taken;
    const row = await findFact<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, form.lensOnEyeId);
    if (!row || row.visitId !== form.visitId || row.rootId !== row.id) return notFound('lensOnEye');
    await insertChoice(tx, {
      id: context.newId(),
      practiceId: caller.practiceId,
      visitId: form.visitId,
      visitVersion: taken.value.version,
      lensOnEyeId: row.id,
      why: form.why,
      chosenAt: now,
      chosenBy: caller.personId,
    });
    return ok(taken.value.done());
  },
});
