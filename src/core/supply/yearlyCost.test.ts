import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { breakEvenDays, careYear, yearlyCost, type CostPrices } from '../index';

const NONE: CostPrices = { fitFee: 0, aftercareYear: 0, care: 0, lossPercent: 0 };
const both = (packSize: number, packPrice: number, rebate = 0) => [
  { packSize, packPrice, rebate },
  { packSize, packPrice, rebate },
];

describe('what a year costs', () => {
  // Worked by hand. Dailies, six days a week: 365 × 6 ÷ 7 = 312.9, so 313 lenses an eye, 11 boxes of 30 each, 22 boxes
  // at $33.50 = $737.00. Monthlies: 13 lenses an eye, 3 boxes of 6, 6 boxes at $52.00 = $312.00. A bottle lasts
  // 60 days: 7 bottles at $19.00 = $133.00, and four cases, one with each of the first four bottles. Fit $120.00 and
  // aftercare $80.00 for both. Of a box of dailies $4.00 comes back: 22 × $4.00 = $88.00.
  const bottle = { lastsDays: 60, priceMinor: 1900, includesCase: true };
  const prices: CostPrices = { fitFee: 12_000, aftercareYear: 8000, care: careYear(bottle, 300, 4).total, lossPercent: 0 };
  it('a daily, six days a week', () => {
    expect(yearlyCost('daily', both(30, 3350, 400), 6, prices)).toEqual({
      lensesPerEye: 313,
      packs: 22,
      lenses: 73_700,
      care: 0,
      fees: 20_000,
      upFront: 93_700,
      rebate: 8800,
      net: 84_900,
    });
  });
  it('a monthly, however many days it is worn', () => {
    const cost = { lensesPerEye: 13, packs: 6, lenses: 31_200, care: 13_300, fees: 20_000, upFront: 64_500, rebate: 0, net: 64_500 };
    expect(yearlyCost('monthly', both(6, 5200), 7, prices)).toEqual(cost);
    expect(yearlyCost('monthly', both(6, 5200), 3, prices)).toEqual(cost);
  });
  it('365 dailies, 27 two-weekly, 13 monthly an eye (computed)', () => {
    expect((['daily', 'twoWeekly', 'monthly'] as const).map((m) => yearlyCost(m, both(6, 100), 7, NONE).lensesPerEye)).toEqual([365, 27, 13]);
  });
  it('they cost the same at 3.08 days a week: (26 × $8.667 + $133) ÷ (52.14 × $2.233)', () => {
    expect(breakEvenDays(both(30, 3350), 'monthly', both(6, 5200), prices)).toBeCloseTo((26 * (5200 / 6) + 13_300) / ((365 / 7) * ((2 * 3350) / 30)), 9);
    expect(breakEvenDays(both(30, 3350), 'monthly', both(6, 5200), prices)).toBeCloseTo(3.08, 2);
    expect(breakEvenDays(both(30, 100), 'monthly', both(6, 9000), prices)).toBeNull();
  });
  it('cases that do not come with the bottles are bought; without a product only cases count', () => {
    expect(careYear({ ...bottle, includesCase: false }, 300, 4)).toEqual({ packs: 7, solution: 13_300, casesBought: 4, cases: 1200, total: 14_500 });
    expect(careYear({ ...bottle, lastsDays: 180 }, 300, 12)).toMatchObject({ packs: 3, casesBought: 9, cases: 2700 });
    expect(careYear(null, 300, 4).total).toBe(1200);
  });
  it('one in ten lost: 13 monthlies become 15, 365 dailies 402', () => {
    expect((['monthly', 'daily'] as const).map((m) => yearlyCost(m, both(6, 100), 7, { ...NONE, lossPercent: 10 }).lensesPerEye)).toEqual([15, 402]);
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
