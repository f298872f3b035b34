import { addDays, daysBetween } from '../calendar/dates';
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

/** One lens of a delivery, and the box it lies in. */
interface Unit {
  readonly delivery: Delivery;
  readonly box: string;
}
/** What is here is used up before what is ordered, and that before what is thought of; each by its day. */
const RANK: Readonly<Record<DeliveryState, number>> = { inHand: 0, onTheWay: 1, proposed: 2 };
const unitsOf = (deliveries: readonly Delivery[]): readonly Unit[] =>
  [...deliveries]
    .sort((a, b) => RANK[a.state] - RANK[b.state] || (a.openedOn ?? a.on).localeCompare(b.openedOn ?? b.on))
    .flatMap((delivery, nth) => Array.from({ length: delivery.lenses }, (_, i) => ({ delivery, box: `${nth} ${Math.floor(i / delivery.packSize)}` })));

/** A lens with the days it is worn; one that was lost unopened is none. */
interface Worn extends Unit {
  readonly from: IsoDate;
  readonly to: IsoDate;
}

/** Every lens in the order in which it is opened, and what each loss cost. */
function wornOf(input: RunwayInput): { readonly worn: readonly Worn[]; readonly lost: Runway['losses'] } {
  const worn: Worn[] = [];
  const losses = [...input.losses].sort((a, b) => a.on.localeCompare(b.on)).map((loss) => ({ ...loss, days: 0, unopened: null as number | null }));
  // Lenses that follow one another without a day between them: where they begin, and how many there are so far.
  let from: IsoDate | null = null;
  let count = 0;
  for (const unit of unitsOf(input.deliveries)) {
    const comes = unit.delivery.openedOn ?? unit.delivery.on;
    const free: IsoDate | null = from === null ? null : addDays(from, lasts(count, input));
    if (from === null || free === null || free < comes) [from, count] = [comes, 0];
    const gone = losses.find((l) => (l.unopened ?? 0) > 0 && unit.delivery.on <= l.on);
    if (gone) {
      gone.unopened = (gone.unopened ?? 0) - 1;
      gone.days += lasts(1, input);
      continue;
    }
    const opened = addDays(from, lasts(count, input));
    count += 1;
    const end = addDays(from, lasts(count, input) - 1);
    const loss = losses.find((l) => l.unopened === null && l.on >= opened && l.on <= end);
    if (!loss) worn.push({ ...unit, from: opened, to: end });
    else if (input.wear.modality === 'daily') {
      // Another one is taken the same day.
      loss.unopened = loss.lenses;
      worn.push({ ...unit, from: opened, to: end });
    } else {
      loss.unopened = loss.lenses - 1;
      loss.days += daysBetween(loss.on, end);
      worn.push({ ...unit, from: opened, to: loss.on });
      [from, count] = [addDays(loss.on, 1), 0];
    }
  }
  return { worn, lost: losses.map(({ on, days }) => ({ on, days })) };
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
  const { worn, lost } = wornOf(input);
  const lensesOf = new Map<string, Worn[]>();
  for (const lens of worn) {
    const of = lensesOf.get(lens.box);
    if (of) of.push(lens);
    else lensesOf.set(lens.box, [lens]);
  }
  const boxes = [...lensesOf.values()].flatMap((of): RunwayBox[] => {
    const [first, last] = [of[0], of.at(-1)];
    return first && last ? [{ from: first.from, to: last.to < first.from ? first.from : last.to, lenses: of.length, state: first.delivery.state }] : [];
  });
  const until = (...states: readonly DeliveryState[]): IsoDate | null => boxes.findLast((b) => states.includes(b.state))?.to ?? null;
  return {
    boxes,
    losses: lost,
    inHandUntil: until('inHand'),
    runOut: until('inHand', 'onTheWay'),
    wouldLast: until('inHand', 'onTheWay', 'proposed'),
  };
}
