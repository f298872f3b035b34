import { addDays } from '../calendar/dates';
import { LIFE_DAYS, type Modality } from '../lens/family';
import type { IsoDate } from '../units';

/** How a wearer uses lenses up. */
export interface WearPlan {
  readonly modality: Modality;
  /** Days worn a week, 1 to 7. Only daily lenses are counted by it. */
  readonly daysPerWeek: number;
}

/**
 * Last day a lens may be worn: day 1 is the day of opening, worn or not.
 * @example lastWearDay('2026-01-01', 'monthly') → '2026-01-30'
 * @source labelled replacement, common practice
 */
export const lastWearDay = (opened: IsoDate, modality: Modality): IsoDate => addDays(opened, LIFE_DAYS[modality] - 1);

/**
 * Lenses one eye needs for a span. Daily lenses count wearing days; reusables count calendar days from opening,
 * however seldom they are worn.
 * @param days calendar days
 * @example lensesNeeded(365, {modality: 'monthly', daysPerWeek: 3}) → 13
 * @source computed; counting rule: common practice
 */
export function lensesNeeded(days: number, plan: WearPlan): number {
  if (plan.modality === 'daily') return Math.ceil((days * plan.daysPerWeek) / 7);
  return Math.ceil(days / LIFE_DAYS[plan.modality]);
}

/** Calendar days that a number of lenses lasts one eye. @example daysCovered(30, {modality: 'daily', daysPerWeek: 6}) → 35 */
export function daysCovered(lenses: number, plan: WearPlan): number {
  if (plan.modality === 'daily') return Math.floor((lenses * 7) / plan.daysPerWeek);
  return lenses * LIFE_DAYS[plan.modality];
}

/**
 * Last day one eye has a lens to wear.
 * @param opened day the first of the lenses is opened
 * @param lenses how many, one eye
 * @returns null when there is none
 * @example runOutDate('2026-01-01', 1, {modality: 'monthly', daysPerWeek: 7}) → '2026-01-30'
 * @source computed
 */
export function runOutDate(opened: IsoDate, lenses: number, plan: WearPlan): IsoDate | null {
  const days = daysCovered(lenses, plan);
  return days < 1 ? null : addDays(opened, days - 1);
}

/** Days kept in hand between a delivery and the last lens. Our own choice; a setting of the practice. */
export const REORDER_MARGIN_DAYS = 7;

/**
 * Day by which to order again: run-out − lead time − margin.
 * @param leadDays supplier's lead time, calendar days
 * @example reorderBy('2026-12-16', 7, 7) → '2026-12-02'
 * @source common practice
 */
export const reorderBy = (runOut: IsoDate, leadDays: number, marginDays = REORDER_MARGIN_DAYS): IsoDate => addDays(runOut, -(leadDays + marginDays));

/** Packs of `packSize` that hold at least `lenses`. @example packsFor(13, 6) → 3 */
export const packsFor = (lenses: number, packSize: number): number => Math.ceil(lenses / packSize);
