import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';
import { daysCovered, type WearPlan } from './runOut';
import type { ShipmentFault } from '../record/order';

/** What of an announced line its faults are told from. */
export interface Announced {
  readonly packs: number;
  readonly expiresOn: IsoDate | null;
  /** Is what is announced the lens of the line? Null where the announcement does not say which lens it is. */
  readonly isOrdered: boolean | null;
}

/**
 * What is wrong with boxes that are announced for a line.
 * @param left boxes of the line that were not announced before
 * @param lenses lenses a box
 * @example shipmentFaults({packs: 2, expiresOn: null, isOrdered: false}, {left: 1, lenses: 6, wear: {modality: 'monthly', daysPerWeek: 7}, arrivesOn: '2026-12-01'}) → ['tooMany', 'wrongLens']
 * @source a box must outlast the wearing of its last lens: common practice
 */
export function shipmentFaults(
  announced: Announced,
  of: { readonly left: number; readonly lenses: number; readonly wear: WearPlan; readonly arrivesOn: IsoDate },
): readonly ShipmentFault[] {
  const { packs, expiresOn, isOrdered } = announced;
  const worn = addDays(of.arrivesOn, daysCovered(packs * of.lenses, of.wear));
  return [
    ...(packs > of.left ? (['tooMany'] as const) : []),
    ...(isOrdered === false ? (['wrongLens'] as const) : []),
    ...(expiresOn === null ? [] : expiresOn < of.arrivesOn ? (['expired'] as const) : expiresOn < worn ? (['shortDated'] as const) : []),
  ];
}
