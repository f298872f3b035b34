import {
  askedQuestions,
  earlierGrades,
  EYES,
  provenance,
  provenanceInVisit,
  type Answer,
  type Answers,
  type EarlierGrade,
  type Eye,
  type EyeState,
  type HealthState,
  type ProvenanceNode,
  type QuestionGroup,
  type QuestionId,
} from '@/core';
import type { DraftOf } from '../../shell/draftKeys';
import type { VisitRecord } from '../../shell/visitData';

/** View logic of the page, without React: what is known of last time, what has been looked at today, and what one press records. */

/** Lines of the chart that one press records, logMAR, best first; anything worse is read and looked into on the desk of sight. */
export const LINES = [-0.1, 0, 0.1, 0.2] as const;
/** Things that are pressed of each eye, in the order in which they are done: with the lens on, then without it. */
export const OF_EACH_EYE = ['worn', 'sees', 'over', 'fit', 'cornea'] as const;
export type EyePress = (typeof OF_EACH_EYE)[number];

/** Asked afresh each time, by a press or a page of its own. */
const FRESH: readonly string[] = ['danger', 'onset', 'headache'];

export interface ReadBack {
  readonly group: QuestionGroup;
  readonly items: readonly { readonly question: QuestionId; readonly answer: Answer }[];
}
export interface HistoryToday {
  /** What was said before, as it is read back, by group. */
  readonly groups: readonly ReadBack[];
  /** Answers that a press would confirm: of questions not answered today yet. */
  readonly open: readonly QuestionId[];
  /** Questions that nobody has an answer to: they are asked on the page of the history. */
  readonly missing: number;
}

/** What is read back of the history, and what is left to ask. @param age whole years */
export function historyToday(health: Pick<HealthState, 'said' | 'before'>, age: number): HistoryToday {
  const all: Answers = { ...health.before, ...health.said };
  const asked = askedQuestions(all, age).filter((q) => !FRESH.includes(q.id));
  const groups: ReadBack[] = [];
  for (const q of asked) {
    const answer = all[q.id];
    if (!answer) continue;
    const last = groups.at(-1);
    if (last?.group === q.group) groups[groups.length - 1] = { ...last, items: [...last.items, { question: q.id, answer }] };
    else groups.push({ group: q.group, items: [{ question: q.id, answer }] });
  }
  return {
    groups,
    open: asked.filter((q) => health.said[q.id] === undefined && all[q.id] !== undefined).map((q) => q.id),
    missing:
      asked.filter((q) => !q.optional && all[q.id] === undefined).length +
      askedQuestions(all, age).filter((q) => q.id === 'headache' && health.said.headache === undefined).length,
  };
}

/** Answers as a press sends them: as they were said, read back today. */
export const readBack = (health: Pick<HealthState, 'before'>, open: readonly QuestionId[]) =>
  open.flatMap((question) => {
    const said = health.before[question];
    return said ? [{ question, value: typeof said.value === 'object' ? [...said.value] : said.value, note: said.note, readBack: true }] : [];
  });

/** What is looked for on every cornea, and is not there. */
export const CLEAR_CORNEA = [
  { sign: 'staining', value: 0 },
  { sign: 'infiltrates', value: 0 },
  { sign: 'oedema', value: 0 },
  { sign: 'chamber', value: 'quiet' },
] as const;

/** One eye as the page shows it. */
export interface EyeToday {
  readonly eye: Eye;
  readonly worn: ProvenanceNode | null;
  readonly state: EyeState;
  /** The lens on it, still on; null where none is. */
  readonly lensOnEyeId: string | null;
  readonly grades: readonly EarlierGrade[];
  readonly done: Readonly<Record<EyePress, boolean>>;
}

export function eyeToday(record: VisitRecord, state: EyeState, health: HealthState, eye: Eye): EyeToday {
  const { session, visit } = record;
  const of = { visitId: visit.id, today: session.today, timeZone: session.practice.timeZone, settings: session.settings };
  return {
    eye,
    worn: provenance(provenanceInVisit(record), eye).worn,
    state,
    lensOnEyeId: state.onEye && state.takenOffAt === null ? state.onEye.rootId : null,
    grades: earlierGrades(record.health.findings, eye, of),
    done: {
      worn: state.onEye !== null,
      sees: state.acuities.lens !== null,
      over: state.overRefraction !== null,
      fit: state.fit !== null,
      cornea: health.today[eye].staining !== undefined,
    },
  };
}

/** The first eye of which something is still to be pressed. */
export const nextEye = (eyes: Readonly<Record<Eye, EyeToday>>, press: EyePress, underWay: (eye: Eye) => boolean): Eye | null =>
  EYES.find((eye) => !eyes[eye].done[press] && !underWay(eye)) ?? null;

/** The mark where it is known to sit, as one look records it; none where it has no mark, or nobody knows where it sits. */
export const lookAtMark = ({ state }: EyeToday): readonly { readonly rotationLeft: number; readonly how: 'look' }[] =>
  state.toric && state.turnKnown !== null ? [{ rotationLeft: Math.round(state.turnKnown), how: 'look' }] : [];

/** Fit as the one-line record has it: centration, movement in up gaze, lag and recovery, each as it should be. */
export const FITS_AS_IT_SHOULD = (['lineCentre', 'lineMovement', 'lineLag', 'lineRecovery'] as const).map((sign) => ({ sign, value: 'middle' }));

export type Except = DraftOf<'asLastTime'>;
export const exceptKey = (eye: Eye, sign: EarlierGrade['sign']) => `${eye}:${sign}` as const;

/** Grades of one eye: what is seen otherwise today, and what is as it was. */
export function gradesToSend({ eye, grades }: EyeToday, except: Except) {
  const typed = (g: EarlierGrade): string => except[exceptKey(eye, g.sign)] ?? '';
  const seen = grades.flatMap((g) => (/^[0-6](\.5)?$/.test(typed(g)) ? [{ sign: g.sign, value: Number(typed(g)) }] : []));
  return {
    findings: [...CLEAR_CORNEA, ...seen],
    asLastTime: grades.filter((g) => g.bar === null && typed(g) === '').map((g) => g.findingId),
  };
}
