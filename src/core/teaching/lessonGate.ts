import { EYES, type Eye } from '../units';

/** Putting a lens on the eye, or taking it off. */
export type Move = 'on' | 'off';

/** One try of one move on one eye. */
export interface Attempt {
  readonly eye: Eye;
  readonly move: Move;
  readonly worked: boolean;
  /** True when nobody helped. Only such tries count. */
  readonly unaided: boolean;
  /** True when it happened on the day of the sign-off asked for. */
  readonly today: boolean;
}

/** What has happened so far, over all days of the lesson. */
export interface LessonSoFar {
  /** In the order in which they happened. */
  readonly attempts: readonly Attempt[];
  readonly topicsSaidBack: readonly string[];
  /** Eyes that will wear a lens. */
  readonly eyes: readonly Eye[];
}

/** One thing that still locks the sign-off. */
export type Missing =
  | { readonly kind: 'moves'; readonly eye: Eye; readonly move: Move; readonly more: number }
  | { readonly kind: 'today'; readonly eye: Eye; readonly move: Move }
  | { readonly kind: 'topic'; readonly topic: string };

export interface LessonGate {
  readonly open: boolean;
  readonly missing: readonly Missing[];
  readonly done: Readonly<Record<Eye, Readonly<Record<Move, number>>>>;
}

/** Unaided successes of each move that each eye needs. Common practice. */
export const MOVES_NEEDED = 2;
/** A session stops at this many minutes; another day is booked. Common practice. */
export const SESSION_MINUTES = 60;

/** Care topics every new wearer says back before lenses go home. Common practice; words live with the messages. */
export const CARE_TOPICS = [
  'cleanDryHands',
  'rightWayOut',
  'rubAndRinse',
  'freshSolution',
  'noWater',
  'neverSleep',
  'stuckLens',
  'moveAndFind',
  'replaceOnTime',
  'glassesAlways',
  'dangerSigns',
] as const;
/** Topics that only some wearers have: those who may sleep in them, and those with long nails. */
export const WEARER_TOPICS = ['overnightRules', 'rollOff'] as const;
export type CareTopic = (typeof CARE_TOPICS)[number] | (typeof WEARER_TOPICS)[number];

/** What of the wearer decides what is taught. */
export interface LessonProgress {
  /** Lenses are worn overnight: their own rules, instead of never sleeping in them. */
  readonly overnight?: boolean;
  /** Long nails: the lens is rolled off with the side of the finger. */
  readonly longNails?: boolean;
}

/** Topics that a single-use lens does not have. */
const REUSABLE_ONLY: readonly CareTopic[] = ['rubAndRinse', 'freshSolution'];

/**
 * The topics that must be said back for lenses of this kind by this wearer.
 * @example careTopicsFor(false, {overnight: true}).includes('neverSleep') → false
 */
export const careTopicsFor = (singleUse: boolean, taught: LessonProgress = {}): readonly CareTopic[] => [
  ...CARE_TOPICS.filter((topic) => !(singleUse && REUSABLE_ONLY.includes(topic))).map((topic) =>
    topic === 'neverSleep' && taught.overnight ? ('overnightRules' as const) : topic,
  ),
  ...(taught.longNails ? (['rollOff'] as const) : []),
];

/**
 * Counts successes that alternate: a lens can only go on an eye without one, and only come off an eye that has
 * one. A second success of the same move with nothing between (the lens fell, somebody helped) does not count again.
 */
function countAlternating(attempts: readonly Attempt[], eye: Eye): Record<Move, number> {
  const done: Record<Move, number> = { on: 0, off: 0 };
  let last: Move | null = null;
  for (const attempt of attempts) {
    if (attempt.eye !== eye || !attempt.worked) continue;
    if (attempt.unaided && attempt.move !== last) done[attempt.move] += 1;
    last = attempt.move;
  }
  return done;
}

/**
 * May this lesson be signed off? At least two on and two off for each eye, unaided and alternating, one of each on
 * the day of sign-off, and every mandatory topic said back.
 * @param soFar attempts and topics over all days
 * @param topics mandatory for this kind of lens, see `careTopicsFor`
 * @example lessonGate({attempts: [], topicsSaidBack: [], eyes: ['right']}, []).missing.length → 4
 * @source two on and two off, topics said back: common practice; one of each today: our own choice
 */
export function lessonGate(soFar: LessonSoFar, topics: readonly string[]): LessonGate {
  const done = {
    right: countAlternating(soFar.attempts, 'right'),
    left: countAlternating(soFar.attempts, 'left'),
  };
  const missing: Missing[] = [];
  for (const eye of EYES) {
    if (!soFar.eyes.includes(eye)) continue;
    for (const move of ['on', 'off'] as const) {
      const more = MOVES_NEEDED - done[eye][move];
      if (more > 0) missing.push({ kind: 'moves', eye, move, more });
      const today = soFar.attempts.some((a) => a.eye === eye && a.move === move && a.worked && a.unaided && a.today);
      if (!today) missing.push({ kind: 'today', eye, move });
    }
  }
  for (const topic of topics) if (!soFar.topicsSaidBack.includes(topic)) missing.push({ kind: 'topic', topic });
  return { open: missing.length === 0 && soFar.eyes.length > 0, missing, done };
}

/**
 * The move to try next on an eye: on when it has no lens, off when it has.
 * @param startsOn whether the lens was on the eye when the lesson began
 * @example nextMove([], 'right', false) → 'on'
 * @source geometry of the matter
 */
export function nextMove(attempts: readonly Attempt[], eye: Eye, startsOn: boolean): Move {
  const last = attempts.filter((a) => a.eye === eye && a.worked).at(-1);
  if (last === undefined) return startsOn ? 'off' : 'on';
  return last.move === 'on' ? 'off' : 'on';
}
