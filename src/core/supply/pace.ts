import { daysBetween } from '../calendar/dates';
import { LIFE_DAYS } from '../lens/family';
import type { IsoDate } from '../units';
import type { WearPlan } from './runOut';
import type { Delivery, Loss } from './runway';

/** How fast lenses were really used up. */
export interface Pace {
  /** Calendar days that a lens lasted. */
  readonly daysPerLens: number;
  /** What its label, or the days worn a week, would make of it. */
  readonly labelled: number;
  /** Lenses, and the days between the first and the last coming, from which it is known. */
  readonly lenses: number;
  readonly days: number;
}

/** Fewest days from which a pace is taken: two boxes fetched together say nothing. Our own choice. */
const FEWEST_DAYS = 60;

/**
 * How fast one eye's lenses were used up: all that came before the last time, over the days until then. Lenses fetched on one
 * day are one coming. What was lost is not counted as worn.
 * @param given what was handed over of one lens, in any order
 * @returns null while lenses came but once, or within too short a time
 * @example paceOf([{on: '2026-01-01', openedOn: null, lenses: 6}, {on: '2026-09-28', openedOn: null, lenses: 6}], [], {modality: 'monthly', daysPerWeek: 7})?.daysPerLens → 45
 * @source late and early reorders tell how lenses are really worn: common practice
 */
export function paceOf(given: readonly Pick<Delivery, 'on' | 'openedOn' | 'lenses'>[], losses: readonly Loss[], wear: WearPlan): Pace | null {
  const inOrder = [...given].sort((a, b) => a.on.localeCompare(b.on));
  const [first, last] = [inOrder[0], inOrder.at(-1)];
  if (!first || !last) return null;
  const from: IsoDate = first.openedOn ?? first.on;
  const days = daysBetween(from, last.on);
  const lost = losses.reduce((sum, l) => (l.on >= from && l.on < last.on ? sum + l.lenses : sum), 0);
  const lenses = inOrder.reduce((sum, d) => (d.on < last.on ? sum + d.lenses : sum), 0) - lost;
  if (days < FEWEST_DAYS || lenses < 1) return null;
  const labelled = wear.modality === 'daily' ? 7 / wear.daysPerWeek : LIFE_DAYS[wear.modality];
  return { daysPerLens: days / lenses, labelled, lenses, days };
}

/** From how much faster or slower than labelled it is said. Our own choice: a box fetched a week late is not stretching. */
export const PACE_TOLERANCE = 0.15;

/** Is a pace another than the label's? `slow`: a reusable lens worn longer than it may be, a daily one on fewer days than said. */
export const paceKind = ({ daysPerLens, labelled }: Pace): 'slow' | 'asLabelled' | 'fast' =>
  daysPerLens > labelled * (1 + PACE_TOLERANCE) ? 'slow' : daysPerLens < labelled * (1 - PACE_TOLERANCE) ? 'fast' : 'asLabelled';
