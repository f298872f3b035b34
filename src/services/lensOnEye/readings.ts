import 'server-only';
import {
  EYES,
  lastSeries,
  LOOK_WITHIN,
  patternData,
  patternsOfVisit,
  secondsBetween,
  settleOf,
  type Eye,
  type Settle,
  type OnEyeFact,
  type VisitRow,
} from '../../core';
import { insertChoice } from '../../db/lensChoice';
import { pictureOf } from '../../db/picture';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { chooseLensForm, onEyeForm } from '../../schema/lensOnEye';
import { defineCommand, type Context } from '../define';
import { eyesOf, lensIdsOf, lensIn, namedLenses } from '../visit/lenses';
import { lockVisit, touching, type LockedVisit, type Touch } from '../visit/lock';
import { readingOf } from '../visit/reading';
import type { z } from 'zod';

/** The lens a reading hangs on: of this visit and eye, still on it. */
async function lensUnder(context: Context, visit: VisitRow, eye: Eye, id: string): Promise<Result<{ row: OnEyeFact; confirmed: boolean; settle: Settle }>> {
  const { onEye, onEyeExtras } = await readingOf(context, visit).facts();
  const row = onEye.find((c) => c.rootId === id)?.current;
  if (row?.eye !== eye) return notFound('lensOnEye');
  const extra = onEyeExtras.find((e) => e.lensOnEyeId === id);
  if (extra?.takenOffAt) return ruleBroken('lensTakenOff', { eye });
  const { lenses } = await namedLenses(context, row.lensId ? [row.lensId] : []);
  return ok({ row, confirmed: extra?.how !== null && extra !== undefined, settle: settleOf(row.lensId ? lenses[row.lensId] : undefined) });
}

type Form = z.output<typeof onEyeForm>;
type Reading = NonNullable<Form['right']>;

/** The number of the series that new blinks belong to. Readings before and after settling never share one. */
async function seriesFor(context: Context, visit: VisitRow, reading: Reading, provisional: boolean): Promise<number> {
  const { rotations } = await readingOf(context, visit).facts();
  const last = lastSeries(rotations, reading.lensOnEyeId);
  const number = last[0]?.current.seriesNo ?? 0;
  const goesOn = reading.continues && last.length > 0 && last.every((c) => c.current.provisional === provisional);
  return goesOn ? number : number + 1;
}

/** One look says that the mark sits where it is known to sit: there has to be such a place. */
async function lookElsewhere(context: Context, visit: VisitRow, eye: Eye, reading: Reading): Promise<Result<never> | null> {
  const looks = reading.blinks.filter((b) => b.how === 'look');
  if (looks.length === 0) return null;
  const { turnKnown } = (await eyesOf(context, visit))[eye];
  const there = turnKnown !== null && looks.every((b) => Math.abs(b.rotationLeft - turnKnown) <= LOOK_WITHIN);
  return there ? null : invalid([eye, 'blinks'], 'turnNotKnown');
}

/** A turn is read off a picture of this eye, taken at this visit. */
async function otherPicture(context: Context, visit: VisitRow, eye: Eye, reading: Reading): Promise<Result<never> | null> {
  for (const { photo } of reading.blinks) {
    if (photo === null) continue;
    const of = await pictureOf(context.tx, context.caller.practiceId, photo.pictureId);
    if (of?.visitId !== visit.id) return notFound('picture');
    if (of.eye !== eye) return invalid([eye, 'blinks'], 'pictureOfOtherEye');
  }
  return null;
}

