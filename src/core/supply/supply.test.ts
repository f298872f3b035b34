import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, lastWearDay, lensesNeeded, packsFor, packsWithin, proposedPacks, reorderBy, runOutDate, supplyPlan, type WearPlan } from '../index';

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
  const base = { today: '2026-11-24', packSize: 6, leadDays: 5, marginDays: 7, wear: monthly };
  it('a trial in hand, one box behind it', () => {
    const plan = supplyPlan({ ...base, inHand: { openedOn: '2026-11-24', lenses: 1 }, packs: 1 });
    expect(plan).toEqual({ inHandUntil: '2026-12-23', orderOpens: '2026-12-24', runOut: '2027-06-21', ifOpened: true, reorderBy: '2027-06-09' });
  });
  it('nothing in hand: the box is opened when it comes', () => {
    expect(supplyPlan({ ...base, inHand: null, packs: 1 })).toMatchObject({ orderOpens: '2026-11-29', runOut: '2027-05-27', ifOpened: true });
  });
  it('no box: what is in hand decides', () => {
    expect(supplyPlan({ ...base, inHand: { openedOn: '2026-11-24', lenses: 1 }, packs: 0 })).toMatchObject({ runOut: '2026-12-23', ifOpened: false });
    expect(supplyPlan({ ...base, inHand: null, packs: 0 })).toMatchObject({ runOut: null, reorderBy: null });
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
          const input = { ...base, packSize, inHand: null, packs: 0, wear: { modality, daysPerWeek } as const };
          const packs = proposedPacks(input, expires);
          const { runOut } = supplyPlan({ ...input, packs });
          if (packs > 0) expect(runOut !== null && runOut <= expires).toBe(true);
          const more = supplyPlan({ ...input, packs: packs + 1 }).runOut;
          expect(more !== null && more > expires).toBe(true);
        },
      ),
    );
  });
  it('order-by: run-out less delivery less margin', () => {
    expect(reorderBy('2026-12-16', 7, 7)).toBe('2026-12-02');
    expect(packsFor(13, 6)).toBe(3);
    expect(packsWithin('2026-01-01', '2026-12-31', 6, monthly)).toBe(2);
  });
});
