import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '../calendar/dates';
import { afterQuiet } from '../diary/quietHours';
import { paceKind, paceOf } from './pace';
import { runway } from './runway';
import { shipmentFaults } from './shipmentFaults';
import { learnedLead, leavesToday, supplierOf } from './supplier';

const DAY = '2026-01-01';
const monthly = { modality: 'monthly', daysPerWeek: 7 } as const;
const given = (after: number, lenses: number) => ({ on: addDays(DAY, after), openedOn: null, lenses });

describe('how lenses are really used up', () => {
  it('a monthly that lasts 45 days is seen by when the next box was fetched', () => {
    const pace = paceOf([given(0, 6), given(270, 6)], [], monthly);
    expect(pace).toEqual({ daysPerLens: 45, labelled: 30, lenses: 6, days: 270 });
    expect(pace && paceKind(pace)).toBe('slow');
  });
  it('lenses that were lost were not worn', () => {
    expect(paceOf([given(0, 6), given(150, 6)], [{ on: addDays(DAY, 20), lenses: 1 }], monthly)?.daysPerLens).toBe(30);
  });
  it('two boxes fetched together, and a first month, say nothing', () => {
    expect(paceOf([given(0, 6), given(0, 6)], [], monthly)).toBeNull();
    expect(paceOf([given(0, 1), given(30, 6)], [], monthly)).toBeNull();
    expect(paceOf([], [], monthly)).toBeNull();
  });
  it('at that pace what came before ends on the very day of the last coming', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ gap: fc.integer({ min: 60, max: 300 }), lenses: fc.integer({ min: 3, max: 12 }) }), { minLength: 2, maxLength: 5 }),
        (comings) => {
          let after = 0;
          const of = comings.map(({ gap, lenses }) => {
            const one = given(after, lenses);
            after += gap;
            return one;
          });
          const pace = paceOf(of, [], monthly);
          const last = of.at(-1);
          if (!pace || !last) return;
          const until = runway({
            deliveries: [{ on: DAY, openedOn: DAY, lenses: pace.lenses, packSize: pace.lenses, state: 'inHand' }],
            losses: [],
            wear: monthly,
            daysPerLens: pace.daysPerLens,
          }).runOut;
          expect(until && Math.abs(daysBetween(addDays(until, 1), last.on))).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
});

describe('who sells whose lenses', () => {
  const all = { makers: [], ended: false };
  const marram = { makers: ['Marram Optical'], ended: false };
  it('the one that names the maker before the one that takes every maker’s; never one that ended', () => {
    expect(supplierOf([all, marram], ' marram optical ')).toBe(marram);
    expect(supplierOf([all, marram], 'Foreshore Vision')).toBe(all);
    expect(supplierOf([{ ...marram, ended: true }, all], 'Marram Optical')).toBe(all);
    expect(supplierOf([marram], 'Foreshore Vision')).toBeNull();
  });
  it('its lead time is what four in five of its orders kept', () => {
    expect(learnedLead([3, 4, 4, 5])).toBeNull();
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 5, maxLength: 40 }), (days) => {
        const lead = learnedLead(days) ?? -1;
        expect(days.filter((d) => d <= lead).length / days.length).toBeGreaterThanOrEqual(0.8);
        expect(days.filter((d) => d < lead).length / days.length).toBeLessThan(0.8);
      }),
    );
  });
  it('until its cut-off an order leaves the same day', () => {
    expect([leavesToday({ cutOffMinute: 720 }, 720), leavesToday({ cutOffMinute: 720 }, 721)]).toEqual([true, false]);
  });
});

describe('what is wrong with announced boxes', () => {
  const of = { left: 2, lenses: 6, wear: monthly, arrivesOn: '2026-12-01' };
  it('six monthlies must be good for half a year from their coming', () => {
    expect(shipmentFaults({ packs: 1, expiresOn: '2027-05-29', isOrdered: true }, of)).toEqual(['shortDated']);
    expect(shipmentFaults({ packs: 1, expiresOn: '2027-05-30', isOrdered: true }, of)).toEqual([]);
    expect(shipmentFaults({ packs: 1, expiresOn: '2026-11-30', isOrdered: true }, of)).toEqual(['expired']);
  });
  it('nothing is said of what the announcement does not say', () => {
    expect(shipmentFaults({ packs: 2, expiresOn: null, isOrdered: null }, of)).toEqual([]);
    expect(shipmentFaults({ packs: 3, expiresOn: null, isOrdered: false }, of)).toEqual(['tooMany', 'wrongLens']);
  });
});

describe('hours in which nobody is written to', () => {
  const hours = { from: 8, until: 20 };
  it.each([
    ['2026-11-24T15:00:00.000Z', '2026-11-24T15:00:00.000Z'],
    ['2026-11-24T03:00:00.000Z', '2026-11-24T13:00:00.000Z'],
    // 20:00 is too late already: the next morning.
    ['2026-11-25T01:00:00.000Z', '2026-11-25T13:00:00.000Z'],
    // The night in which the clocks go forward: eight o'clock is an hour earlier.
    ['2026-03-08T04:30:00.000Z', '2026-03-08T12:00:00.000Z'],
  ])('%s → %s', (at, goes) => expect(afterQuiet(at, hours, 'America/New_York')).toBe(goes));
});
