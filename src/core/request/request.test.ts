import Holidays from 'date-holidays';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  businessDeadline,
  calendarsOf,
  compareRequest,
  federalHolidays,
  federalHolidayOn,
  isReachable,
  looksLikeDay,
  missingOf,
  requestStanding,
  RULE_PROFILES,
  USUAL_WEEK,
  type BusinessCalendar,
  type InForce,
  type SellerRequest,
} from '../index';

const HOURS = { week: USUAL_WEEK, closedDays: [] };
const NEW_YORK = 'America/New_York';
const { usual } = calendarsOf(RULE_PROFILES.us, HOURS, NEW_YORK);
/** An instant written as a wall clock of a zone, and back; by the platform's own calendar, not by the code under test. */
const wall = (instant: string, timeZone: string): string =>
  new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' }).format(new Date(instant));

describe('8 business hours (16 CFR 315.2, from memory)', () => {
  it.each([
    ['Monday 10:00 → Tuesday 10:00', '2026-11-23T15:00:00Z', '2026-11-24 10:00'],
    ['Friday 16:00 → Monday 16:00', '2026-11-20T21:00:00Z', '2026-11-23 16:00'],
    ['Saturday 12:00 → Monday 17:00', '2026-11-21T17:00:00Z', '2026-11-23 17:00'],
    ['Monday 09:00 → the same day 17:00', '2026-11-23T14:00:00Z', '2026-11-23 17:00'],
    ['Wednesday 16:30 before Thanksgiving → Friday 16:30', '2026-11-25T21:30:00Z', '2026-11-27 16:30'],
    ['a seller in Los Angeles on Friday 14:30 → Monday 17:00 in New York', '2026-11-20T22:30:00Z', '2026-11-23 17:00'],
  ])('%s', (_name, from, to) => {
    expect(wall(businessDeadline(from, 8, usual) ?? '', NEW_YORK)).toBe(to);
  });
  it('Saturday hours, which a seller may choose to count, make the earliest deadline earlier and the usual one no other', () => {
    const week = USUAL_WEEK.map((d) => (d.weekday === 6 ? { weekday: 6, opening: { opensMinute: 9 * 60, closesMinute: 13 * 60 } } : d));
    const both = calendarsOf(RULE_PROFILES.us, { week, closedDays: [] }, NEW_YORK);
    const from = '2026-11-20T21:00:00Z';
    expect(wall(businessDeadline(from, 8, both.usual) ?? '', NEW_YORK)).toBe('2026-11-23 16:00');
    expect(wall(businessDeadline(from, 8, both.earliest) ?? '', NEW_YORK)).toBe('2026-11-23 12:00');
    const closed = calendarsOf(RULE_PROFILES.us, { week, closedDays: [{ day: '2026-11-21', name: 'fair', closed: true }] }, NEW_YORK);
    expect(wall(businessDeadline(from, 8, closed.earliest) ?? '', NEW_YORK)).toBe('2026-11-23 16:00');
  });
  it('the generic profile counts the practice’s own hours and closed days; who is never open has no deadline', () => {
    const own = calendarsOf(RULE_PROFILES.generic, { week: USUAL_WEEK, closedDays: [{ day: '2026-11-24', name: 'move', closed: true }] }, NEW_YORK).usual;
    expect(wall(businessDeadline('2026-11-23T21:00:00Z', 8, own) ?? '', NEW_YORK)).toBe('2026-11-25 16:00');
    const never = calendarsOf(RULE_PROFILES.generic, { week: USUAL_WEEK.map((d) => ({ ...d, opening: null })), closedDays: [] }, NEW_YORK).usual;
    expect(businessDeadline('2026-11-23T21:00:00Z', 8, never)).toBeNull();
  });

  /** Minute by minute: counts those whose clock, as the platform's own calendar shows it, lies in the window. */
  function simulate(from: number, hours: number, calendar: BusinessCalendar): number {
    const format = new Intl.DateTimeFormat('en-CA', {
      timeZone: calendar.timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    });
    let left = hours * 60;
    let at = from;
    while (left > 0) {
      const part = Object.fromEntries(format.formatToParts(at).map((p) => [p.type, p.value]));
      const window = calendar.windowOn(`${part.year}-${part.month}-${part.day}`);
      const minute = Number(part.hour) * 60 + Number(part.minute);
      if (window && minute >= window.fromMinute && minute < window.toMinute) left -= 1;
      at += 60_000;
    }
    return at;
  }
  it('agrees with counting minute by minute: random instants, zones, clock changes, holidays and Saturdays', () => {
    const zones = ['America/New_York', 'America/Los_Angeles', 'America/St_Johns', 'Europe/London', 'Pacific/Auckland', 'Asia/Kolkata', 'Australia/Lord_Howe'];
    // A fortnight around the clock changes of both hemispheres, around the holidays of a year's end, and anywhere.
    const near = ['2026-03-08', '2026-03-29', '2026-04-05', '2026-10-04', '2026-10-25', '2026-11-01', '2026-11-26', '2027-12-31', '2026-07-04'];
    const moment = fc
      .tuple(fc.constantFrom(...near), fc.integer({ min: -7 * 1440, max: 3 * 1440 }))
      .map(([day, minutes]) => Date.parse(`${day}T12:00:00Z`) + minutes * 60_000);
    const saturday = fc.option(fc.record({ opensMinute: fc.integer({ min: 360, max: 700 }), closesMinute: fc.integer({ min: 701, max: 1320 }) }), {
      nil: null,
    });
    fc.assert(
      fc.property(
        moment,
        fc.constantFrom(...zones),
        saturday,
        fc.constantFrom('us' as const, 'generic' as const),
        fc.constantFrom(1, 8),
        (from, zone, opening, profile, hours) => {
          const week = USUAL_WEEK.map((d) => (d.weekday === 6 ? { weekday: 6, opening } : d));
          const { earliest } = calendarsOf(RULE_PROFILES[profile], { week, closedDays: [] }, zone);
          const found = businessDeadline(new Date(from).toISOString(), hours, earliest);
          expect(found).toBe(new Date(simulate(from, hours, earliest)).toISOString());
        },
      ),
      { numRuns: 60 },
    );
  });
  it('a later request is never due earlier, and the earliest deadline is never after the usual one', () => {
    const at = fc.integer({ min: Date.parse('2026-01-01'), max: Date.parse('2028-12-31') });
    const week = USUAL_WEEK.map((d) => (d.weekday === 6 ? { weekday: 6, opening: { opensMinute: 540, closesMinute: 780 } } : d));
    const both = calendarsOf(RULE_PROFILES.us, { week, closedDays: [] }, NEW_YORK);
    fc.assert(
      fc.property(at, fc.integer({ min: 0, max: 5 * 86_400_000 }), (from, later) => {
        const of = (ms: number): string => businessDeadline(new Date(ms).toISOString(), 8, both.earliest) ?? '';
        expect(of(from) <= of(from + later)).toBe(true);
        expect(of(from) <= (businessDeadline(new Date(from).toISOString(), 8, both.usual) ?? '')).toBe(true);
      }),
    );
  });
});

