import {
  addDays,
  addSeconds,
  ADULT,
  ageOn,
  daysBetween,
  lensesNeeded,
  LIFE_DAYS,
  packsThatEnd,
  REORDER_MARGIN_DAYS,
  type AnswerValue,
  type Delivery,
  type IsoDate,
  type IsoInstant,
  type VisitKind,
} from '../../src/core';
import type { Chance } from '../../src/lib/chance';
import { addBandFor, addFor, eachEye, eyesOf, familyCodeOf, lensFor, orderFor, type Eyes, type LensForm } from './eyes';
import { somebody, type Story } from './people';
import type { Account, Booked, Practice } from './practice';
import { Visit } from './visit';

/** A life with lenses, told step by step: each yields the moment at which it goes on. */
export type Life = AsyncGenerator<IsoInstant, void, void>;
/** Days from the one that was promised to the one on which boxes are unpacked: most come in time. */
const UNPACKED_AFTER: readonly number[] = [-1, -1, 0, 0, 0, 0, 1, 2];
/** How long before their lenses run out somebody who does not stretch them calls, days. */
const CALLS_BEFORE = 12;
const EXPERIENCED = 'has worn and handled lenses for years';

export const QUIET = {
  lidMargin: 0.5,
  lashes: 0,
  bulbarRedness: 1,
  limbalRedness: 0.5,
  papillae: 0.5,
  staining: 0,
  vessels: 0,
  infiltrates: 0,
  scars: 0,
  oedema: 0,
  endothelium: 0,
  chamber: 'quiet',
  suspected: 'nothing',
};
/** At three in the afternoon, New York: when deliveries come. */
const afternoon = (day: IsoDate): IsoInstant => `${day}T20:00:00.000Z`;

/** What somebody says who has worn no lens yet, and whom nothing ails. */
export const saysQuietly = (): Record<string, AnswerValue> => ({
  danger: ['none'],
  lastWorn: 'never',
  goals: ['everyDay'],
  nights: 'none',
  work: ['outdoors'],
  freeTime: ['quiet'],
  daysPerWeek: 7,
  hoursPerDay: 10,
  dryness: 'none',
  medicines: [],
  drops: ['none'],
  allergy: ['none'],
  health: ['none'],
  skin: ['none'],
  smoking: 'no',
  eyeHistory: ['none'],
  handler: 'self',
  hygieneHands: 'good',
  hygieneCare: 'good',
  returns: 'yes',
  budget: 'careful',
});

interface Teller {
  readonly practice: Practice;
  readonly story: Story;
  readonly chance: Chance;
  readonly eyes: Eyes;
  readonly wearerId: string;
  readonly birthDate: IsoDate;
  readonly prescriber: Account;
  readonly password: string;
  readonly daysPerWeek: number;
}
interface Signed {
  readonly prescriptionId: string;
  readonly expiresOn: IsoDate;
}

/** What somebody says of themselves. */
function saysOf({ story, daysPerWeek, practice, birthDate }: Teller, now: 'before' | 'wears'): Record<string, AnswerValue> {
  const age = ageOn(birthDate, practice.today);
  const worn = now === 'wears' || story.handles === true;
  const kept = LIFE_DAYS[story.modality] * (story.stretches ?? 1);
  return {
    ...saysQuietly(),
    lastWorn: worn ? 'now' : 'never',
    ...(worn ? { whichLens: story.modality, sleptIn: 'never', replacedEvery: Math.round(kept), whyChange: ['none'], water: 'never' } : {}),
    goals: [story.presbyope ? 'near' : 'everyDay', story.age < 30 ? 'sport' : 'screens'],
    work: [age < ADULT ? 'study' : 'indoors'],
    daysPerWeek,
    hoursPerDay: 12,
    handler: age < 12 ? 'helped' : 'self',
    hygieneCare: story.stretches ? 'lapses' : 'good',
    ...(age < ADULT ? { guardian: 'consents' } : {}),
  };
}

const lensesOf = ({ practice, story, eyes }: Teller, which: 'trial' | 'order'): Record<'right' | 'left', LensForm> => {
  const family = practice.family(familyCodeOf(story));
  const add = addBandFor(story);
  return eachEye((eye) => (which === 'trial' ? lensFor(eyes[eye].required, family, add) : orderFor(eyes[eye], family, add)));
};

