import { expiryState, formatRefraction } from '@/core';
import type { DrawerPage } from '@/services/trialStock/queries';

/** View logic of the trial drawer, without React. */
export type Lot = DrawerPage['stock'][number];

export const powerOfLot = (lot: Lot): string => formatRefraction({ sphere: lot.sphereD, cylinder: lot.cylinderD, axis: lot.axisDeg });

const plain = (text: string): string => text.toLocaleLowerCase('en').replaceAll('−', '-').replaceAll('×', 'x');

/** A whole number as typed; what is none is refused at its field. */
export const numberOf = (text: string): number => (/^\d+$/.test(text.trim()) ? Number(text.trim()) : -1);

/** The lens of a lot as a command names it; null of one without curve and diameter. */
export const specOf = ({ familyVersionId, sphereD, cylinderD, axisDeg, addBand, baseCurveMm, diameterMm }: Lot) =>
  baseCurveMm === null || diameterMm === null
    ? null
    : { familyId: familyVersionId, sphere: sphereD, cylinder: cylinderD, axis: axisDeg, add: addBand, baseCurve: baseCurveMm, diameter: diameterMm };

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