describe('federal holidays, on the days on which they are observed', () => {
  it('as the federal list has them, 2027 and 2028 (Office of Personnel Management, from memory)', () => {
    expect(federalHolidays(2027).map((h) => h.day)).toEqual([
      '2027-01-01',
      '2027-01-18',
      '2027-02-15',
      '2027-05-31',
      '2027-06-18',
      '2027-07-05',
      '2027-09-06',
      '2027-10-11',
      '2027-11-11',
      '2027-11-25',
      '2027-12-24',
    ]);
    expect(federalHolidays(2028)[0]).toEqual({ day: '2027-12-31', name: 'newYear' });
    expect(federalHolidayOn('2027-12-31')).toBe('newYear');
    expect(federalHolidayOn('2028-11-10')).toBe('veterans');
    expect(federalHolidayOn('2028-11-11')).toBeNull();
  });
  it('are all known to date-holidays 3.37.0 as public or bank holidays, 2024 to 2030', () => {
    // Each year with its neighbours: the library files 1 January 2028 as observed under 2027.
    const library = new Holidays('US', { types: ['public', 'bank'] });
    const theirs = new Set<string>();
    for (let year = 2023; year <= 2031; year++) for (const h of library.getHolidays(year)) theirs.add(h.date.slice(0, 10));
    const ours = [2024, 2025, 2026, 2027, 2028, 2029, 2030].flatMap((year) => federalHolidays(year).map((h) => h.day));
    expect(ours).toHaveLength(77);
    expect(ours.filter((day) => !theirs.has(day))).toEqual([]);
  });
});

