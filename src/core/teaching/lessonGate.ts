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
  /** Said back once more today, after the handling. */
  readonly saidAgain: readonly string[];
  /** Eyes that will wear a lens; none: only topics are taught. */
  readonly eyes: readonly Eye[];
  /** Eyes whose acuity was read through lenses that the wearer had put on. */
  readonly sightRead: readonly Eye[];
  /** Is the care system named, where one is needed? */
  readonly careNamed: boolean;
}

/** What is asked of this wearer. */
export interface LessonAsked {
  /** Mandatory for this kind of lens, see `careTopicsFor`. */
  readonly topics: readonly string[];
  /** Asked once more at the end, see `topicsAgain`. */
  readonly again: readonly string[];
}

/** One thing that still locks the sign-off. */
export type Missing =
  | { readonly kind: 'moves'; readonly eye: Eye; readonly move: Move; readonly more: number }
  | { readonly kind: 'today'; readonly eye: Eye; readonly move: Move }
  | { readonly kind: 'topic'; readonly topic: string }
  | { readonly kind: 'again'; readonly topic: string }
  | { readonly kind: 'sight'; readonly eye: Eye }
  | { readonly kind: 'care' };

export interface LessonGate {
  readonly open: boolean;
  /** May the wearer practise at home with these lenses before sign-off: every topic said back, and every lens comes off without help? */
  readonly practise: boolean;
  readonly missing: readonly Missing[];
  readonly done: Readonly<Record<Eye, Readonly<Record<Move, number>>>>;
}

/** Unaided successes of each move that each eye needs. Common practice. */
export const MOVES_NEEDED = 2;
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
 * May this lesson be signed off? At least two on and two off for each eye, unaided and alternating, one of each on the day of sign-off; the
 * acuity of each eye through lenses that the wearer put on, which finds swapped and inside-out ones; every mandatory topic said back, those
 * that hurt eyes once more at the end; and the care system named, where lenses are kept.
 * @param soFar attempts and topics over all days
 * @example lessonGate({attempts: [], topicsSaidBack: [], saidAgain: [], eyes: ['right'], sightRead: ['right'], careNamed: true}, {topics: [], again: []}).missing.length → 4
 * @source two on and two off, acuity, topics said back: common practice; one of each today, asked again: our own choice
 */
export function lessonGate(soFar: LessonSoFar, asked: LessonAsked): LessonGate {
  const done = {
    right: countAlternating(soFar.attempts, 'right'),
    left: countAlternating(soFar.attempts, 'left'),
  };
  const missing: Missing[] = [];
  if (!soFar.careNamed) missing.push({ kind: 'care' });
  for (const eye of EYES) {
    if (!soFar.eyes.includes(eye)) continue;
    for (const move of ['on', 'off'] as const) {
      const more = MOVES_NEEDED - done[eye][move];
      if (more > 0) missing.push({ kind: 'moves', eye, move, more });
      const today = soFar.attempts.some((a) => a.eye === eye && a.move === move && a.worked && a.unaided && a.today);
      if (!today) missing.push({ kind: 'today', eye, move });
    }
    if (!soFar.sightRead.includes(eye)) missing.push({ kind: 'sight', eye });
  }
  for (const topic of asked.topics) if (!soFar.topicsSaidBack.includes(topic)) missing.push({ kind: 'topic', topic });
  for (const topic of asked.again) if (!soFar.saidAgain.includes(topic)) missing.push({ kind: 'again', topic });
  const comesOff = soFar.eyes.length > 0 && soFar.eyes.every((eye) => done[eye].off >= MOVES_NEEDED);
  const practise = comesOff && !missing.some((m) => m.kind === 'topic' || m.kind === 'again' || m.kind === 'care');
  return { open: missing.length === 0, practise, missing, done };
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
