import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addToRecord,
  tableAdd,
  estimatedAdd,
  fromPowerCross,
  largeChange,
  minimumAmplitude,
  parseAdd,
  parsePowerCross,
  powerDistance,
  probablySwapped,
  ruleOfThumb,
  splitPrism,
  toCornealPlane,
  toPowerVector,
  type Refraction,
} from '../index';

const sphere = (power: number): Refraction => ({ sphere: power, cylinder: 0, axis: 180 });
const anyPower = fc.record({
  sphere: fc.integer({ min: -40, max: 32 }).map((q) => q / 4),
  cylinder: fc.integer({ min: -16, max: 0 }).map((q) => q / 4),
  axis: fc.integer({ min: 1, max: 180 }),
});

describe('near additions', () => {
  // Hofstetter 1950, from memory: the minimum line is 10, 5 and 0 D at 20, 40 and 60.
  it.each([
    [20, 10],
    [40, 5],
    [60, 0],
    [72, 0],
  ])('at %d the least amplitude is %d D', (age, amplitude) => expect(minimumAmplitude(age)).toBe(amplitude));
  it.each([
    [45, 0.625],
    [50, 1.25],
    [55, 1.875],
    [60, 2.5],
    [30, 0],
  ])('at %d about %d D of add for 40 cm (computed)', (age, add) => expect(estimatedAdd(age)).toBeCloseTo(add, 9));
  it('is recorded in quarters, none where none is needed', () => {
    expect([30, 45, 50, 55, 70].map((age) => addToRecord(age, 'minimumAmplitude'))).toEqual([null, 0.75, 1.25, 2, 2.5]);
  });
  // The trade's table for 40 cm, from memory.
  it.each([
    [45, 1],
    [48, 1.5],
    [50, 1.75],
    [55, 2.25],
    [60, 2.5],
    [72, 2.5],
    [30, null],
  ])('by the trade’s table at %d: %s', (age, add) => expect(addToRecord(age)).toBe(add));
  it('a nearer task asks for more, a farther one for less', () => {
    expect(tableAdd(55, 1 / 0.33)).toBeCloseTo(2.25 + 1 / 0.33 - 2.5, 9);
    expect(tableAdd(55, 1 / 0.6)).toBeCloseTo(2.25 + 1 / 0.6 - 2.5, 9);
    expect(tableAdd(45, 0.5)).toBe(0);
  });
  it('the table never gives less than the least amplitude does', () => {
    for (let age = 45; age <= 60; age++) expect(tableAdd(age)).toBeGreaterThanOrEqual(estimatedAdd(age) - 1e-9);
  });
  it.each([
    ['+1.75', 1.75],
    ['1,75', 1.75],
    ['175', 1.75],
    ['2', 2],
    ['2.25 D', 2.25],
  ])('reads %s', (typed, add) => expect(parseAdd(typed)).toEqual({ ok: true, value: add }));
  it.each([
    ['-1.00', 'addNotANumber'],
    ['one', 'addNotANumber'],
    ['5', 'addOutOfRange'],
    ['0', 'addOutOfRange'],
  ])('refuses %s', (typed, code) => expect(parseAdd(typed)).toMatchObject({ ok: false, error: { code } }));
  it('offers the nearest quarter', () => expect(parseAdd('1.6')).toMatchObject({ ok: false, error: { code: 'addOffStep', repairs: ['+1.50'] } }));
});

describe('the rule of thumb (common practice)', () => {
  it('a quarter, a half, three quarters, one at 4, 6, 8, 10 D; nothing below', () => {
    expect([-4, -6, -8, -10, 4, 6, -3.75, 2].map(ruleOfThumb)).toEqual([-3.75, -5.5, -7.25, -9, 4.25, 6.5, null, null]);
  });
  it('stays within an eighth of the exact value for minus at 12 mm to −10, and is far off at +10 (computed)', () => {
    for (const power of [-4, -6, -8, -10]) expect(Math.abs((ruleOfThumb(power) ?? 0) - toCornealPlane(sphere(power), 12).sphere)).toBeLessThan(0.125);
    expect(toCornealPlane(sphere(10), 12).sphere - (ruleOfThumb(10) ?? 0)).toBeCloseTo(0.36, 2);
  });
});

