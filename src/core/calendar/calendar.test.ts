import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, addMonths, addSeconds, addYears, ageOn, dayIn, daysBetween, isIsoDate, parseDay, secondsBetween } from '../index';
import { Temporal } from 'temporal-polyfill';

describe('days', () => {
  it('there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40_000, max: 40_000 }), (n) => {
        expect(daysBetween('2026-11-24', addDays('2026-11-24', n))).toBe(n);
      }),
    );
  });
  it.each([
    ['2024-02-29', true],
    ['2026-02-29', false],
    ['2026-13-01', false],
    ['2026-1-1', false],
    ['', false],
  ])('%s is a day: %s', (day, is) => {
    expect(isIsoDate(day)).toBe(is);
  });
  it('the day of an instant is the practice’s, not the machine’s', () => {
    expect(dayIn('2026-11-25T02:30:00Z', 'America/New_York')).toBe('2026-11-24');
    expect(dayIn('2026-11-24T12:00:00Z', 'Pacific/Auckland')).toBe('2026-11-25');
  });
  it('a birthday on 29 February', () => {
    expect(ageOn('2008-02-29', '2026-02-28')).toBe(17);
    expect(ageOn('2008-02-29', '2026-03-01')).toBe(18);
  });
});

describe('a day as typed', () => {
  it.each([
    ['1992-03-14', '1992-03-14'],
    ['14 Mar 1992', '1992-03-14'],
    ['14 march 1992', '1992-03-14'],
    ['14.3.1992', '1992-03-14'],
    ['3/14/1992', '1992-03-14'],
    ['1.1.2000', '2000-01-01'],
  ])('%s', (text, day) => {
    expect(parseDay(text)).toEqual({ ok: true, value: day });
  });
  it('does not guess between day and month', () => {
    expect(parseDay('3/4/1992')).toEqual({ ok: false, error: { code: 'ambiguousDay', repairs: ['1992-04-03', '1992-03-04'] } });
  });
  it.each([
    ['', 'empty'],
    ['30 Feb 1992', 'notADay'],
    ['soon', 'notADay'],
    ['14 Foo 1992', 'notADay'],
    ['14 Mar 92', 'notADay'],
  ])('%s is %s', (text, code) => {
    expect(parseDay(text)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('the calendar against the Temporal polyfill, a reference library', () => {
  const day = fc.date({ min: new Date('1900-01-01'), max: new Date('2199-12-31'), noInvalidDate: true }).map((d) => d.toISOString().slice(0, 10));
  const plain = (text: string) => Temporal.PlainDate.from(text);
  it('adds days and years, and counts days', () => {
    fc.assert(
      fc.property(day, day, fc.integer({ min: -4000, max: 4000 }), fc.integer({ min: -90, max: 90 }), (a, b, days, years) => {
        expect(addDays(a, days)).toBe(plain(a).add({ days }).toString());
        expect(addYears(a, years)).toBe(plain(a).add({ years }).toString());
        expect(addMonths(a, years * 7 - 3)).toBe(
          plain(a)
            .add({ months: years * 7 - 3 })
            .toString(),
        );
        expect(daysBetween(a, b)).toBe(plain(a).until(plain(b), { largestUnit: 'days' }).days);
      }),
    );
  });
  it('ages, and names the day of an instant in a zone', () => {
    const zone = fc.constantFrom('UTC', 'America/St_Johns', 'Pacific/Auckland', 'Asia/Kolkata', 'America/New_York');
    fc.assert(
      fc.property(day, day, zone, fc.integer({ min: 0, max: 86_399 }), (a, b, timeZone, second) => {
        const [birth, today] = a < b ? [a, b] : [b, a];
        expect(ageOn(birth, today)).toBe(plain(birth).until(plain(today), { largestUnit: 'years' }).years);
        const instant = addSeconds(`${b}T00:00:00Z`, second);
        expect(dayIn(instant, timeZone)).toBe(Temporal.Instant.from(instant).toZonedDateTimeISO(timeZone).toPlainDate().toString());
        expect(secondsBetween(`${b}T00:00:00Z`, instant)).toBe(second);
      }),
    );
  });
});
