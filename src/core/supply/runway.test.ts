import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '../calendar/dates';
import { LIFE_DAYS } from '../lens/family';
import { daysCovered, runOutDate } from './runOut';
import { runway, type Delivery, type RunwayInput } from './runway';

const box = (on: string, lenses: number, more: Partial<Delivery> = {}): Delivery => ({ on, openedOn: null, lenses, packSize: 3, state: 'inHand', ...more });
const monthly = { modality: 'monthly', daysPerWeek: 7 } as const;

describe('the lenses of one eye on the days', () => {
  // Worked by hand: opened on 7 July, six monthly lenses last 180 days, to 2 January; torn on 17 October, the lens opened on
  // 5 October (day 91) had 17 days left.
  const twoBoxes = [box('2026-07-07', 3), box('2026-10-01', 3)];
  it('boxes follow one another, the second when the first is used up', () => {
    const of = runway({ deliveries: twoBoxes, losses: [], wear: monthly });
    expect(of.boxes).toEqual([
      { from: '2026-07-07', to: '2026-10-04', lenses: 3, state: 'inHand' },
      { from: '2026-10-05', to: '2027-01-02', lenses: 3, state: 'inHand' },
    ]);
    expect(of.runOut).toBe('2027-01-02');
  });
  it('a torn lens takes its remaining days with it', () => {
    const of = runway({ deliveries: twoBoxes, losses: [{ on: '2026-10-17', lenses: 1 }], wear: monthly });
    expect(of.losses).toEqual([{ on: '2026-10-17', days: 17 }]);
    expect(of.runOut).toBe('2026-12-16');
  });
  it('two lost at once: the second was never opened', () => {
    const of = runway({ deliveries: twoBoxes, losses: [{ on: '2026-10-17', lenses: 2 }], wear: monthly });
    expect(of.losses).toEqual([{ on: '2026-10-17', days: 47 }]);
    expect(of.runOut).toBe('2026-11-16');
  });
  it('a daily that fell is a day of wear: six days a week, 30 lenses last 35 days, 29 last 33', () => {
    const wear = { modality: 'daily', daysPerWeek: 6 } as const;
    const of = (lenses: number) => runway({ deliveries: [box('2026-03-01', 30, { packSize: 30 })], losses: [{ on: '2026-03-04', lenses }], wear }).runOut;
    expect(of(0)).toBe(addDays('2026-03-01', 34));
    expect(of(1)).toBe(addDays('2026-03-01', 32));
  });
  it('boxes that came late leave a gap and are opened the day they came', () => {
    const of = runway({ deliveries: [box('2026-01-01', 3), box('2026-06-01', 3)], losses: [], wear: monthly });
    expect(of.boxes.map((b) => b.from)).toEqual(['2026-01-01', '2026-06-01']);
    expect(of.runOut).toBe('2026-08-29');
  });
  it('what is in hand, on the way and thought of end on days of their own', () => {
    const deliveries = [box('2026-01-01', 3), box('2026-03-01', 3, { state: 'onTheWay' }), box('2026-03-10', 3, { state: 'proposed' })];
    const of = runway({ deliveries, losses: [], wear: monthly });
    expect([of.inHandUntil, of.runOut, of.wouldLast]).toEqual(['2026-03-31', '2026-06-29', '2026-09-27']);
    expect(runway({ deliveries: [], losses: [], wear: monthly })).toEqual({ boxes: [], losses: [], inHandUntil: null, runOut: null, wouldLast: null });
  });
  it('worn 45 days each, six monthlies last 270 days', () => {
    expect(runway({ deliveries: [box('2026-01-01', 6)], losses: [], wear: monthly, daysPerLens: 45 }).runOut).toBe(addDays('2026-01-01', 269));
  });
});

const plan = fc.oneof(
  fc.record({ modality: fc.constantFrom('twoWeekly' as const, 'monthly' as const), daysPerWeek: fc.integer({ min: 1, max: 7 }) }),
  fc.record({ modality: fc.constant('daily' as const), daysPerWeek: fc.integer({ min: 1, max: 7 }) }),
);
const deliveries = fc.array(
  fc.record({ day: fc.integer({ min: 0, max: 900 }), lenses: fc.integer({ min: 1, max: 90 }), packSize: fc.constantFrom(3, 5, 6, 30) }),
  { minLength: 1, maxLength: 6 },
);
const losses = fc.array(fc.record({ day: fc.integer({ min: 0, max: 1200 }), lenses: fc.integer({ min: 1, max: 3 }) }), { maxLength: 4 });
const START = '2027-11-20';
const inputOf = (
  came: readonly { day: number; lenses: number; packSize: number }[],
  lost: readonly { day: number; lenses: number }[],
  wear: RunwayInput['wear'],
): RunwayInput => ({
  deliveries: came.map(({ day, lenses, packSize }) => box(addDays(START, day), lenses, { packSize })),
  losses: lost.map(({ day, lenses }) => ({ on: addDays(START, day), lenses })),
  wear,
});

describe('laws of the runway', () => {
  it('one delivery without a loss ends where lenses are counted to', () => {
    fc.assert(
      fc.property(plan, fc.integer({ min: 1, max: 120 }), (wear, lenses) => {
        expect(runway(inputOf([{ day: 0, lenses, packSize: 6 }], [], wear)).runOut).toBe(runOutDate(START, lenses, wear) ?? START);
      }),
    );
  });
  it('boxes never overlap and never begin before they came; a loss never makes lenses last longer', () => {
    fc.assert(
      fc.property(deliveries, losses, plan, (came, lost, wear) => {
        const whole = runway(inputOf(came, [], wear));
        const of = runway(inputOf(came, lost, wear));
        expect((of.runOut ?? START) <= (whole.runOut ?? START)).toBe(true);
        const first = came.reduce((least, c) => Math.min(least, c.day), Infinity);
        for (const [i, b] of of.boxes.entries()) {
          expect(b.from >= addDays(START, first)).toBe(true);
          expect(b.from <= b.to).toBe(true);
          const before = of.boxes[i - 1];
          // Of dailies worn every other day the last day of one box may be the first of the next.
          if (before && wear.modality !== 'daily') expect(b.from > before.to).toBe(true);
        }
      }),
    );
  });
  it('of reusable lenses every day is accounted for: worn, or lost with a lens', () => {
    fc.assert(
      fc.property(deliveries, losses, plan, (came, lost, wear) => {
        if (wear.modality === 'daily') return;
        const of = runway(inputOf(came, lost, wear));
        const worn = of.boxes.reduce((sum, b) => sum + daysBetween(b.from, b.to) + 1, 0);
        const gone = of.losses.reduce((sum, l) => sum + l.days, 0);
        const all = came.reduce((sum, c) => sum + c.lenses, 0) * LIFE_DAYS[wear.modality];
        expect(worn + gone).toBe(all);
        expect(daysCovered(1, wear)).toBe(LIFE_DAYS[wear.modality]);
      }),
    );
  });
});