describe('a power cross', () => {
  it('is the same whichever power is written first', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }), fc.integer({ min: 1, max: 180 }), (a, b, along) => {
        const other = along > 90 ? along - 90 : along + 90;
        const [first, second] = [`${(a / 4).toFixed(2)} @ ${along}`, `${(b / 4).toFixed(2)} @ ${other}`];
        const read = parsePowerCross(`${first} / ${second}`);
        const back = parsePowerCross(`${second} / ${first}`);
        if (!read || !back) throw new Error('not read');
        const [v, w] = [toPowerVector(read), toPowerVector(back)];
        for (const part of ['m', 'j0', 'j45'] as const) expect(v[part]).toBeCloseTo(w[part], 9);
        // Power along a meridian: sphere + cylinder · sin² of the angle from the axis (standard formula).
        const alongPower = (r: Refraction, at: number): number => r.sphere + r.cylinder * Math.sin(((at - r.axis) * Math.PI) / 180) ** 2;
        expect(alongPower(read, along)).toBeCloseTo(a / 4, 9);
        expect(alongPower(read, other)).toBeCloseTo(b / 4, 9);
      }),
    );
  });
  it('is null for what is none', () => {
    for (const text of ['', '-1.00', '-1.00 @ 180', '-1 @ 180 / -2 @ 90 / -3 @ 45', '-1 @ 200 / -2 @ 110', '-99 @ 180 / -2 @ 90'])
      expect(parsePowerCross(text)).toBeNull();
    expect(parsePowerCross('-1.00 @ 0 / -2.25 @ 90')).toEqual(fromPowerCross({ power: -1, along: 180 }, { power: -2.25, along: 90 }));
  });
});

describe('doubts about a refraction (our own)', () => {
  it('eyes that changed places are seen, eyes that changed a little are not', () => {
    const before = { right: { sphere: -2, cylinder: -0.5, axis: 90 }, left: { sphere: -4.25, cylinder: -1, axis: 10 } };
    expect(probablySwapped({ right: before.left, left: before.right }, before)).toBe(true);
    expect(probablySwapped({ right: { ...before.right, sphere: -2.5 }, left: { ...before.left, sphere: -4.5 } }, before)).toBe(false);
    expect(probablySwapped({ right: before.right, left: null }, before)).toBe(false);
  });
  it('never both as they stand and crossed over', () => {
    fc.assert(
      fc.property(anyPower, anyPower, anyPower, anyPower, (a, b, c, d) => {
        const before = { right: c, left: d };
        expect(probablySwapped({ right: a, left: b }, before) && probablySwapped({ right: b, left: a }, before)).toBe(false);
      }),
    );
  });
  it('a change is a distance: none to itself, the same both ways, never longer by a way round', () => {
    fc.assert(
      fc.property(anyPower, anyPower, anyPower, (a, b, c) => {
        expect(powerDistance(a, a)).toBeCloseTo(0, 9);
        expect(powerDistance(a, b)).toBeCloseTo(powerDistance(b, a), 9);
        expect(powerDistance(a, c)).toBeLessThanOrEqual(powerDistance(a, b) + powerDistance(b, c) + 1e-9);
      }),
    );
    expect(largeChange(sphere(-3), sphere(-2))).toBeCloseTo(1, 9);
    expect(largeChange(sphere(-3), sphere(-2.25))).toBeNull();
  });
  it('prism is taken out and named; what has none is untouched', () => {
    expect(splitPrism('-1.00 3Δ BI 1 BU')).toEqual({ power: '-1.00', prism: '3Δ BI, 1 BU' });
    fc.assert(
      fc.property(anyPower, (p) => {
        expect(splitPrism(`${p.sphere.toFixed(2)} ${p.cylinder.toFixed(2)} x ${p.axis}`).prism).toBeNull();
      }),
    );
  });
});