/** Booked for a day, at an hour that suits them. */
const booksOn = ({ practice, wearerId, prescriber, chance }: Teller, kind: VisitKind, day: IsoDate): Promise<Booked> => {
  const time = `${chance.pick(['09', '10', '11', '13', '14', '15'])}:${chance.pick(['00', '15', '30', '45'])}`;
  return practice.books(wearerId, kind, { with: kind === 'collection' ? 'renny' : prescriber, from: day, time });
};
const books = (teller: Teller, kind: VisitKind, inDays: number): Promise<Booked> => booksOn(teller, kind, addDays(teller.practice.today, inDays));

async function opens(teller: Teller, kind: VisitKind, booked: Booked | null): Promise<Visit> {
  const by = kind === 'collection' ? 'renny' : teller.prescriber;
  return Visit.open(teller.practice, by, teller.wearerId, kind, booked?.appointmentId ?? null);
}

/** History, eyes, powers, trials, lesson or not, and lenses to take home. */
async function firstFit(teller: Teller, booked: Booked): Promise<void> {
  const { practice, story, eyes } = teller;
  const visit = await opens(teller, 'firstFit', booked);
  await visit.history(saysOf(teller, 'before'));
  await visit.eyeHealth(QUIET);
  await visit.refraction(eyes, addFor(story));
  await visit.kind(story.modality, 'talked over with the wearer: what fits their days');
  const trial = lensesOf(teller, 'trial');
  const perEye = story.modality === 'daily' ? 8 : 1;
  await visit.trials(trial, practice.family(familyCodeOf(story)), perEye);
  await visit.reading(eyes, trial, story.strays ?? 1, 8);
  if (!story.handles) await visit.lesson(story.modality === 'daily', story.age < 12 ? 'a parent' : '', teller.chance.whole(0, 2));
  await visit.handsOver(perEye, story.handles ? EXPERIENCED : '');
  await visit.closes();
}

/** Lenses without a mark to read and without an addition: a short look is enough. */
const straight = (story: Story): boolean => !story.astigmatic && !story.presbyope;

/** Seen again with the lenses that they wear; fit, sight and eyes are as they should be. */
async function seenWearing(teller: Teller, booked: Booked, says: Readonly<Record<string, AnswerValue>> = {}): Promise<Visit> {
  const { story, eyes, chance } = teller;
  const visit = await opens(teller, booked.kind, booked);
  await visit.history({ ...saysOf(teller, 'wears'), ...says });
  await visit.eyeHealth({
    ...QUIET,
    bulbarRedness: chance.pick([0.5, 1, 1.5]),
    papillae: chance.pick([0.5, 1]),
    ...(story.stretches ? { limbalRedness: 1.5 } : {}),
  });
  await visit.refraction(eyes, addFor(story));
  await visit.worn(teller.wearerId, chance.whole(2, 6));
  return visit;
}

/** An aftercare after which they are prescribed for a year; null when the lenses do not lie still enough to order. */
async function prescribes(teller: Teller, booked: Booked, worn: 'trial' | 'order'): Promise<Signed | null> {
  const { practice, story, eyes } = teller;
  const visit = await seenWearing(teller, booked);
  await visit.reading(eyes, lensesOf(teller, worn), story.strays ?? 1, story.stretches ? 6 : 8);
  if (story.strays !== undefined) {
    await visit.closes();
    return null;
  }
  const prescriptionId = await visit.signs(lensesOf(teller, 'order'), teller.daysPerWeek, teller.password);
  await visit.closes();
  return { prescriptionId, expiresOn: addDays(practice.today, 364) };
}

/** Boxes for half a year, or for what is left of the prescription; 0 where not even the smallest fits. */
function packsFor({ practice, story, daysPerWeek }: Teller, { expiresOn }: Signed, deliveries: readonly Delivery[]): number {
  const { packSize, leadDays } = practice.family(familyCodeOf(story));
  const wear = { modality: story.modality, daysPerWeek };
  const input = { today: practice.today, deliveries, losses: [], packs: 0, packSize, leadDays, marginDays: REORDER_MARGIN_DAYS, wear };
  const fits = packsThatEnd(input, expiresOn);
  return Math.min(fits, Math.max(1, Math.floor(lensesNeeded(183, wear) / packSize)));
}