const LENS = {
  power: { sphere: -3, cylinder: -1.75, axis: 30 },
  add: null,
  maker: 'Harbour Optics',
  familyName: 'Plover 30 Toric',
  baseCurveMm: 8.6,
  diameterMm: 14.2,
};
const SPHERE = { ...LENS, power: { sphere: -4.75, cylinder: 0, axis: 180 }, familyName: 'Turnstone 30', baseCurveMm: 8.4 };
const prescription = (change: Partial<InForce> = {}): InForce => ({
  id: 'p1',
  number: 7,
  purpose: 'everyday',
  expiresOn: '2027-11-24',
  eyes: { right: LENS, left: SPHERE },
  ...change,
});
const asked = (lens: typeof LENS, change: object = {}) => ({
  power: lens.power,
  add: lens.add,
  lensName: lens.familyName,
  baseCurveMm: lens.baseCurveMm,
  diameterMm: lens.diameterMm,
  boxes: 2,
  ...change,
});
const request = (change: Partial<SellerRequest> = {}): SellerRequest => ({
  sellerName: 'Quayside Lenses',
  sellerContact: 'fax 0555 0199',
  wearerName: 'Perran Lisle',
  wearerAddress: '3 Ropewalk',
  askedOn: '2026-11-23',
  eyes: { right: asked(LENS), left: asked(SPHERE) },
  ...change,
});
const TODAY = '2026-11-24';

