import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  lastWearDay,
  lensesNeeded,
  MOST_PACKS,
  packsFor,
  packsThatEnd,
  proposedPacks,
  reachOf,
  reorderBy,
  runOutDate,
  supplyPlan,
  type WearPlan,
} from '../index';

const monthly: WearPlan = { modality: 'monthly', daysPerWeek: 7 };

describe('lenses for a year', () => {
  // Source: computed; counting rule (dailies by wearing day, reusables by calendar): common practice.
  it.each([
    ['daily, every day', 'daily', 7, 365],
    ['daily, six days', 'daily', 6, 313],
    ['two-weekly', 'twoWeekly', 7, 27],
    ['monthly', 'monthly', 7, 13],
    ['monthly worn three days a week: 13, not 5', 'monthly', 3, 13],
  ] as const)('%s', (_name, modality, daysPerWeek, lenses) => {
    expect(lensesNeeded(365, { modality, daysPerWeek })).toBe(lenses);
  });
  it('twelve monthlies cover 360 days', () => {
    expect(runOutDate('2026-01-01', 12, monthly)).toBe(addDays('2026-01-01', 359));
  });
  it('opened 1 January, last wear 30 January', () => {
    expect(lastWearDay('2026-01-01', 'monthly')).toBe('2026-01-30');
    expect(lastWearDay('2026-01-01', 'twoWeekly')).toBe('2026-01-14');
    expect(lastWearDay('2026-01-01', 'daily')).toBe('2026-01-01');
  });
  it('never counts wearing days for a reusable lens', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 700 }), fc.integer({ min: 1, max: 7 }), (days, daysPerWeek) => {
        expect(lensesNeeded(days, { modality: 'monthly', daysPerWeek })).toBe(lensesNeeded(days, monthly));
      }),
    );
  });
});

describe('the plan of one eye', () => {
  const base = { today: '2026-11-24', deliveries: [], losses: [], packSize: 6, leadDays: 5, marginDays: 7, wear: monthly };
  const trial = [{ on: '2026-11-24', openedOn: '2026-11-24', lenses: 1, packSize: 1, state: 'inHand' }] as const;
  it('a trial in hand, one box behind it', () => {
    const plan = supplyPlan({ ...base, deliveries: trial, packs: 1 });
    expect(plan).toMatchObject({ inHandUntil: '2026-12-23', orderOpens: '2026-12-24', runOut: '2027-06-21', ifOpened: true, reorderBy: '2027-06-09' });
  });
  it('nothing in hand: the box is opened when it comes', () => {
    expect(supplyPlan({ ...base, packs: 1 })).toMatchObject({ orderOpens: '2026-11-29', runOut: '2027-05-27', ifOpened: true });
  });
  it('no box: what is in hand decides', () => {
    expect(supplyPlan({ ...base, deliveries: trial, packs: 0 })).toMatchObject({ runOut: '2026-12-23', ifOpened: false });
    expect(supplyPlan({ ...base, packs: 0 })).toMatchObject({ runOut: null, reorderBy: null });
  });
  it('a proposal never reaches past the prescription', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('daily', 'twoWeekly', 'monthly'),
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 5, max: 90 }),
        fc.integer({ min: 20, max: 730 }),
        (modality, daysPerWeek, packSize, span) => {
          const expires = addDays('2026-11-24', span);
          const input = { ...base, packSize, packs: 0, wear: { modality, daysPerWeek } as const };
          const packs = packsThatEnd(input, expires);
          const { runOut } = supplyPlan({ ...input, packs });
          if (packs > 0) expect(runOut !== null && runOut <= expires).toBe(true);
          const more = supplyPlan({ ...input, packs: packs + 1 }).runOut;
          expect(packs === MOST_PACKS || (more !== null && more > expires)).toBe(true);
        },
      ),
    );
  });
  it('what is ordered counts before what is thought of', () => {
    const onTheWay = { on: '2026-12-01', openedOn: null, lenses: 6, packSize: 6, state: 'onTheWay' } as const;
    const plan = supplyPlan({ ...base, deliveries: [...trial, onTheWay], packs: 1 });
    expect([plan.inHandUntil, plan.orderOpens, plan.runway.runOut, plan.runOut]).toEqual(['2026-12-23', '2026-12-24', '2027-06-21', '2027-12-18']);
    expect(packsThatEnd({ ...base, deliveries: [onTheWay], packs: 0 }, '2027-11-30')).toBe(1);
  });
  it('twelve monthlies end within a year, one pack over goes with the examination booked, two are a prescriber’s to say', () => {
    const within = packsThatEnd({ ...base, packs: 0 }, '2027-11-28');
    expect(within).toBe(2);
    expect([1, 2, 3, 4].map((packs) => reachOf(packs, within))).toEqual(['within', 'within', 'oneOver', 'tooFar']);
    // Two months left: not even one ends in time; the smallest order is proposed all the same.
    expect(proposedPacks(packsThatEnd({ ...base, packs: 0 }, '2027-01-24'))).toBe(1);
  });
  it('order-by: run-out less delivery less margin', () => {
    expect(reorderBy('2026-12-16', 7, 7)).toBe('2026-12-02');
    expect(packsFor(13, 6)).toBe(3);
  });
});