/** What is with the wearer of the lens handed over last, as the practice counts it. */
const handedOver = async ({ practice, wearerId }: Teller): Promise<readonly Delivery[]> => practice.sql<Delivery[]>`
  select h.handed_on as "on", h.opened_on, h.lens_count as lenses, h.lens_count as pack_size, 'inHand' as state
  from hand_over h
  join (select eye, lens_id from hand_over where wearer_id = ${wearerId} order by recorded_at desc limit 1) last on last.eye = h.eye and last.lens_id = h.lens_id
  where h.wearer_id = ${wearerId} order by h.recorded_at`;

/** Days before the end of a prescription on which its wearer is examined again. */
const EXAMINED_BEFORE = 10;

/** What came of an order: packs an eye, 0 when none fits the prescription any more; and the examination that was booked for one over. */
interface Supplied {
  readonly packs: number;
  readonly examination: Booked | null;
}

/** Ordered by telephone or after a visit, unpacked, collected; where no pack fits, one over with the examination booked. */
async function* supplied(teller: Teller, signed: Signed): AsyncGenerator<IsoInstant, Supplied, void> {
  const { practice, chance, story } = teller;
  const fitting = packsFor(teller, signed, await handedOver(teller));
  const examinedOn = addDays(signed.expiresOn, -EXAMINED_BEFORE);
  // Whoever stops before that would leave the appointment behind.
  const stays = !story.givesUp && story.redEye === undefined;
  if (fitting === 0 && !(stays && examinedOn > addDays(practice.today, 30))) return { packs: 0, examination: null };
  const examination = fitting === 0 ? await booksOn(teller, 'fullAnnual', examinedOn) : null;
  const packs = Math.max(1, fitting);
  const desk = await opens(teller, 'collection', null);
  const orderId = await desk.orders(signed.prescriptionId, packs, 'renny');
  await desk.closes();
  // The supplier answers within the minute; the boxes come when they were promised, or a little later.
  yield addSeconds(practice.now, 60);
  const [answer] = await practice.sql<{ dueOn: string }[]>`select due_on from order_event where order_id = ${orderId} and due_on is not null limit 1`;
  yield afternoon(addDays(answer?.dueOn ?? practice.today, chance.pick(UNPACKED_AFTER)));
  const box = (eye: string) => ({
    packs,
    lot: `${eye}${practice.today.replaceAll('-', '').slice(2)}${chance.whole(10, 99)}`,
    expiresOn: addDays(practice.today, 900),
  });
  await practice.does('renny', 'recordReceipt', { orderId, right: box('R'), left: box('L') });
  const booked = await books(teller, 'collection', 1 + chance.whole(0, 3));
  yield booked.startsAt;
  const visit = await opens(teller, 'collection', booked);
  await visit.collects(orderId, story.handles ? EXPERIENCED : '');
  await visit.closes();
  return { packs, examination };
}

/** A red, painful eye: nothing is worn any more, and it is seen elsewhere the same day. */
async function redEye(teller: Teller, booked: Booked): Promise<void> {
  const visit = await opens(teller, 'redEye', booked);
  await visit.history({ ...saysOf(teller, 'wears'), danger: ['redness', 'pain', 'light'], onset: 'since yesterday evening', sleptIn: 'accident' }, 'joss');
  await visit.eyeHealth(
    { ...QUIET, bulbarRedness: 1 },
    { bulbarRedness: 3, limbalRedness: 3, staining: 2, infiltrates: 2, suspected: 'cornealInfection', pain: 6, light: 'hurts' },
  );
  await visit.refers();
  await visit.closes();
}

/** Something is to be done for them on a day. */
async function addsTask({ practice, wearerId }: Teller, kind: 'call' | 'chase' | 'recall', text: string, dueOn: IsoDate): Promise<string> {
  const { taskId } = await practice.does('renny', 'addTask', { kind, text, wearerId, dueOn, assignedTo: null });
  return String(taskId);
}

