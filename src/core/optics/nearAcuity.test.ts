import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { must } from '../../lib/assert';
import { parseNearAcuity, sizeInM } from './nearAcuity';

const read = (text: string, cm: number): number => {
  const found = parseNearAcuity(text, cm);
  if (!found.ok) throw new Error(found.error.code);
  return must(found.value, text);
};

describe('near acuity is an angle: a size with its distance', () => {
  it.each([
    // 1 M subtends five minutes of arc at one metre; 0.4 M at 40 cm is 20/20: common practice.
    ['0.4M', 40, 0],
    ['M 0.4', 40, 0],
    ['M0,8', 40, 0.3],
    ['1M', 100, 0],
    ['1 m', 40, 0.4],
    // N8 is 1 M: common practice. N5 at 40 cm is about 20/30.
    ['N8', 40, 0.4],
    ['N5', 40, 0.19],
    ['n 5', 33, 0.28],
    ['20/25', 40, 0.1],
    ['6/12', 40, 0.3],
    ['20/20-2', 40, 0.04],
  ])('%s at %d cm', (text, cm, logMar) => {
    expect(read(text, cm)).toBeCloseTo(logMar, 2);
  });
  it.each([
    ['', 'nearAcuityEmpty'],
    ['J2', 'nearAcuityJaeger'],
    ['j 1+', 'nearAcuityJaeger'],
    ['fine', 'nearAcuityShape'],
    ['5', 'nearAcuityShape'],
    ['N0', 'nearAcuityShape'],
    ['N9999', 'acuityOutOfRange'],
  ])('“%s” is not taken: %s', (text, code) => {
    expect(parseNearAcuity(text, 40)).toMatchObject({ ok: false, error: { code } });
  });
  it('twice the distance halves the angle; what is written in M reads back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.4, max: 2, noNaN: true }), fc.integer({ min: 25, max: 50 }), (size, cm) => {
        const near = read(`${size.toFixed(3)}M`, cm);
        expect(near - read(`${size.toFixed(3)}M`, 2 * cm)).toBeCloseTo(Math.log10(2), 1);
        expect(read(`${sizeInM(near, cm)}M`, cm)).toBeCloseTo(near, 1);
      }),
    );
  });
});
