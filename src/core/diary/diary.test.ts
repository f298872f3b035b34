import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Temporal } from 'temporal-polyfill';
import { weekdayOf } from '../calendar/dates';
import { formatMinuteOfDay, parseTime } from '../calendar/parseTime';
import { standingOf, USUAL_MINUTES, type Slot } from './appointment';
import { clashesOf, type TakenSlot } from './clashes';
import { dueAt, withoutOverlap } from './dueRuler';
import { nextDue, type DueAppointment } from './nextDue';
import { nextFree, type OpenDay } from './nextFree';
import { nextOpenDay, openingOn, outsideHours, USUAL_WEEK, wholeWeek } from './openingHours';
import { taskStanding } from './task';

const MINUTE = 60_000;
const NINE = Date.parse('2026-11-24T09:00:00Z');
const at = (minute: number): string => new Date(NINE + minute * MINUTE).toISOString();

describe('a time of day as typed', () => {
  it.each([
    ['9', 540],
    ['930', 570],
    ['0930', 570],
    ['9:30', 570],
    ['9.30', 570],
    ['14h05', 845],
    ['2 pm', 840],
    ['12:15 am', 15],
    ['12 pm', 720],
    ['23:59', 1439],
  ])('%s', (typed, minutes) => expect(parseTime(typed)).toEqual({ ok: true, value: minutes }));
  it.each(['24', '9:60', '13 pm', '0 am', '-9', 'noon', '9:3', '99999'])('%s is none', (typed) =>
    expect(parseTime(typed)).toEqual({ ok: false, error: { code: 'notATime' } }),
  );
  it('every minute that is written is read again', () => {
    for (let minute = 0; minute < 1440; minute++) expect(parseTime(formatMinuteOfDay(minute))).toEqual({ ok: true, value: minute });
  });
});

describe('opening hours', () => {
  it('weekdays are as the calendar counts them', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40_000, max: 40_000 }), (days) => {
        const day = Temporal.PlainDate.from('2026-11-24').add({ days });
        expect(weekdayOf(day.toString())).toBe(day.dayOfWeek);
      }),
    );
  });
  const hours = {
    week: wholeWeek([{ weekday: 6, opening: { opensMinute: 600, closesMinute: 720 } }]),
    closedDays: [
      { day: '2026-12-25', name: 'Winter holiday', closed: true },
      { day: '2026-12-24', name: 'Half day', closed: false },
    ],
  };
  it('what was said of a weekday holds, and of the others what is usual', () => {
    expect(openingOn(hours, '2026-11-28')).toEqual({ opensMinute: 600, closesMinute: 720 });
    expect(openingOn(hours, '2026-11-27')).toEqual({ opensMinute: 540, closesMinute: 1020 });
    expect(openingOn(hours, '2026-11-29')).toBeNull();
  });
  it('a holiday is closed, and a day opened after all is open', () => {
    expect(openingOn(hours, '2026-12-25')).toBeNull();
    expect(openingOn(hours, '2026-12-24')).not.toBeNull();
    expect(nextOpenDay(hours, '2026-12-25')).toBe('2026-12-26');
    expect(nextOpenDay({ week: USUAL_WEEK.map((h) => ({ ...h, opening: null })), closedDays: [] }, '2026-12-25')).toBeNull();
  });
  it('begins with the first minute and ends with the last', () => {
    const opening = { opensMinute: 540, closesMinute: 1020 };
    expect(outsideHours(opening, 540, 480)).toBe(false);
    expect(outsideHours(opening, 539, 10)).toBe(true);
    expect(outsideHours(opening, 1000, 21)).toBe(true);
    expect(outsideHours(null, 600, 10)).toBe(true);
  });
});

