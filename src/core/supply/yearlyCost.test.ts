import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { breakEvenDays, yearlyCost, type CostPrices } from '../index';

const NONE: CostPrices = { fitFee: 0, aftercareYear: 0, solutionMonth: 0, caseEach: 0, casesPerYear: 4 };
const both = (packSize: number, packPrice: number) => [
  { packSize, packPrice },
  { packSize, packPrice },
];

describe('what a year costs', () => {
  // Worked by hand. Dailies, six days a week: 365 × 6 ÷ 7 = 312.9, so 313 lenses an eye, 11 boxes of 30 each, 22 boxes
  // at $33.50 = $737.00. Monthlies: 13 lenses an eye, 3 boxes of 6, 6 boxes at $52.00 = $312.00; solution 12 × $11.00 =
  // $132.00; four cases at $3.00 = $12.00. Fit $120.00 and aftercare $80.00 for both.
  const prices: CostPrices = { fitFee: 12_000, aftercareYear: 8000, solutionMonth: 1100, caseEach: 300, casesPerYear: 4 };
  it('a daily, six days a week', () => {
    expect(yearlyCost('daily', both(30, 3350), 6, prices, 9000)).toEqual({
      lensesPerEye: 313,
      packs: 22,
      lenses: 73_700,
      care: 0,
      fees: 20_000,
      upFront: 93_700,
      rebate: 9000,
      net: 84_700,
    });
  });
  it('a monthly, however many days it is worn', () => {
    const cost = { lensesPerEye: 13, packs: 6, lenses: 31_200, care: 14_400, fees: 20_000, upFront: 65_600, rebate: 0, net: 65_600 };
    expect(yearlyCost('monthly', both(6, 5200), 7, prices)).toEqual(cost);
    expect(yearlyCost('monthly', both(6, 5200), 3, prices)).toEqual(cost);
  });
  it('365 dailies, 27 two-weekly, 13 monthly an eye (computed)', () => {
    expect((['daily', 'twoWeekly', 'monthly'] as const).map((m) => yearlyCost(m, both(6, 100), 7, NONE).lensesPerEye)).toEqual([365, 27, 13]);
  });
  it('they cost the same at 3.17 days a week: (26 × $8.667 + $144) ÷ (52.14 × $2.233)', () => {
    expect(breakEvenDays(both(30, 3350), 'monthly', both(6, 5200), prices)).toBeCloseTo((26 * (5200 / 6) + 14_400) / ((365 / 7) * ((2 * 3350) / 30)), 9);
    expect(breakEvenDays(both(30, 3350), 'monthly', both(6, 5200), prices)).toBeCloseTo(3.17, 2);
    expect(breakEvenDays(both(30, 100), 'monthly', both(6, 9000), prices)).toBeNull();
  });
  it('more days never cost less; at the break-even the unrounded costs agree', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 500, max: 9000 }), (days, price) => {
        const at = (d: number): number => yearlyCost('daily', both(30, price), d, NONE).net;
        expect(at(days + 1)).toBeGreaterThanOrEqual(at(days));
        const even = breakEvenDays(both(30, price), 'twoWeekly', both(6, 2900), NONE);
        if (even !== null) expect(((365 * even) / 7) * 2 * (price / 30)).toBeCloseTo(27 * 2 * (2900 / 6), 6);
      }),
    );
  });
  it('one eye costs half of two, fees apart', () => {
    const one = yearlyCost('monthly', [{ packSize: 6, packPrice: 5200 }], 7, NONE);
    expect(2 * one.lenses).toBe(yearlyCost('monthly', both(6, 5200), 7, NONE).lenses);
  });
});
