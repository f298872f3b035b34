import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS, packsOf, pricesOf, type Kind } from '../../src/core';
import { record } from '../fixtures';
import { firstFamily } from '../../src/features/visit/steps/kind/model';

const kind = (change: Partial<Kind> = {}): Kind => ({ modality: 'monthly', wear: 'day', geometry: 'toric', material: 'siliconeHydrogel', ...change });
const NEEDS = { right: { sphere: -3.13, cylinder: -1.59, axis: 20 }, left: null };

describe('the lens to try first', () => {
  const r = record();
  it('is of the kind, and leaves the least blur', () => {
    expect(firstFamily(r, kind(), NEEDS)?.name).toBe('Plover 30 Toric');
    expect(firstFamily(r, kind({ material: 'hydrogel' }), NEEDS)?.name).toBe('Godwit Made Toric');
    expect(firstFamily(r, kind({ modality: 'daily', geometry: 'sphere', material: 'hydrogel' }), NEEDS)?.name).toBe('Dunlin 1-Day');
  });
  it('is approved where nights are meant; null when none is made', () => {
    expect(firstFamily(r, kind({ geometry: 'sphere', wear: 'overnight' }), NEEDS)?.name).toBe('Turnstone 30');
    expect(firstFamily(r, kind({ wear: 'overnight' }), NEEDS)).toBeNull();
    expect(firstFamily(r, kind({ modality: 'daily', geometry: 'toricMultifocal' }), NEEDS)).toBeNull();
  });
  it('is bought for each eye that asks, for both while none does', () => {
    const family = firstFamily(r, kind(), NEEDS);
    if (!family) throw new Error('family');
    expect(packsOf(family, NEEDS)).toEqual([{ packSize: 6, packPrice: 5200, rebate: 0 }]);
    expect(packsOf(family, { right: null, left: null })).toHaveLength(2);
  });
});

it('prices are kept in whole cents; a new case every 3 months or every month; no care product, only cases', () => {
  const settings = { ...DEFAULT_SETTINGS, fitFee: 119.99, caseEach: 2.99 };
  expect(pricesOf(settings, null)).toEqual({ fitFee: 11_999, aftercareYear: 0, care: 4 * 299, lossPercent: 0 });
  expect(pricesOf({ ...settings, caseMonths: 'one' }, null).care).toBe(12 * 299);
  expect(pricesOf(settings, { lastsDays: 60, priceMinor: 1900, includesCase: true }).care).toBe(7 * 1900);
});
