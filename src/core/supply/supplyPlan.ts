import { addDays, daysBetween } from '../calendar/dates';
import type { IsoDate } from '../units';
import { daysCovered, reorderBy, type WearPlan } from './runOut';
import { runway, type Delivery, type Loss, type Runway } from './runway';

export interface SupplyInput {
  readonly today: IsoDate;
  /** What the wearer has, and what is ordered already. */
  readonly deliveries: readonly Delivery[];
  readonly losses: readonly Loss[];
  /** Thought of; 0 packs when nothing is. */
  readonly packs: number;
  readonly packSize: number;
  readonly leadDays: number;
  readonly marginDays: number;
  readonly wear: WearPlan;
}

export interface SupplyPlan {
  /** Last day with a lens from what was handed over. */
  readonly inHandUntil: IsoDate | null;
  /** Day the first lens of the order would be opened: when the lenses before it end, or when the order comes. */
  readonly orderOpens: IsoDate;
  /** Last day with a lens, order included; null when there is neither. */
  readonly runOut: IsoDate | null;
  /** True while the run-out rests on an order that nobody has opened yet: "if opened on …". */
  readonly ifOpened: boolean;
  readonly reorderBy: IsoDate | null;
  readonly runway: Runway;
}

/**
 * How long one eye's lenses last: first what was handed over, then what is ordered, then what is thought of.
 * @returns days, all calendar days of the practice
 * @example supplyPlan({today: '2026-11-24', deliveries: [], losses: [], packs: 0, packSize: 6, leadDays: 7, marginDays: 7, wear}).runOut → null
 * @source computed; stock starts at hand-over: common practice
 */
export function supplyPlan(input: SupplyInput): SupplyPlan {
  const { today, deliveries, losses, packs, packSize, leadDays, marginDays, wear } = input;
  const arrives = addDays(today, leadDays);
  const thought: Delivery = { on: arrives, openedOn: null, lenses: packs * packSize, packSize, state: 'proposed' };
  const of = runway({ deliveries: packs > 0 ? [...deliveries, thought] : deliveries, losses, wear });
  const { inHandUntil, wouldLast } = of;
  const first = of.boxes.find((b) => b.state !== 'inHand');
  const after = inHandUntil === null ? arrives : addDays(inHandUntil, 1);
  return {
    inHandUntil,
    orderOpens: first?.from ?? (after > arrives ? after : arrives),
    runOut: wouldLast,
    ifOpened: first !== undefined,
    reorderBy: wouldLast === null ? null : reorderBy(wouldLast, leadDays, marginDays),
    runway: of,
  };
}

/** Most packs that anybody is sold at once, by whatever prescription. Our own choice. */
export const MOST_PACKS = 60;

/**
 * Packs of one eye that still end by a day: an order never reaches past the prescription's expiry by default.
 * @example packsThatEnd({today: '2026-11-24', deliveries: [], losses: [], packs: 0, packSize: 6, leadDays: 7, marginDays: 7, wear}, '2027-11-24') → 1
 * @source common practice; default stated in the practice's settings
 */
export function packsThatEnd(input: SupplyInput, lastDay: IsoDate): number {
  // Boxes follow one another: the days of one do not hang on how many come after it. No more end by the day than it has room for.
  const { today, packSize, wear } = input;
  const room = Math.ceil(Math.max(0, daysBetween(today, lastDay) + 1) / Math.max(1, daysCovered(packSize, wear))) + 2;
  const { boxes } = supplyPlan({ ...input, packs: Math.min(MOST_PACKS, room) }).runway;
  return boxes.filter((b) => b.state === 'proposed' && b.to <= lastDay).length;
}

/** How far an order reaches beside the end of its prescription. */
export type OrderReach = 'within' | 'oneOver' | 'tooFar';

/**
 * Packs are rounded down to what the prescription still covers; one pack over goes with the examination booked, since a refusal
 * makes people stretch; more than that is a prescriber's to say.
 * @param within the most packs that end by the expiry
 * @example reachOf(1, 0) → 'oneOver'
 * @source common practice
 */
export const reachOf = (packs: number, within: number): OrderReach => (packs <= within ? 'within' : packs === within + 1 ? 'oneOver' : 'tooFar');

/**
 * Packs proposed for one eye: those that end by the expiry; where not even one does, the smallest order, for which the
 * examination is booked first.
 * @example proposedPacks(0) → 1
 */
export const proposedPacks = (within: number): number => Math.max(1, within);
