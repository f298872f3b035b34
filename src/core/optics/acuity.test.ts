import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatAcuity, linesGained, parseAcuity } from '../index';

describe('acuity as typed', () => {
  // Source: 20/40 = 0.50 = 6/12 = 0.301 logMAR, 20/30 = 0.176: common practice.
  it.each([
    ['20/40', 'feet', 0.3],
    ['6/12', 'feet', 0.3],
    ['0.5', 'decimal', 0.3],
    ['20/30', 'feet', 0.18],
    ['20/20', 'metres', 0],
    ['25', 'feet', 0.1],
    ['7.5', 'metres', 0.1],
    ['0.1', 'logMAR', 0.1],
    ['-0.1', 'logMAR', -0.1],
    ['20/20-2', 'feet', 0.04],
    ['20/25+1', 'feet', 0.08],
    ['20 / 16', 'feet', -0.1],
    ['6/7,5', 'metres', 0.1],
  ] as const)('%s in %s is %d', (text, notation, value) => {
    expect(parseAcuity(text, notation)).toEqual({ ok: true, value });
  });
  it.each([
    ['', 'acuityEmpty'],
    ['sharp', 'acuityShape'],
    ['20/', 'acuityShape'],
    ['0', 'acuityShape'],
    ['20/0', 'acuityShape'],
    ['20/50000', 'acuityOutOfRange'],
    ['30/20', 'acuityShape'],
  ])('%s is %s', (text, code) => {
    expect(parseAcuity(text, 'feet')).toMatchObject({ ok: false, error: { code } });
  });
});

describe('acuity as written', () => {
  it.each([
    [0, 'feet', '20/20'],
    [0.04, 'feet', '20/20−2'],
    [0.1, 'metres', '6/7.5'],
    [0.3, 'metres', '6/12'],
    [0.3, 'decimal', '0.50'],
    [-0.1, 'logMAR', '−0.10'],
    [1, 'feet', '20/200'],
  ] as const)('%d in %s is %s', (value, notation, text) => {
    expect(formatAcuity(value, notation)).toBe(text);
  });
  it('what is written in feet or metres reads back to the letter', () => {
    fc.assert(
      fc.property(fc.integer({ min: -14, max: 80 }), fc.constantFrom('feet' as const, 'metres' as const), (letters, notation) => {
        const acuity = letters / 50;
        const read = parseAcuity(formatAcuity(acuity, notation), notation);
        // Chart lines are preferred numbers: 20/63 is 0.498, not 0.5.
        expect(read.ok && Math.abs(read.value - acuity)).toBeLessThan(0.011);
      }),
    );
  });
  it('two lines are 0.20 logMAR', () => {
    expect(linesGained(0.3, 0.1)).toBe(2);
    expect(linesGained(0, 0.1)).toBe(-1);
  });
});
