import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, ageOn, dayIn, daysBetween, isIsoDate, parseDay } from '../index';

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
