import { millisecondsOf } from '../calendar/dates';
import type { IsoInstant } from '../units';

/** A lens is in the hand or on the eye from `run` on; the clock rests from `pause` on. */
export interface ClockTurn {
  readonly turn: 'run' | 'pause';
  readonly at: IsoInstant;
}

/** A lesson stops after this many minutes with a lens in the hand or on the eye. Common practice. */
export const SESSION_MINUTES = 60;
/** Whoever leaves the clock running goes on no longer than this without a sign of life: a lesson left open overnight used no night. Own choice. */
export const QUIET_MINUTES = 30;

export interface LessonTime {
  /** Minutes used, whole. */
  readonly used: number;
  readonly running: boolean;
  /** An hour is over: another day is booked. */
  readonly over: boolean;
}

/**
 * The time used with lenses. Only time that runs counts; what runs on without anything recorded for half an hour was left running.
 * @param turns oldest first
 * @param signs moments at which something was recorded in the lesson, in any order
 * @example lessonTime([{turn: 'run', at: '2026-11-24T10:00:00.000Z'}], [], '2026-11-24T10:12:30.000Z').used → 12
 */
export function lessonTime(turns: readonly ClockTurn[], signs: readonly IsoInstant[], now: IsoInstant): LessonTime {
  const quiet = QUIET_MINUTES * 60_000;
  const seen = [...signs, ...turns.map((t) => t.at)].map(millisecondsOf).sort((a, b) => a - b);
  const end = millisecondsOf(now);
  let used = 0;
  let running = false;
  for (const [i, { turn, at }] of turns.entries()) {
    running = turn === 'run';
    if (!running) continue;
    const from = millisecondsOf(at);
    const to = Math.min(end, i + 1 < turns.length ? millisecondsOf(turns[i + 1]?.at ?? now) : end);
    // Stretches between signs of life, none of them longer than the quiet time.
    const marks = [from, ...seen.filter((s) => s > from && s < to), to];
    for (let m = 1; m < marks.length; m++) used += Math.min(quiet, Math.max(0, (marks[m] ?? 0) - (marks[m - 1] ?? 0)));
    if (i === turns.length - 1) running = end - (marks.at(-2) ?? from) <= quiet;
  }
  const minutes = Math.floor(used / 60_000);
  return { used: minutes, running, over: minutes >= SESSION_MINUTES };
}

/**
 * Minutes still needed at this pace: as long for each success to come as for those so far, tries that failed among them.
 * @returns null before the first success
 * @example minutesToGo(12, 3, 5) → 20
 */
export const minutesToGo = (used: number, successes: number, missing: number): number | null =>
  successes === 0 ? null : Math.ceil((used / successes) * missing);
