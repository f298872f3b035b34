import { formatRefraction, parseRefraction, variantsMade, type LensVariant } from '@/core';
import type { Library } from '@/services/family/queries';
import type { ScannedTrial } from './ScanTrial';

/** What is typed of trial lenses that came, without React. */
export type Family = Library['families'][number];

/** What is typed of lenses that came. */
export interface TypedReceipt {
  readonly family: string;
  readonly power: string;
  /** Which of the variants the power is made in; they stand in the order of `variantsFor`. */
  readonly variant: number;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: string;
  readonly despiteReason: string;
  /** The code that was scanned. */
  readonly gtin: string | null;
}
export const EMPTY_RECEIPT: TypedReceipt = { family: '', power: '', variant: 0, lot: '', expiresOn: '', count: '1', despiteReason: '', gtin: null };

/** What a typed power is made in, in a family; none while it cannot be read. */
export function variantsFor(family: Family | null, power: string): readonly LensVariant[] {
  const read = parseRefraction(power);
  if (!family || !read.ok) return [];
  const { sphere, cylinder, axis } = read.value;
  return variantsMade({ sphere, cylinder, axis: cylinder === 0 ? 180 : axis }, family);
}

/** What a scanned pack fills in: its lens where it is known, else only what stands on it. */
export function typedFrom(scanned: ScannedTrial, typed: TypedReceipt, families: readonly Family[]): TypedReceipt {
  const { lens, gtin } = scanned;
  const said = { ...typed, gtin, lot: scanned.lot ?? typed.lot, expiresOn: scanned.expiresOn ?? typed.expiresOn };
  if (lens === null) return { ...said, power: '', variant: 0 };
  const power = formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg });
  const variants = variantsFor(families.find((f) => f.code === lens.familyCode) ?? null, power);
  const variant = variants.findIndex((v) => v.baseCurve === lens.baseCurveMm && v.diameter === lens.diameterMm && (v.add ?? null) === lens.addBand);
  return { ...said, family: lens.familyCode, power, variant: Math.max(0, variant) };
}

/** The command's input, or which field stops it with which code. */
export function receiptOf(typed: TypedReceipt, family: Family | null) {
  const read = parseRefraction(typed.power);
  if (!family) return { ok: false, field: 'family', code: 'required' } as const;
  if (!read.ok) return { ok: false, field: 'power', code: read.error.code, data: read.error.data } as const;
  const variant = variantsFor(family, typed.power)[typed.variant];
  if (!variant) return { ok: false, field: 'power', code: 'lensNotMade', data: { family: family.name } } as const;
  const count = Number(typed.count.trim() || Number.NaN);
  if (!Number.isInteger(count)) return { ok: false, field: 'count', code: 'trialCount' } as const;
  const { sphere, cylinder, axis } = read.value;
  return {
    ok: true,
    input: {
      lens: { familyId: family.id, sphere, cylinder, axis: cylinder === 0 ? 180 : axis, ...variant },
      lot: typed.lot,
      expiresOn: typed.expiresOn,
      count,
      despiteReason: typed.despiteReason,
      gtin: typed.gtin,
    },
  } as const;
}