const slotOf = (from: number, chair: number, staff: number, room: number, person: number, id = ''): TakenSlot => ({
  id,
  wearerId: `w${id}`,
  roomId: `r${room}`,
  staffId: `s${person}`,
  startsAt: at(from),
  chairMinutes: chair,
  staffMinutes: staff,
});
const someSlot = (id: string) =>
  fc
    .tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 12 }), fc.nat({ max: 12 }), fc.nat({ max: 2 }), fc.nat({ max: 2 }))
    .map(([from, chair, staff, room, person]) => slotOf(from * 5, chair * 5, Math.min(staff, chair) * 5, room, person, id));
const someTaken = fc.nat({ max: 12 }).chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => someSlot(String(i)))));

/** Minute by minute: is anything of the two taken twice? */
function clashesByMinute(a: Slot, b: TakenSlot): { room: boolean; staff: boolean } {
  const within = (slot: Slot, minutes: number, minute: number): boolean => {
    const from = (Date.parse(slot.startsAt) - NINE) / MINUTE;
    return minute >= from && minute < from + minutes;
  };
  const both = (aMinutes: number, bMinutes: number): boolean =>
    Array.from({ length: 800 }, (_, minute) => minute).some((minute) => within(a, aMinutes, minute) && within(b, bMinutes, minute));
  return {
    room: a.roomId === b.roomId && both(a.chairMinutes, b.chairMinutes),
    staff: a.staffId === b.staffId && both(a.staffMinutes, b.staffMinutes),
  };
}

describe('what an appointment takes that others have', () => {
  it('is what a look at every minute finds', () => {
    fc.assert(
      fc.property(someSlot('a'), someSlot('b'), (a, b) => {
        const found = clashesOf(a, [b]).map((c) => c.what);
        const seen = clashesByMinute(a, b);
        expect({ room: found.includes('room'), staff: found.includes('staff') }).toEqual(seen);
      }),
    );
  });
  it('while lenses settle the room is taken and the person is free', () => {
    const settling = slotOf(0, 60, 20, 1, 1, 'a');
    expect(clashesOf(slotOf(20, 20, 20, 2, 1), [settling])).toEqual([]);
    expect(clashesOf(slotOf(19, 20, 20, 2, 1), [settling])).toMatchObject([{ what: 'staff' }]);
    expect(clashesOf(slotOf(30, 20, 20, 1, 2), [settling])).toMatchObject([{ what: 'room' }]);
  });
  it('nobody is in two places at once, and an appointment never clashes with itself', () => {
    const taken = slotOf(0, 30, 30, 1, 1, 'a');
    expect(clashesOf({ ...slotOf(10, 30, 30, 2, 2), id: 'x', wearerId: 'wa' }, [taken])).toMatchObject([{ what: 'wearer' }]);
    expect(clashesOf(taken, [taken])).toEqual([]);
  });
});