/** The whole life, from the first call on. @param today the day on which it is told */
export async function* lifeOf(practice: Practice, chance: Chance, n: number, story: Story, today: IsoDate, password: string): Life {
  yield afternoon(addDays(today, -story.since - chance.whole(3, 9)));
  const person = somebody(chance, n, story, today);
  const { wearerId } = await practice.does('renny', 'createWearer', person);
  const teller: Teller = {
    practice,
    story,
    chance,
    eyes: eyesOf(chance, story),
    wearerId: String(wearerId),
    birthDate: person.birthDate,
    prescriber: n % 2 === 0 ? 'asha' : 'teo',
    password,
    daysPerWeek: story.modality === 'daily' ? chance.pick([4, 5, 6]) : 7,
  };
  const fit = await booksOn(teller, 'firstFit', addDays(today, -story.since));
  yield fit.startsAt;
  await firstFit(teller, fit);
  let booked = await books(teller, straight(story) ? 'shortFollowUp' : 'longFollowUp', story.misses ? 8 : chance.whole(7, 12));
  if (story.misses) {
    yield addSeconds(booked.startsAt, 3600);
    await practice.does('renny', 'markAppointment', { appointmentId: booked.appointmentId, version: 1, as: 'missed', reason: '' });
    return;
  }
  yield booked.startsAt;
  let signed = await prescribes(teller, booked, 'trial');
  if (signed === null) {
    await books(teller, 'refit', 2);
    await addsTask(teller, 'chase', 'trial lenses of another stabilisation, asked for by telephone', addDays(practice.today, 1));
    return;
  }
  const redEyeOn = story.redEye === undefined ? null : addDays(today, -story.redEye);
  for (;;) {
    const { packs, examination } = yield* supplied(teller, signed);
    const family = practice.family(familyCodeOf(story));
    const perDay = story.modality === 'daily' ? teller.daysPerWeek / 7 : 1 / (LIFE_DAYS[story.modality] * (story.stretches ?? 1));
    const lasts = Math.floor((packs * family.packSize) / perDay);
    let next = addDays(practice.today, packs === 0 ? 1 : Math.max(2, lasts - CALLS_BEFORE + chance.whole(-6, 6)));
    if (redEyeOn !== null && next >= redEyeOn) {
      yield afternoon(redEyeOn);
      const urgent = await booksOn(teller, 'redEye', redEyeOn);
      yield urgent.startsAt;
      await redEye(teller, urgent);
      await addsTask(teller, 'call', 'how is the eye, and what did the eye casualty say?', addDays(practice.today, 1));
      return;
    }
    if (story.givesUp && daysBetween(addDays(today, -story.since), next) > story.givesUp.after) {
      booked = await booksOn(teller, 'longFollowUp', next);
      yield booked.startsAt;
      const last = await seenWearing(teller, booked, { whyChange: [story.givesUp.why], ...(story.givesUp.why === 'dryness' ? { dryness: 'mostOfDay' } : {}) });
      await last.closes();
      const dueOn = addDays(practice.today, 180);
      const taskId = await addsTask(teller, 'recall', `asked to be called about another try; stopped: ${story.givesUp.why}`, dueOn);
      yield afternoon(addDays(dueOn, 1));
      await practice.does('renny', 'finishTask', { taskId, version: 1, done: true, note: 'left a message; will call when ready' });
      return;
    }
    // Half a year on by telephone; a year on they are seen, and prescribed anew.
    if (examination === null && daysBetween(next, signed.expiresOn) > 40) {
      yield afternoon(next);
      continue;
    }
    if (examination === null) {
      const examinedOn = addDays(signed.expiresOn, -EXAMINED_BEFORE);
      next = next > examinedOn ? next : examinedOn;
      yield afternoon(addDays(next, -14) > practice.today ? addDays(next, -14) : addDays(practice.today, 1));
    }
    booked = examination ?? (await booksOn(teller, 'fullAnnual', next));
    yield booked.startsAt;
    signed = (await prescribes(teller, booked, 'order')) ?? signed;
  }
}
