import { addDays } from '../calendar/dates';
import type { IsoDate } from '../units';
import { packsWithin, reorderBy, runOutDate, type WearPlan } from './runOut';

export interface SupplyInput {
  readonly today: IsoDate;
  /** Lenses handed over for this eye and when the first was opened; null when none went home. */
  readonly inHand: { readonly openedOn: IsoDate; readonly lenses: number } | null;
  /** On order or thought of; 0 packs when nothing is. */
  readonly packs: number;
  readonly packSize: number;
  readonly leadDays: number;
  readonly marginDays: number;
  readonly wear: WearPlan;
}

export interface SupplyPlan {
  /** Last day with a lens from what was handed over. */
  readonly inHandUntil: IsoDate | null;
  /** Day the first lens of the order would be opened: when the lenses in hand end, or when the order comes. */
  readonly orderOpens: IsoDate;
  /** Last day with a lens, order included; null when there is neither. */
  readonly runOut: IsoDate | null;
  /** True while the run-out rests on an order that nobody has opened yet: "if opened on …". */
  readonly ifOpened: boolean;
  readonly reorderBy: IsoDate | null;
}

/**
 * How long one eye's lenses last: first what was handed over, then the order.
 * @returns days, all calendar days of the practice
 * @example supplyPlan({today: '2026-11-24', inHand: null, packs: 0, packSize: 6, leadDays: 7, marginDays: 7, wear}).runOut → null
 * @source computed; stock starts at hand-over: common practice
 */
export function supplyPlan(input: SupplyInput): SupplyPlan {
  const { today, inHand, packs, packSize, leadDays, marginDays, wear } = input;
  const inHandUntil = inHand ? runOutDate(inHand.openedOn, inHand.lenses, wear) : null;
  const arrives = addDays(today, leadDays);
  const after = inHandUntil ? addDays(inHandUntil, 1) : arrives;
  const orderOpens = after > arrives ? after : arrives;
  const ordered = runOutDate(orderOpens, packs * packSize, wear);
  const runOut = ordered ?? inHandUntil;
  return {
    inHandUntil,
    orderOpens,
    runOut,
    ifOpened: ordered !== null,
    reorderBy: runOut === null ? null : reorderBy(runOut, leadDays, marginDays),
  };
}

/**
 * Packs proposed for one eye: as many as end by the prescription's expiry.
 * @example proposedPacks({today: '2026-11-24', inHand: null, packs: 0, packSize: 6, leadDays: 7, marginDays: 7, wear}, '2027-11-24') → 1
 * @source an order never reaches past the expiry by default: common practice
 */
export const proposedPacks = (input: SupplyInput, expiresOn: IsoDate): number =>
  packsWithin(supplyPlan(input).orderOpens, expiresOn, input.packSize, input.wear);
