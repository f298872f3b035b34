import { expiryState, formatRefraction, parseRefraction, variantsMade, type LensVariant } from '@/core';
import type { Library } from '@/services/family/queries';
import type { DrawerPage } from '@/services/trialStock/queries';

/** View logic of the trial drawer, without React. */
export type Lot = DrawerPage['stock'][number];
export type Family = Library['families'][number];

export const powerOfLot = (lot: Lot): string => formatRefraction({ sphere: lot.sphereD, cylinder: lot.cylinderD, axis: lot.axisDeg });

const plain = (text: string): string => text.toLocaleLowerCase('en').replaceAll('−', '-').replaceAll('×', 'x');

/** Lots by words in any order: of the family, the power or the lot. */
export function lotsFound(stock: readonly Lot[], search: string): readonly Lot[] {
  const words = plain(search)
    .split(/\s+/)
    .filter((w) => w !== '');
  return stock.filter((lot) => {
    const text = plain(`${lot.familyName} ${powerOfLot(lot)} ${lot.lot}`);
    return words.every((w) => text.includes(w));
  });
}

export interface DrawerFigures {
  readonly lenses: number;
  /** Lots past their day: they are to be taken out. */
  readonly expired: readonly Lot[];
  readonly soon: readonly Lot[];
}
export function figuresOf(stock: readonly Lot[], today: string): DrawerFigures {
  const at = (state: ReturnType<typeof expiryState>): readonly Lot[] => stock.filter((lot) => expiryState(lot.expiresOn, today) === state);
  return { lenses: stock.reduce((sum, lot) => sum + lot.count, 0), expired: at('expired'), soon: at('soon') };
}

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
}
export const EMPTY_RECEIPT: TypedReceipt = { family: '', power: '', variant: 0, lot: '', expiresOn: '', count: '1', despiteReason: '' };

/** What a typed power is made in, in a family; none while it cannot be read. */
export function variantsFor(family: Family | null, power: string): readonly LensVariant[] {
  const read = parseRefraction(power);
  if (!family || !read.ok) return [];
  const { sphere, cylinder, axis } = read.value;
  return variantsMade({ sphere, cylinder, axis: cylinder === 0 ? 180 : axis }, family);
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
    },
  } as const;
}
