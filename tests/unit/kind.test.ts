import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS, type Kind } from '../../src/core';
import { record } from '../fixtures';
import { firstFamily, packsOf, pricesOf } from '../../src/features/kind/model';

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
    expect(packsOf(family, NEEDS)).toEqual([{ packSize: 6, packPrice: 5200 }]);
    expect(packsOf(family, { right: null, left: null })).toHaveLength(2);
  });
});

it('prices are kept in whole cents; a new case every 3 months or every month', () => {
  expect(pricesOf({ ...DEFAULT_SETTINGS, solutionMonth: 11.1, caseEach: 2.99 })).toMatchObject({ solutionMonth: 1110, caseEach: 299, casesPerYear: 4 });
  expect(pricesOf({ ...DEFAULT_SETTINGS, caseMonths: 'one' }).casesPerYear).toBe(12);
});
