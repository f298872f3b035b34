import { addDays } from '../calendar/dates';
import { isOrderable } from '../lens/catalogueFamily';
import type { Modality } from '../lens/family';
import { packsThatEnd, proposedPacks, reachOf, supplyPlan, type OrderReach, type SupplyInput, type SupplyPlan } from '../supply/supplyPlan';
import { EYES, type Eye, type IsoDate } from '../units';
import { inHandOf, onTheWayTo } from './eyeStock';
import type { LensRow } from './lens';
import { lossesOf } from './lensLoss';
import type { Prescription } from './prescription';
import type { WearerFile } from './wearerFile';

/** What of a prescription its lenses are ordered by. */
export type OrderedUnder = Pick<Prescription, 'id' | 'eyes' | 'expiresOn' | 'daysPerWeek'>;

/** What a family is sold in today; money in minor units. */
export interface ReorderTrade {
  readonly packSize: number;
  readonly packPriceMinor: number;
  readonly rebateMinor: number;
  readonly leadDays: number;
  readonly lastOrderOn: IsoDate | null;
}

/** One eye whose lenses are ordered again. */
export interface EyeReorder {
  /** Null where a laboratory works the lens out. */
  readonly lens: LensRow | null;
  readonly familyName: string;
  readonly modality: Modality;
  readonly trade: ReorderTrade;
  readonly input: SupplyInput;
  /** What the wearer has and what is ordered, without anything more. */
  readonly plan: SupplyPlan;
  /** Most boxes that end by the prescription's expiry. */
  readonly within: number;
  readonly proposed: number;
  readonly orderable: boolean;
}

export interface ReorderSource {
  readonly file: Pick<WearerFile, 'handOvers' | 'orders' | 'lenses' | 'losses'>;
  readonly trade: Readonly<Record<string, ReorderTrade>>;
  readonly today: IsoDate;
  readonly marginDays: number;
}

/** One eye under a prescription; null where it is not prescribed, or its family is sold no more at all. */
export function eyeReorder({ file, trade, today, marginDays }: ReorderSource, prescription: OrderedUnder, eye: Eye): EyeReorder | null {
  const row = prescription.eyes.find((e) => e.eye === eye);
  const lens = row?.lensId ? (file.lenses[row.lensId] ?? null) : null;
  const from = lens ?? row?.raw ?? null;
  const sold = from && trade[from.familyCode];
  if (!from || !sold) return null;
  const input: SupplyInput = {
    today,
    deliveries: [...inHandOf(file, eye), ...onTheWayTo(file, prescription, eye, today, addDays(today, sold.leadDays))],
    losses: lossesOf(file.losses, eye),
    packs: 0,
    packSize: sold.packSize,
    leadDays: sold.leadDays,
    marginDays,
    wear: { modality: from.modality, daysPerWeek: prescription.daysPerWeek },
  };
  const within = packsThatEnd(input, prescription.expiresOn);
  return {
    lens,
    familyName: from.familyName,
    modality: from.modality,
    trade: sold,
    input,
    plan: supplyPlan(input),
    within,
    proposed: proposedPacks(within),
    orderable: isOrderable(sold, today),
  };
}

/** What some boxes would come to, of one eye. */
export interface EyeOffer {
  readonly packs: number;
  readonly runOut: IsoDate | null;
  readonly reach: OrderReach;
}

export const eyeOffer = (of: EyeReorder, packs: number): EyeOffer => ({
  packs,
  runOut: supplyPlan({ ...of.input, packs }).runOut,
  reach: reachOf(packs, of.within),
});

/** The same number of boxes for each eye that is ordered. */
export interface Offer {
  readonly packs: number;
  readonly eyes: Readonly<Record<Eye, EyeOffer | null>>;
  /** The farthest reach of the eyes. */
  readonly reach: OrderReach;
}

const FARTHEST: readonly OrderReach[] = ['within', 'oneOver', 'tooFar'];

/** Offers that a page lists at the most. */
const MOST_OFFERS = 4;

/**
 * Numbers of boxes worth saying on the telephone: one, half of what the prescription covers, all of it, and one more.
 * @param within the most boxes that end by the expiry, of the eye that takes the fewest
 * @example packsOffered(4) → [1, 2, 4, 5]
 */
export const packsOffered = (within: number): readonly number[] =>
  [...new Set([1, Math.max(1, Math.floor(within / 2)), Math.max(1, within), within + 1])].slice(0, MOST_OFFERS);

/** What is offered for the eyes that are ordered. */
export function offersOf(eyes: Readonly<Record<Eye, EyeReorder | null>>): readonly Offer[] {
  const ordered = EYES.flatMap((eye) => eyes[eye] ?? []);
  if (ordered.length === 0) return [];
  return packsOffered(Math.min(...ordered.map((e) => e.within))).map((packs) => {
    const of = (eye: Eye): EyeOffer | null => eyes[eye] && eyeOffer(eyes[eye], packs);
    const each = { right: of('right'), left: of('left') };
    const reach = FARTHEST.findLast((r) => EYES.some((eye) => each[eye]?.reach === r)) ?? 'within';
    return { packs, eyes: each, reach };
  });
}

/** What boxes cost, minor units: paid at once, back as a rebate, and what remains. */
export interface OrderCost {
  readonly upFront: number;
  readonly rebate: number;
  readonly net: number;
}

export function orderCost(eyes: Readonly<Record<Eye, EyeReorder | null>>, packs: Readonly<Record<Eye, number>>): OrderCost {
  const sum = (of: (trade: ReorderTrade) => number): number =>
    EYES.reduce((total, eye) => total + (eyes[eye] && Number.isFinite(packs[eye]) ? packs[eye] * of(eyes[eye].trade) : 0), 0);
  const upFront = sum((t) => t.packPriceMinor);
  const rebate = sum((t) => t.rebateMinor);
  return { upFront, rebate, net: upFront - rebate };
}

/** Why nothing may be ordered on the telephone, and what would free it; null where it may. */
export type ReorderBar = 'noPrescription' | 'expired' | 'stopped' | 'alerted' | 'familyEnded' | 'erased';

export function reorderBar(
  file: Pick<WearerFile, 'stoppedSince' | 'alertSince' | 'erasure'>,
  prescription: Prescription | null,
  eyes: Readonly<Record<Eye, EyeReorder | null>>,
  today: IsoDate,
): ReorderBar | null {
  if (file.erasure !== null) return 'erased';
  if (file.stoppedSince !== null) return 'stopped';
  if (file.alertSince !== null) return 'alerted';
  if (prescription === null) return 'noPrescription';
  if (prescription.expiresOn < today) return 'expired';
  return EYES.some((eye) => eyes[eye]?.orderable === true) ? null : 'familyEnded';
}
