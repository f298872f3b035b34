import { TRADE, type Source } from './source';

/** Danger signs as they are reported, on the telephone or at the desk: the answers of the history's own question. */
export const DANGER_SIGNS = ['redness', 'pain', 'light', 'vision', 'discharge', 'something'] as const;
export type DangerSign = (typeof DANGER_SIGNS)[number];

/** How soon somebody is seen: at once, or the same day. Never later. */
export type Urgency = 'now' | 'today';
/** Any of these alone asks for it at once. */
const AT_ONCE: readonly DangerSign[] = ['pain', 'light', 'vision'];

export interface Triage {
  readonly urgency: Urgency;
  readonly source: Source;
}

/**
 * How soon a wearer who reports danger signs is seen. Whoever answers the telephone can ask this: nothing is judged but the answers.
 * @example triage(['redness', 'pain']).urgency → 'now'
 * @source every danger sign of a lens wearer is seen the same day; pain, light that hurts or changed sight at once: common practice
 */
export const triage = (signs: readonly DangerSign[]): Triage => ({
  urgency: signs.some((s) => AT_ONCE.includes(s)) || signs.length >= 3 ? 'now' : 'today',
  source: TRADE,
});

/** What a caller is told, in this order. Source: common practice. */
export const TOLD = ['lensesOut', 'notBackIn', 'keepLens', 'noDrops', 'glasses', 'come'] as const;
