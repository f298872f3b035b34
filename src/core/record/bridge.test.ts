import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '../calendar/dates';
import { supplyPlan } from '../supply/supplyPlan';
import type { Delivery } from '../supply/runway';
import { bridgeOf, MOST_BRIDGED } from './bridge';
import type { LensRow } from './lens';
import type { EyeReorder } from './reorder';

const TODAY = '2026-11-24';
const LENS = { familyCode: 'curlew', sphereD: -2, cylinderD: 0, axisDeg: 180, addBand: null, baseCurveMm: 8.6, diameterMm: 14.2 } as unknown as LensRow;
const of = (modality: 'daily' | 'monthly', deliveries: readonly Partial<Delivery>[], lens: LensRow | null = LENS, daysPerWeek = 7): EyeReorder => {
  const wear = { modality, daysPerWeek };
  const given = deliveries.map((d) => ({ on: TODAY, openedOn: null, lenses: 1, packSize: 1, state: 'inHand' as const, ...d }));
  const input = { today: TODAY, deliveries: given, losses: [], packs: 0, packSize: 6, leadDays: 7, marginDays: 7, wear };
  const trade = { packSize: 6, packPriceMinor: 0, rebateMinor: 0, leadDays: 7, lastOrderOn: null };
  return { lens, familyName: 'Curlew', modality, trade, input, plan: supplyPlan(input), within: 1, proposed: 1, orderable: true };
};

/** Common practice: a trial pair of the lens worn carries a wearer until the order comes. */
describe('trial lenses that bridge until boxes come', () => {
  it('from the last lens at home to the day before the boxes are promised', () => {
    const monthly = of('monthly', [{ on: addDays(TODAY, -25) }, { on: addDays(TODAY, 12), state: 'onTheWay', lenses: 6, packSize: 6 }]);
    expect(bridgeOf(monthly, LENS)).toEqual({ lens: LENS, from: addDays(TODAY, 5), until: addDays(TODAY, 11), lenses: 1 });
  });
  it('who has run out, with nothing ordered, needs them from today until an order of today would come', () => {
    expect(bridgeOf(of('monthly', [{ on: addDays(TODAY, -60) }]), LENS)).toMatchObject({ from: TODAY, until: addDays(TODAY, 6), lenses: 1 });
    // Dailies by wearing day: four of seven days.
    expect(bridgeOf(of('daily', [{ on: addDays(TODAY, -60) }], LENS, 4), LENS)).toMatchObject({ lenses: 4 });
  });
  it('none where no day is without a lens, where boxes lie here, or the lens is another than is worn, or a laboratory’s', () => {
    expect(bridgeOf(of('monthly', [{ on: TODAY }]), LENS)).toBeNull();
    expect(bridgeOf(of('monthly', [{ on: addDays(TODAY, -60) }, { state: 'onTheWay' }]), LENS)).toBeNull();
    const out = [{ on: addDays(TODAY, -60) }];
    expect(bridgeOf(of('monthly', out), { ...LENS, sphereD: -2.25 })).toBeNull();
    expect(bridgeOf(of('monthly', out), null)).toBeNull();
    expect(bridgeOf(of('monthly', out, null), LENS)).toBeNull();
    expect(bridgeOf(of('monthly', []), LENS)).toBeNull();
  });
  it('the days are all without a lens, before the boxes, and the lenses are never more than may go', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90, max: 20 }), fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 60 }), (came, lenses, promised) => {
        const daily = of('daily', [
          { on: addDays(TODAY, came), lenses },
          { on: addDays(TODAY, promised), state: 'onTheWay', lenses: 30, packSize: 30 },
        ]);
        const gap = bridgeOf(daily, LENS);
        if (gap === null) return;
        expect(daysBetween(gap.from, gap.until)).toBeGreaterThanOrEqual(0);
        expect(gap.from > (daily.plan.inHandUntil ?? '')).toBe(true);
        expect(gap.until < addDays(TODAY, promised)).toBe(true);
        expect(gap.lenses).toBe(Math.min(MOST_BRIDGED, daysBetween(gap.from, gap.until) + 1));
      }),
    );
  });
});
