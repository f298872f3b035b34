import { dayFromNumber, dayNumber } from '../calendar/dates';
import { LIFE_DAYS } from '../lens/family';
import type { IsoDate } from '../units';
import type { WearPlan } from './runOut';

/** Where boxes of an eye are: with the wearer, ordered and still to come, or only thought of. */
export type DeliveryState = 'inHand' | 'onTheWay' | 'proposed';

/** Lenses of one eye that come to the wearer together. */
export interface Delivery {
  /** The day they are with the wearer. */
  readonly on: IsoDate;
  /** The day the first of them was opened; null where that is when the lens before ends. */
  readonly openedOn: IsoDate | null;
  readonly lenses: number;
  /** Lenses a box; what does not fill one is a box of its own. */
  readonly packSize: number;
  readonly state: DeliveryState;
}

/** Lenses lost, torn or thrown away on a day; the first of them is the one then worn. */
export interface Loss {
  readonly on: IsoDate;
  readonly lenses: number;
}

/** A box on the axis of days. */
export interface RunwayBox {
  /** Days of its first and last wear. */
  readonly from: IsoDate;
  readonly to: IsoDate;
  /** Lenses of it that are worn: those lost unworn are taken off. */
  readonly lenses: number;
  readonly state: DeliveryState;
}

export interface Runway {
  readonly boxes: readonly RunwayBox[];
  /** Days that each loss cost, by their days; one on a day without a lens costs none. */
  readonly losses: readonly { readonly on: IsoDate; readonly days: number }[];
  /** Last day with a lens of those in hand; null when none ever was. */
  readonly inHandUntil: IsoDate | null;
  /** The same with what is on the way. */
  readonly runOut: IsoDate | null;
  /** The same with what is thought of as well. */
  readonly wouldLast: IsoDate | null;
}

/** One eye's lenses as they are used up. */
export interface RunwayInput {
  readonly deliveries: readonly Delivery[];
  readonly losses: readonly Loss[];
  readonly wear: WearPlan;
  /** Days that a lens really lasts, a pace of its own; what its label and the days worn a week say where absent. */
  readonly daysPerLens?: number;
}

/** Calendar days that some lenses last, worn one after another: wearing days of a daily kind, whole lives of a reusable one. */
const lasts = (lenses: number, { wear, daysPerLens }: RunwayInput): number =>
  daysPerLens !== undefined
    ? Math.floor(lenses * daysPerLens)
    : wear.modality === 'daily'
      ? Math.floor((lenses * 7) / wear.daysPerWeek)
      : lenses * LIFE_DAYS[wear.modality];

/** What is here is used up before what is ordered, and that before what is thought of; each by its day. */
const RANK: Readonly<Record<DeliveryState, number>> = { inHand: 0, onTheWay: 1, proposed: 2 };
const inOrder = (deliveries: readonly Delivery[]): readonly Delivery[] =>
  [...deliveries].sort((a, b) => RANK[a.state] - RANK[b.state] || (a.openedOn ?? a.on).localeCompare(b.openedOn ?? b.on));

/** A loss while it is placed: lenses of it still to be taken off unopened, null until the lens that was worn then is found. */
interface PlacedLoss extends Loss {
  readonly day: number;
  days: number;
  unopened: number | null;
}
/** A box while its lenses are opened, in days since 1970: strings would be read and written for each of a hundred dailies. */
interface OpenBox {
  readonly from: number;
  to: number;
  lenses: number;
  readonly state: DeliveryState;
}

/** Takes a loss off a lens worn from `opened` to `end`. @returns the last day that the lens is worn */
function loseWorn(loss: PlacedLoss, end: number, input: RunwayInput): number {
  // Of a daily kind another one is taken the same day.
  const daily = input.wear.modality === 'daily';
  loss.unopened = daily ? loss.lenses : loss.lenses - 1;
  if (daily) return end;
  loss.days += end - loss.day;
  return loss.day;
}

/** Every lens in the order in which it is opened, box by box, and what each loss cost. */
function wornOf(input: RunwayInput): { readonly boxes: readonly OpenBox[]; readonly losses: readonly PlacedLoss[] } {
  const boxes: OpenBox[] = [];
  const losses = [...input.losses]
    .sort((a, b) => a.on.localeCompare(b.on))
    .map((loss): PlacedLoss => ({ ...loss, day: dayNumber(loss.on), days: 0, unopened: null }));
  // Lenses that follow one another without a day between them: where they begin, and how many there are so far.
  let from: number | null = null;
  let count = 0;
  for (const delivery of inOrder(input.deliveries)) {
    const came = dayNumber(delivery.on);
    const comes = delivery.openedOn === null ? came : dayNumber(delivery.openedOn);
    let box: OpenBox | null = null;
    for (let nth = 0; nth < delivery.lenses; nth++) {
      if (nth % delivery.packSize === 0) box = null;
      if (from === null || from + lasts(count, input) < comes) [from, count] = [comes, 0];
      const gone = losses.find((l) => (l.unopened ?? 0) > 0 && came <= l.day);
      if (gone) {
        gone.unopened = (gone.unopened ?? 0) - 1;
        gone.days += lasts(1, input);
        continue;
      }
      const opened: number = from + lasts(count, input);
      count += 1;
      const end: number = from + lasts(count, input) - 1;
      const loss: PlacedLoss | undefined = losses.find((l) => l.unopened === null && l.day >= opened && l.day <= end);
      const to: number = loss ? loseWorn(loss, end, input) : end;
      if (loss && input.wear.modality !== 'daily') [from, count] = [to + 1, 0];
      if (box === null) boxes.push((box = { from: opened, to, lenses: 1, state: delivery.state }));
      else [box.to, box.lenses] = [to, box.lenses + 1];
    }
  }
  return { boxes, losses };
}

/**
 * One eye's lenses from the first hand-over to the last lens: boxes one after another, each opened when the one before it is
 * used up, at the earliest the day it came. A reusable lens that is lost takes its remaining days with it, a daily one a day of
 * wear.
 * @returns days, all calendar days of the practice
 * @example runway({deliveries: [{on: '2026-01-01', openedOn: null, lenses: 6, packSize: 6, state: 'inHand'}], losses: [], wear: {modality: 'monthly', daysPerWeek: 7}}).runOut → '2026-06-29'
 * @source computed; dailies by wearing day, reusables by calendar day from opening: common practice
 */
export function runway(input: RunwayInput): Runway {
  const { boxes: worn, losses } = wornOf(input);
  const boxes = worn.map(({ from, to, lenses, state }): RunwayBox => ({ from: dayFromNumber(from), to: dayFromNumber(Math.max(from, to)), lenses, state }));
  const until = (...states: readonly DeliveryState[]): IsoDate | null => boxes.findLast((b) => states.includes(b.state))?.to ?? null;
  return {
    boxes,
    losses: losses.map(({ on, days }) => ({ on, days })),
    inHandUntil: until('inHand'),
    runOut: until('inHand', 'onTheWay'),
    wouldLast: until('inHand', 'onTheWay', 'proposed'),
  };
}
