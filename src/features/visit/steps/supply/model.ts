import type { EyeSupply, SupplySource } from '@/core';
import type { VisitRecord } from '../../shell/visitData';

/** View logic of the supply step, without React. */

export function sourceOf(record: VisitRecord): SupplySource {
  return {
    file: record,
    today: record.session.today,
    marginDays: record.session.settings.reorderMarginDays,
    family: (code) => record.ofLenses.find((f) => f.code === code) ?? null,
  };
}

/** Boxes as typed: null where nothing was typed, NaN where it is no whole number. */
export const packsTyped = (text: string | undefined): number | null => (text === undefined ? null : /^\d+$/.test(text.trim()) ? Number(text) : NaN);

/** Price of some boxes in the currency's smallest unit; boxes that cannot be read cost nothing yet. */
export const costOf = (supplies: readonly Pick<EyeSupply, 'packs' | 'packPriceMinor'>[]): number =>
  supplies.reduce((sum, s) => sum + (Number.isFinite(s.packs) ? s.packs * s.packPriceMinor : 0), 0);
