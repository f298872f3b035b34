import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/dates';
import { RESTOCK_DAYS, restockOf, stillComing } from './trialLevel';

const TODAY = '2026-11-24';
const NOW = `${TODAY}T12:00:00Z`;
const day = (back: number): string => `${addDays(TODAY, -back)}T12:00:00Z`;

describe('trial lenses still on their way', () => {
  it('what came fills what was asked first, and nothing that was asked later', () => {
    expect(stillComing([{ at: day(5), count: 3 }], [{ at: day(1), count: 2 }], NOW)).toBe(1);
    expect(stillComing([{ at: day(1), count: 3 }], [{ at: day(5), count: 2 }], NOW)).toBe(3);
    expect(
      stillComing(
        [
          { at: day(2), count: 2 },
          { at: day(9), count: 2 },
        ],
        [{ at: day(3), count: 3 }],
        NOW,
      ),
    ).toBe(2);
  });
  it('what was asked more than a month ago is waited for no more', () => {
    expect(stillComing([{ at: day(RESTOCK_DAYS), count: 2 }], [], NOW)).toBe(2);
    expect(stillComing([{ at: day(RESTOCK_DAYS + 1), count: 2 }], [], NOW)).toBe(0);
  });
  it('never below nothing, never more than was asked, and less with whatever comes', () => {
    const counted = fc.array(fc.record({ at: fc.integer({ min: 0, max: 60 }).map(day), count: fc.integer({ min: 1, max: 9 }) }), { maxLength: 6 });
    fc.assert(
      fc.property(counted, counted, (asked, came) => {
        const coming = stillComing(asked, came, NOW);
        expect(coming).toBeGreaterThanOrEqual(0);
        expect(coming).toBeLessThanOrEqual(asked.reduce((n, a) => n + a.count, 0));
        expect(stillComing(asked, [...came, { at: NOW, count: 3 }], NOW)).toBeLessThanOrEqual(coming);
      }),
    );
  });
});

/** Common practice: what is used up or expires is ordered again. */
describe('trial lenses to be ordered', () => {
  const of = { least: 2, left: 2, expiring: 0, coming: 0, used: 0 };
  it('as many as are missing, those that expire soon and those on their way counted', () => {
    expect(restockOf(of)).toBeNull();
    expect(restockOf({ ...of, left: 0 })).toEqual({ count: 2, why: 'below' });
    expect(restockOf({ ...of, left: 0, coming: 1 })).toEqual({ count: 1, why: 'below' });
    expect(restockOf({ ...of, expiring: 1 })).toEqual({ count: 1, why: 'expiring' });
    expect(restockOf({ ...of, least: 0, left: 0, used: 9 })).toBeNull();
  });
  it('one of those that nobody set a level for, where they are used often and none is left', () => {
    const none = { ...of, least: null, left: 0 };
    expect(restockOf({ ...none, used: 2 })).toEqual({ count: 1, why: 'used' });
    expect(restockOf({ ...none, used: 1 })).toBeNull();
    expect(restockOf({ ...none, used: 2, coming: 1 })).toBeNull();
    expect(restockOf({ ...none, used: 2, left: 1 })).toBeNull();
  });
  it('what is ordered fills the level: asked again at once, nothing more is', () => {
    const level = fc.record({ least: fc.option(fc.nat(20)), left: fc.nat(20), expiring: fc.nat(20), coming: fc.nat(20), used: fc.nat(9) });
    fc.assert(
      fc.property(level, (l) => {
        const line = { ...l, expiring: Math.min(l.expiring, l.left) };
        const order = restockOf(line);
        if (order) expect(restockOf({ ...line, coming: line.coming + order.count })).toBeNull();
      }),
    );
  });
});