/** Everything read on one eye, appended. */
async function appendReading(context: Context, taken: LockedVisit, eye: Eye, reading: Reading): Promise<Result<null>> {
  const under = await lensUnder(context, taken.visit, eye, reading.lensOnEyeId);
  if (!under.ok) return under;
  const { row, confirmed, settle } = under.value;
  const since = secondsBetween(row.putOnAt, context.now);
  const provisional = since < settle.fit * 60;
  const hangs = { lensOnEyeId: row.rootId, provisional };
  // Sight may take longer to come than the fit.
  const seen = { ...hangs, provisional: since < settle.sight * 60 };
  const looked = await lookElsewhere(context, taken.visit, eye, reading);
  if (looked) return looked;
  const foreign = await otherPicture(context, taken.visit, eye, reading);
  if (foreign) return foreign;
  const seriesNo = reading.blinks.length > 0 ? await seriesFor(context, taken.visit, reading, provisional) : 0;
  if (reading.fit !== null) taken.add('fit', eye, { ...hangs, verdict: reading.fit });
  for (const f of reading.findings) {
    const value = typeof f.value === 'number' ? { numberValue: f.value, wordValue: null } : { numberValue: null, wordValue: f.value };
    taken.add('lensFinding', eye, { ...(f.sign.startsWith('acuity') ? seen : hangs), sign: f.sign, ...value, typedText: f.typed });
  }
  if (reading.blinks.length > 0) {
    for (const blink of reading.blinks) {
      taken.add('rotation', eye, {
        ...hangs,
        rotationLeftDeg: blink.rotationLeft,
        how: blink.how,
        seriesNo,
        scaleReading: blink.scaleReading,
        instrumentId: blink.instrumentId,
        pictureId: blink.photo?.pictureId ?? null,
        photoRollDeg: blink.photo?.rollDeg ?? null,
        photoLid: blink.photo?.lid ?? null,
        photoFoundDeg: blink.photo?.foundDeg ?? null,
      });
    }
  }
  if (reading.overRefraction !== null) {
    // The database refuses it too: an over-refraction belongs to a lens somebody vouches for.
    if (!confirmed) return invalid([eye, 'overRefraction'], 'lensUnconfirmed');
    const { typed, power } = reading.overRefraction;
    if (reading.sureOfLens) taken.add('lensFinding', eye, { ...hangs, sign: 'sureOfLens', numberValue: null, wordValue: 'yes', typedText: null });
    taken.add('overRefraction', eye, {
      ...seen,
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
async function appendTogether(context: Context, taken: LockedVisit, both: NonNullable<Form['both']>): Promise<Result<null>> {
  const ids = { right: both.rightLensOnEyeId, left: both.leftLensOnEyeId };
  let provisional = false;
  for (const eye of EYES) {
    const under = await lensUnder(context, taken.visit, eye, ids[eye]);
    if (!under.ok) return under;
    provisional ||= secondsBetween(under.value.row.putOnAt, context.now) < under.value.settle.sight * 60;
  }
  const { logMar, typed } = both.acuity;
  taken.add('acuityBoth', null, {
    rightLensOnEyeId: ids.right,
    leftLensOnEyeId: ids.left,
    acuityLogMar: logMar,
    acuityTyped: typed,
    provisional,
  });
  return ok(null);
}

/** What a reading of a lens builds on: the lens, and what was read of it. */
const ON_EYE: readonly Touch['what'][] = ['lensOnEye', 'choice', 'fit', 'rotation', 'overRefraction', 'lensFinding'];
const ON_EYE_TOGETHER: readonly Touch[] = [{ what: 'acuityBoth' }, { what: 'lensOnEye' }];

export const recordOnEye = defineCommand({
  name: 'recordOnEye',
  right: 'clinicalWrite',
  input: onEyeForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const eyes = EYES.filter((eye) => form[eye] !== null);
    const touches = [...touching(ON_EYE, eyes), ...(form.both ? ON_EYE_TOGETHER : [])];
    const taken = await lockVisit(context, form, { gate: 'measure', touches });
    if (!taken.ok) return taken;
    for (const eye of EYES) {
      const reading = form[eye];
      if (!reading) continue;
      const done = await appendReading(context, taken.value, eye, reading);
      if (!done.ok) return done;
    }
    if (form.both) {
      const done = await appendTogether(context, taken.value, form.both);
      if (!done.ok) return done;
    }
    const surprise = await unansweredSurprise(context, taken.value.visit, form);
    if (surprise) return surprise;
    taken.value.forgetDraft('onEye');
    return ok(taken.value.done());
  },
});

/** An over-refraction that this lens should not leave: first it is asked whether this is the lens. */
async function unansweredSurprise(context: Context, visit: VisitRow, form: Form): Promise<Result<never> | null> {
  if (form.right?.overRefraction === null && form.left?.overRefraction === null) return null;
  const facts = await readingOf(context, visit).facts();
  const lensOf = lensIn(await namedLenses(context, lensIdsOf(facts)));
  const patterns = patternsOfVisit(
    facts,
    (id) => {
      const lens = lensOf(id);
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
export const chooseLens = defineCommand({
  name: 'chooseLens',
  right: 'clinicalWrite',
  input: chooseLensForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form, { gate: 'measure', touches: [{ what: 'choice' }, { what: 'lensOnEye' }] });
    if (!taken.ok) return taken;
    const { onEye } = await readingOf(context, taken.value.visit).facts();
    if (!onEye.some((c) => c.rootId === form.lensOnEyeId)) return notFound('lensOnEye');
    taken.value.changed('measures');
    await insertChoice(tx, {
      id: context.newId(),
      practiceId: caller.practiceId,
      visitId: form.visitId,
      visitVersion: taken.value.version,
      lensOnEyeId: form.lensOnEyeId,
      why: form.why,
      chosenAt: now,
      chosenBy: caller.personId,
    });
    return ok(taken.value.done());
  },
});