describe('the next free time', () => {
  const day: OpenDay = { day: '2026-11-24', opens: NINE, closes: NINE + 480 * MINUTE };
  const wanted = { minutes: { chair: 30, staff: 15 }, rooms: ['r0', 'r1'], staff: ['s0', 's1'], from: 0 };
  it('is really free, within the hours, and no earlier quarter of an hour is', () => {
    fc.assert(
      fc.property(someTaken, fc.integer({ min: 1, max: 8 }), (taken, chair) => {
        const minutes = { chair: chair * 15, staff: 15 };
        const [free] = nextFree({ ...wanted, minutes }, [day], taken, 1);
        const isFree = (from: number): boolean =>
          [0, 1].some((room) => taken.every((t) => !clashesByMinute(slotOf(from, minutes.chair, minutes.staff, room, 9), t).room)) &&
          [0, 1].some((person) => taken.every((t) => !clashesByMinute(slotOf(from, minutes.chair, minutes.staff, 9, person), t).staff));
        const byHand = Array.from({ length: 32 }, (_, i) => i * 15).find((from) => from + minutes.chair <= 480 && isFree(from));
        expect(free ? (Date.parse(free.startsAt) - NINE) / MINUTE : undefined).toBe(byHand);
        if (free) expect(clashesOf(free, taken)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
  it('never lies before now, and goes on with the next day', () => {
    const tomorrow = { day: '2026-11-25', opens: NINE + 1440 * MINUTE, closes: NINE + 1920 * MINUTE };
    const late = nextFree({ ...wanted, from: day.closes - 20 * MINUTE }, [day, tomorrow], [], 2);
    expect(late.map((f) => [f.day, f.startsAt])).toEqual([
      ['2026-11-25', at(1440)],
      ['2026-11-25', at(1455)],
    ]);
  });
});

describe('how an appointment stands', () => {
  const booked = { state: 'booked', startsAt: at(0), lateMinutes: 0 } as const;
  it.each([
    [-10, { kind: 'booked', inMinutes: 10 }],
    [4, { kind: 'booked', inMinutes: 0 }],
    [5, { kind: 'late', byMinutes: 5 }],
    [15, { kind: 'overdue', byMinutes: 15 }],
  ])('%i min after its time', (minute, standing) => expect(standingOf(booked, NINE + minute * MINUTE)).toEqual(standing));
  it('what was said of being late counts', () =>
    expect(standingOf({ ...booked, lateMinutes: 10 }, NINE + 12 * MINUTE)).toEqual({ kind: 'booked', inMinutes: 0 }));
  it('staff minutes are never more than the wearer’s', () => {
    for (const minutes of Object.values(USUAL_MINUTES)) expect(minutes.staff).toBeLessThanOrEqual(minutes.chair);
  });
});

describe('what is due next', () => {
  const row = (id: string, more: Partial<DueAppointment> = {}) => ({
    id,
    state: 'booked' as const,
    startsAt: at(30),
    lateMinutes: 0,
    staffId: 'other',
    visitId: null,
    visitOpen: false,
    ...more,
  });
  const rows = [
    row('later', { startsAt: at(60) }),
    row('soon', { startsAt: at(10) }),
    row('late', { startsAt: at(-8) }),
    row('here', { state: 'arrived', startsAt: at(0) }),
    row('mine', { state: 'arrived', startsAt: at(0), staffId: 'me' }),
    row('open', { state: 'arrived', visitId: 'v', visitOpen: true }),
    row('over', { state: 'done', visitId: 'v' }),
    row('gone', { state: 'cancelled' }),
  ];
  const said = (fits: boolean) => nextDue(rows, { personId: 'me', fits: () => fits }, NINE).map((d) => `${d.row.id} ${d.act}`);
  it('for whoever begins visits: one’s own, then the one under way, then who waits', () =>
    expect(said(true)).toEqual(['mine begin', 'open goOn', 'here begin', 'late call', 'soon begin', 'later begin']));
  it('for whoever receives: who is late, then who comes', () => expect(said(false)).toEqual(['late call', 'soon receive', 'later receive']));
});

describe('the ruler of what is due', () => {
  it('doubles its wait every hundred pixels, from five minutes on', () => {
    expect([0, 5, 15, 35, 75].map(dueAt)).toEqual([0, 100, 200, 300, 400]);
    expect(dueAt(-20)).toBe(0);
  });
  it('no item covers another, and none stands before its time', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat({ max: 800 }), fc.integer({ min: 1, max: 120 })), { maxLength: 12 }), (items) => {
        const wanted = items.map(([place]) => place).sort((a, b) => a - b);
        const heights = items.map(([, height]) => height);
        const places = withoutOverlap(wanted, heights);
        places.forEach((place, i) => {
          expect(place).toBeGreaterThanOrEqual(wanted[i] ?? 0);
          if (i > 0) expect(place).toBeGreaterThanOrEqual((places[i - 1] ?? 0) + (heights[i - 1] ?? 0));
        });
      }),
    );
  });
});

it.each([
  ['2026-11-22', false, { kind: 'late', byDays: 2 }],
  ['2026-11-24', false, { kind: 'today' }],
  ['2026-11-25', false, { kind: 'later' }],
  ['2026-11-22', true, { kind: 'done' }],
])('a task due %s, done %s', (dueOn, done, standing) => expect(taskStanding({ dueOn, done }, '2026-11-24')).toEqual(standing));
