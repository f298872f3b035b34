import { describe, expect, it } from 'vitest';
import { en as messages } from './messages/en';
import { formatDay, formatElapsed, formatMoment, formatMoney, formatRecord, formatTime, formatWeekday } from './format';

describe('writing days, times and money', () => {
  it('a day is the same in every time zone of the machine', () => {
    expect(formatDay('1992-03-14')).toBe('14 Mar 1992');
    expect(formatDay('2026-03-08')).toBe('8 Mar 2026');
  });
  it('moments are in the practice’s zone', () => {
    expect(formatMoment('2026-11-25T02:30:00Z', 'America/New_York')).toBe('24 Nov 2026, 21:30');
    expect(formatTime('2026-11-24T05:00:00Z', 'America/New_York')).toBe('00:00');
    expect(formatWeekday('2026-09-01T15:00:00Z', 'America/New_York')).toBe('Tue 1 Sep');
  });
  it('money, elapsed time, record numbers', () => {
    expect(formatMoney(5850, 'USD')).toBe('$58.50');
    expect(formatElapsed(247.9)).toBe('4:07');
    expect(formatElapsed(3599)).toBe('59:59');
    expect(formatElapsed(21601)).toBe('6:00:01');
    expect(formatElapsed(-5)).toBe('0:00');
    expect(formatRecord(417)).toBe('0417');
  });
});

describe('the words', () => {
  const flat = (node: unknown, path = ''): [string, string][] =>
    typeof node === 'string' ? [[path, node]] : Object.entries(node as object).flatMap(([k, v]) => flat(v, path ? `${path}.${k}` : k));
  const all = flat(messages);
  it('are there', () => {
    expect(all.length).toBeGreaterThan(400);
  });
  it('write a true minus before a figure, no exclamation marks, and say on and off of a lens, never in and out', () => {
    for (const [path, text] of all) {
      expect(text, path).not.toMatch(/!/);
      expect(text, path).not.toMatch(/\b(put|take|goes|went|came) (it |them |the lens )?(in|out)\b(?! of| the drawer)/i);
      if (!/-325-175/.test(text)) expect(text, path).not.toMatch(/(^|\s)-\d/);
    }
  });
});
