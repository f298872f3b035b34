import type { LensRow } from './lens';
import { lossesOf } from './lensLoss';
import type { Prescription } from './prescription';
import { boxesOf } from './boxes';
import { inHandOf } from './eyeStock';
import { orderOf } from './orderState';
import type { Modality } from '../lens/family';
import type { RawOrder } from '../supply/rawOrder';
import { packsThatEnd, proposedPacks, supplyPlan, type SupplyInput, type SupplyPlan } from '../supply/supplyPlan';
import type { Eye } from '../units';
import type { WearerFile } from './wearerFile';

/** What is needed to date one eye's lenses; `families` gives pack and lead time. */
export interface SupplySource {
  readonly file: Pick<WearerFile, 'handOvers' | 'orders' | 'lenses' | 'losses'>;
  readonly today: string;
  readonly marginDays: number;
  readonly family: (code: string) => { readonly packSize: number; readonly leadDays: number; readonly packPriceMinor: number } | null;
}

export interface EyeSupply {
  /** The lens prescribed in final figures; null where a laboratory works it out. */
  readonly lens: LensRow | null;
  readonly raw: RawOrder | null;
  readonly modality: Modality;
  readonly packSize: number;
  readonly packPriceMinor: number;
  readonly leadDays: number;
  readonly packs: number;
  readonly proposed: number;
  readonly plan: SupplyPlan;
  readonly input: SupplyInput;
}

/** One eye's supply under the newest prescription; `typedPacks` are thought of, ordered ones count before them. */
export function eyeSupply(source: SupplySource, prescription: Prescription, eye: Eye, typedPacks: number | null): EyeSupply | null {
  const row = prescription.eyes.find((e) => e.eye === eye);
  const lens = row?.lensId ? (source.file.lenses[row.lensId] ?? null) : null;
  const raw = row?.raw ?? null;
  const from = lens ?? raw;
  const trade = from && source.family(from.familyCode);
  if (!from || !trade) return null;
  const { modality } = from;
  // Boxes handed over are in hand: only the rest is still to come.
  const order = orderOf(source.file, prescription, eye);
  const boxes = order && boxesOf(order, eye);
  const ordered = boxes ? boxes.ordered - boxes.handedOver : null;
  const base = {
    today: source.today,
    deliveries: inHandOf(source.file, eye),
    losses: lossesOf(source.file.losses, eye),
    packSize: trade.packSize,
    leadDays: trade.leadDays,
    marginDays: source.marginDays,
    wear: { modality, daysPerWeek: prescription.daysPerWeek },
  };
  const proposed = proposedPacks(packsThatEnd({ ...base, packs: 0 }, prescription.expiresOn));
  const packs = ordered ?? typedPacks ?? proposed;
  const input = { ...base, packs };
  return {
    lens,
    raw,
    modality,
    packSize: trade.packSize,
    packPriceMinor: trade.packPriceMinor,
    leadDays: trade.leadDays,
    packs,
    proposed,
    plan: supplyPlan(input),
    input,
  };
}
