import { Temporal } from 'temporal-polyfill';
import type { AnswerValue, Eye } from '../src/core';
import type { Tx } from '../src/db/client';
import { sendPending } from '../src/db/pending';
import { insertAnswers } from '../src/db/history';
import { insertVisit, setVisitClosed } from '../src/db/visit';

/** Earlier visits of some wearers of the demo: what was said and seen then, so that today has something to differ from. */
interface Past {
  readonly wearer: string;
  readonly daysAgo: number;
  readonly answers: Readonly<Record<string, AnswerValue>>;
  readonly grades: Readonly<Record<Eye, Readonly<Record<string, number>>>>;
}

const same = (grades: Readonly<Record<string, number>>): Past['grades'] => ({ right: grades, left: grades });

export const DEMO_PAST: readonly Past[] = [
  {
    wearer: 'Nessa Quillby',
    daysAgo: 14,
    answers: {
      danger: ['none'],
      lastWorn: 'now',
      whichLens: 'monthly',
      sleptIn: 'never',
      replacedEvery: 30,
      whyChange: ['vision'],
      goals: ['everyDay', 'outdoors'],
      nights: 'shifts',
      work: ['outdoors', 'water'],
      freeTime: ['quiet'],
      daysPerWeek: 5,
      hoursPerDay: 12,
      dryness: 'none',
      medicines: [],
      drops: ['none'],
      allergy: ['season'],
      health: ['none'],
      eyeHistory: ['none'],
      handler: 'self',
      hygieneHands: 'good',
      hygieneCare: 'good',
      water: 'never',
      returns: 'yes',
      budget: 'careful',
    },
    grades: same({
      lidMargin: 0.5,
      lashes: 0,
      bulbarRedness: 1,
      limbalRedness: 0.5,
      papillae: 1,
      staining: 0.5,
      vessels: 0,
      infiltrates: 0,
      scars: 0,
      endothelium: 0,
    }),
  },
  {
    wearer: 'Lorcan Stiles-Webb',
    daysAgo: 197,
    answers: {
      danger: ['none'],
      lastWorn: 'now',
      whichLens: 'twoWeekly',
      sleptIn: 'accident',
      replacedEvery: 30,
      hoursPerDay: 14,
      daysPerWeek: 7,
      medicines: [],
    },
    grades: {
      right: {
        lidMargin: 1.5,
        lashes: 0.5,
        bulbarRedness: 1.5,
        limbalRedness: 1,
        papillae: 1,
        staining: 0.5,
        vessels: 0.5,
        infiltrates: 0,
        scars: 0,
        endothelium: 0.5,
      },
      left: {
        lidMargin: 1.5,
        lashes: 0.5,
        bulbarRedness: 1.5,
        limbalRedness: 1,
        papillae: 1,
        staining: 0.5,
        vessels: 0.5,
        infiltrates: 0,
        scars: 0,
        endothelium: 0.5,
      },
    },
  },
];

/** Writes one earlier visit, closed. */
export async function insertPast(
  tx: Tx,
  practiceId: string,
  wearerId: string,
  past: Past,
  how: { readonly now: string; readonly newId: () => string; readonly by: string },
): Promise<void> {
  const { now, newId, by } = how;
  const at = Temporal.Instant.from(now)
    .subtract({ hours: past.daysAgo * 24 })
    .toString();
  const visitId = newId();
  await insertVisit(tx, { id: visitId, practiceId, wearerId, kind: 'refit', appointmentId: null, at, by });
  const answers = Object.entries(past.answers).map(([question, value]) => ({ id: newId(), question, value, note: null }));
  await insertAnswers(tx, { practiceId, visitId, visitVersion: 2, at, by }, answers);
  for (const eye of ['right', 'left'] as const) {
    for (const [sign, numberValue] of Object.entries(past.grades[eye])) {
      const meta = { id: newId(), practiceId, visitId, visitVersion: 2, eye, observedAt: at, recordedAt: at, recordedBy: by };
      await sendPending(tx, { facts: [{ kind: 'finding', meta, values: { sign, numberValue, wordValue: null } }] });
    }
  }
  await setVisitClosed(tx, practiceId, visitId, at);
}