describe('a request beside what is in force', () => {
  it('the same lens is correct, however its name is written', () => {
    expect(compareRequest(request(), [prescription()], TODAY)).toMatchObject({ proposed: 'correct', because: 'asPrescribed', differences: [] });
    const named = request({ eyes: { right: asked(LENS, { lensName: 'HARBOUR OPTICS plover-30 toric' }), left: null } });
    expect(compareRequest(named, [prescription()], TODAY).proposed).toBe('correct');
  });
  it.each<[string, object, object]>([
    ['power', { power: { sphere: -3, cylinder: -1.75, axis: 20 } }, { field: 'power', asked: '−3.00 −1.75 × 20', prescribed: '−3.00 −1.75 × 30' }],
    ['another lens', { lensName: 'Plover 30' }, { field: 'lensName', prescribed: 'Harbour Optics Plover 30 Toric' }],
    ['another base curve', { baseCurveMm: 8.4 }, { field: 'baseCurveMm', asked: '8.4', prescribed: '8.6' }],
    ['another diameter', { diameterMm: 14 }, { field: 'diameterMm', asked: '14.0', prescribed: '14.2' }],
    ['an add that is not prescribed', { add: 'low' }, { field: 'add', asked: 'low', prescribed: '' }],
  ])('%s is corrected', (_name, change, difference) => {
    const compared = compareRequest(request({ eyes: { right: asked(LENS, change), left: asked(SPHERE) } }), [prescription()], TODAY);
    expect(compared).toMatchObject({ proposed: 'corrected', because: 'differs', differences: [{ eye: 'right', ...difference }] });
  });
  it('R and L changed over are two differences, never none; the axis of a sphere says nothing', () => {
    expect(compareRequest(request({ eyes: { right: asked(SPHERE), left: asked(LENS) } }), [prescription()], TODAY).differences.length).toBeGreaterThan(1);
    const turned = request({ eyes: { right: null, left: asked(SPHERE, { power: { sphere: -4.75, cylinder: 0, axis: 90 } }) } });
    expect(compareRequest(turned, [prescription()], TODAY).proposed).toBe('correct');
  });
  it('a diameter that was not asked is no difference; an eye without a prescription is', () => {
    expect(compareRequest(request({ eyes: { right: asked(LENS, { diameterMm: null }), left: null } }), [prescription()], TODAY).proposed).toBe('correct');
    const one = prescription({ eyes: { right: LENS, left: null } });
    expect(compareRequest(request(), [one], TODAY).differences).toEqual([{ eye: 'left', field: 'eye', asked: '−4.75', prescribed: '' }]);
  });
  it('of several purposes the one that fits best; expired on its day after; nobody’s is invalid', () => {
    const near = prescription({ id: 'p2', purpose: 'near', eyes: { right: SPHERE, left: SPHERE } });
    expect(compareRequest(request(), [near, prescription()], TODAY).prescription?.id).toBe('p1');
    expect(compareRequest(request(), [prescription({ expiresOn: TODAY })], TODAY).proposed).toBe('correct');
    expect(compareRequest(request(), [prescription({ expiresOn: '2026-11-23' })], TODAY)).toMatchObject({ proposed: 'expired', because: 'expired' });
    // One that is over is not answered by one that fits worse and holds.
    expect(compareRequest(request(), [prescription({ expiresOn: '2026-11-23' }), near], TODAY)).toMatchObject({
      prescription: { id: 'p2' },
      proposed: 'corrected',
    });
    expect(compareRequest(request(), [], TODAY)).toMatchObject({ proposed: 'invalid', because: 'noPrescription' });
    expect(compareRequest(request(), null, TODAY)).toMatchObject({ proposed: 'invalid', because: 'noWearer' });
  });
  it('what it lacks is named: only a complete one counts', () => {
    expect(missingOf(request())).toEqual([]);
    expect(missingOf(request({ wearerAddress: ' ', askedOn: null }))).toEqual(['wearerAddress', 'askedOn']);
    expect(missingOf(request({ eyes: { right: null, left: null } }))).toEqual(['eyes']);
    expect(missingOf(request({ eyes: { right: asked(LENS, { lensName: '', baseCurveMm: null, boxes: 0 }), left: null } }))).toEqual([
      'rightLensName',
      'rightBaseCurve',
      'rightBoxes',
    ]);
  });
  it('a fax number typed as a day is told from a number', () => {
    for (const day of ['12/11/2026', '2026-11-12', '12.11.26', '12 Nov 2026']) expect(looksLikeDay(day), day).toBe(true);
    for (const number of ['fax 0555 0199', '+1 555 010 0199', '555-0199', 'orders@quayside.example']) {
      expect(looksLikeDay(number), number).toBe(false);
      expect(isReachable(number), number).toBe(true);
    }
    for (const text of ['', 'fax', 'ask Jo', '12']) expect(isReachable(text), text).toBe(false);
  });
});

describe('how a request stands', () => {
  const at = (minutes: number): string => new Date(Date.parse('2026-11-24T17:00:00Z') + minutes * 60_000).toISOString();
  const open = { answeredAt: null, earliestAt: at(0) };
  it('waits, is pressing in its last two hours, and is lost to silence', () => {
    expect(requestStanding(open, at(-121))).toEqual({ kind: 'waits', minutes: 121 });
    expect(requestStanding(open, at(-120))).toEqual({ kind: 'soon', minutes: 120 });
    expect(requestStanding(open, at(0))).toEqual({ kind: 'soon', minutes: 0 });
    expect(requestStanding(open, at(1))).toEqual({ kind: 'lost', minutes: 1 });
    expect(requestStanding({ ...open, answeredAt: at(-5) }, at(1))).toEqual({ kind: 'answered' });
  });
});
