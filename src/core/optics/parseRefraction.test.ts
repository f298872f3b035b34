import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatRefraction, parseRefraction, type Refraction } from '../index';

const r = (sphere: number, cylinder: number, axis: number): Refraction => ({ sphere, cylinder, axis });

describe('reading a prescription (notation and shorthand: common practice)', () => {
  it.each([
    ['-3.25 -1.75 x 20', r(-3.25, -1.75, 20)],
    ['-3.25/-1.75×020', r(-3.25, -1.75, 20)],
    ['-4.50/-1.25x165', r(-4.5, -1.25, 165)],
    ['-325 -175 20', r(-3.25, -1.75, 20)],
    ['-325-175x20', r(-3.25, -1.75, 20)],
    ['−3,25 −1,75 × 20', r(-3.25, -1.75, 20)],
    ['+0.25 −0.50 × 70', r(0.25, -0.5, 70)],
    ['-5.00 +1.75 x 110', r(-3.25, -1.75, 20)],
    ['plano', r(0, 0, 180)],
    ['pl', r(0, 0, 180)],
    ['pl -1.00 x 90', r(0, -1, 90)],
    ['+0.50 DS', r(0.5, 0, 180)],
    ['-2.00', r(-2, 0, 180)],
    ['-2', r(-2, 0, 180)],
    ['-25', r(-0.25, 0, 180)],
    ['+1250', r(12.5, 0, 180)],
    ['-3.25 -1.75 @ 20°', r(-3.25, -1.75, 20)],
    ['-3.25 -1.75 axis 180', r(-3.25, -1.75, 180)],
    ['3.25 -1.75 x 20', r(3.25, -1.75, 20)],
  ])('%s', (text, power) => {
    const read = parseRefraction(text);
    expect(read.ok && read.value).toEqual(power);
  });
  it('axis 0 is read as 180, and says so', () => {
    const read = parseRefraction('-1.00 -0.75 x 0');
    expect(read).toMatchObject({ ok: true, value: { axis: 180 }, notes: [{ code: 'axisZeroRead180', asks: false }] });
  });
  it('plus cylinder is transposed, and says so', () => {
    expect(parseRefraction('-5.00 +1.75 x 110')).toMatchObject({ notes: [{ code: 'transposed' }] });
  });
  it.each([
    ['', 'empty', []],
    ['abc', 'notANumber', []],
    ['-3.o0', 'notANumber', []],
    ['-3.2.5', 'notANumber', []],
    ['300', 'bareNumber', ['−3.00', '+3.00']],
    ['-3.1', 'sphereOffStep', ['−3.00', '−3.25']],
    ['3.1', 'sphereOffStep', ['+3.00', '+3.25']],
    ['-1.00 -0.75 x 181', 'axisOutOfRange', ['−1.00 −0.75 × 1']],
    ['-1.00 -0.75 x 500', 'axisOutOfRange', []],
    ['-1.00 -0.75 x 20.5', 'axisNotWhole', ['−1.00 −0.75 × 21']],
    ['-1.00 -0.75', 'axisMissing', []],
    ['-1.00 0.75 x 20', 'cylinderNeedsSign', ['−1.00 −0.75 × 20', '−1.00 +0.75 × 20']],
    ['-1.00 x 20', 'cylinderMissing', ['−1.00']],
    ['-1.00 -0.60 x 20', 'cylinderOffStep', ['−1.00 −0.50 × 20']],
    ['-31', 'sphereTooStrong', []],
    ['-1.00 -12.25 x 20', 'cylinderTooStrong', []],
    ['-1 -1 x 20 30', 'tooManyNumbers', []],
  ])('%s is %s', (text, code, repairs) => {
    const read = parseRefraction(text);
    expect(!read.ok && read.error).toMatchObject({ code, repairs });
  });
  it('every repair reads', () => {
    for (const text of ['300', '-3.1', '3.1', '-1.00 0.75 x 20', '-1.00 -0.75 x 181', '-1.00 x 20', '-1.00 -0.60 x 20']) {
      const read = parseRefraction(text);
      const repairs = read.ok ? [] : read.error.repairs;
      expect(repairs.length).toBeGreaterThan(0);
      for (const repair of repairs) expect(parseRefraction(repair).ok, `${text} → ${repair}`).toBe(true);
    }
  });
  it('unlikely powers ask to be kept', () => {
    expect(parseRefraction('-14.00')).toMatchObject({ ok: true, notes: [{ code: 'sphereUnlikely', asks: true }] });
    expect(parseRefraction('-8.00 -7.00 x 90')).toMatchObject({ ok: true, notes: [{ code: 'cylinderUnlikely', asks: true }] });
  });
  it('a power cross is read as one, and said so (common practice)', () => {
    const cross = parseRefraction('-1.00 @ 180 / -2.25 @ 90');
    expect(cross).toMatchObject({ ok: true, value: { sphere: -1, cylinder: -1.25, axis: 180 }, notes: [{ code: 'fromCross', asks: false }] });
    expect(parseRefraction('−2,25 @90, −1,00 @180')).toMatchObject({ ok: true, value: { sphere: -1, cylinder: -1.25, axis: 180 } });
    expect(parseRefraction('-1.00 @ 180 / -2.25 @ 80')).toMatchObject({ ok: false, error: { code: 'crossUnread' } });
    expect(parseRefraction('-1.00 @ 180 / -2.25 @ 90 x 5')).toMatchObject({ ok: false, error: { code: 'crossUnread' } });
  });
  it('a cylinder as strong as its sphere asks whether it was a cross', () => {
    expect(parseRefraction('-3.25 -4.50 x 90')).toMatchObject({ ok: true, notes: [{ code: 'maybeCross', asks: true, instead: '−3.25 −1.25 × 180' }] });
    expect(parseRefraction('-3.25 -1.75 x 20')).toMatchObject({ ok: true, notes: [] });
    expect(parseRefraction('+1.00 -2.50 x 20')).toMatchObject({ ok: true, notes: [] });
  });
  it('prism is kept apart', () => {
    for (const typed of ['-3.25 -1.75 x 20 2Δ BO', '-3.25 -1.75 x 20, 1.5 BU', '-3.25 -1.75 x 20 2 pd base in', '-3.25 -1.75 x 20 2∆']) {
      const read = parseRefraction(typed);
      expect(read).toMatchObject({ ok: true, value: { sphere: -3.25, cylinder: -1.75, axis: 20 } });
      expect(read.ok && read.notes.map((n) => n.code)).toEqual(['prismApart']);
    }
  });
  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (text) => {
        parseRefraction(text);
      }),
      { numRuns: 2000 },
    );
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'+-−.,0123456789 x×@/plano'), maxLength: 24 }), (text) => {
        const read = parseRefraction(text);
        if (read.ok) expect(read.value.axis).toBeGreaterThanOrEqual(1);
      }),
      { numRuns: 2000 },
    );
  });
  it('reads back what is written, in either notation', () => {
    const quarter = (min: number, max: number) => fc.integer({ min: min * 4, max: max * 4 }).map((n) => n / 4 + 0);
    fc.assert(
      fc.property(
        quarter(-30, 18),
        quarter(-12, 0),
        fc.integer({ min: 1, max: 180 }),
        fc.constantFrom('minus' as const, 'plus' as const),
        (sphere, cylinder, axis, notation) => {
          const power = r(sphere, cylinder, cylinder === 0 ? 180 : axis);
          fc.pre(sphere + cylinder >= -30);
          const read = parseRefraction(formatRefraction(power, { notation }));
          expect(read.ok && read.value).toEqual(power);
        },
      ),
    );
  });
  it('writes a true minus and two decimals', () => {
    expect(formatRefraction(r(-3.25, -1.75, 20))).toBe('−3.25 −1.75 × 20');
    expect(formatRefraction(r(0, 0, 180))).toBe('plano');
    expect(formatRefraction(r(-3.25, -1.75, 20), { notation: 'plus' })).toBe('−5.00 +1.75 × 110');
    expect(formatRefraction(r(1.234, -0.5678, 0.3), { decimals: 2 })).toBe('+1.23 −0.57 × 180');
  });
});
