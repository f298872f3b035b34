import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  axisDistance,
  blurBetween,
  compensateAxis,
  DEFAULT_SETTINGS,
  seriesStats,
  eyeVerdict,
  fromPowerVector,
  parseRotation,
  powerOnEye,
  resolveOverRefraction,
  routesAgree,
  subtractVectors,
  toCornealPlane,
  toPowerVector,
  type Refraction,
} from '../index';

const r = (sphere: number, cylinder: number, axis: number): Refraction => ({ sphere, cylinder, axis });
const left = (degrees: number): number => degrees;
const right = (degrees: number): number => -degrees;
const residual = (need: Refraction, lens: Refraction): Refraction => fromPowerVector(subtractVectors(toPowerVector(need), toPowerVector(lens)));

describe('left add, right subtract (common practice)', () => {
  it.each([
    [15, right(20), 175],
    [180, left(10), 10],
    [90, left(15), 105],
    [172, left(12), 4],
    [5, right(10), 175],
    [180, 0, 180],
  ])('axis %d turned %d is ordered at %d', (axis, turn, order) => {
    expect(compensateAxis(axis, turn)).toBe(order);
  });
  it('a lens ordered so lies where the eye asks', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 180 }), fc.integer({ min: -90, max: 90 }), (axis, turn) => {
        expect(axisDistance(powerOnEye(r(-1, -1, compensateAxis(axis, turn)), turn).axis, axis)).toBeCloseTo(0, 9);
      }),
    );
  });
  it('a turn by 180° changes nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 180, noNaN: true }), fc.double({ min: -90, max: 90, noNaN: true }), (axis, turn) => {
        expect(axisDistance(compensateAxis(axis, turn + 180), compensateAxis(axis, turn))).toBeCloseTo(0, 9);
      }),
    );
  });
  it('the order’s axis does not depend on the axis of the trial: 10 and 170 alike', () => {
    for (const trialAxis of [10, 170]) {
      const turn = right(10);
      const lens = r(-2, -1.25, trialAxis);
      const need = r(-2, -1.25, 5);
      const over = residual(need, powerOnEye(lens, turn));
      const resolved = resolveOverRefraction({ lens, rotationLeft: turn, overRefraction: over, vertexMm: 0 });
      expect(resolved.order.axis).toBeCloseTo(175, 6);
    }
  });
});

describe('what a turned toric leaves', () => {
  // Source: residual 2·C·sin θ, obliquely crossed cylinders; values computed.
  it.each([
    [5, 0.174],
    [10, 0.347],
    [15, 0.518],
    [20, 0.684],
    [30, 1],
    [45, 1.414],
  ])('1.00 D at %d° leaves %d D of cylinder', (degrees, cylinder) => {
    expect(Math.abs(residual(r(0, -1, 180), powerOnEye(r(0, -1, 180), left(degrees))).cylinder)).toBeCloseTo(cylinder, 3);
  });
  it('−2.25 × 180 with the mark 10 left leaves +0.39 −0.78 × 40, 10 right × 140', () => {
    const leftover = residual(r(0, -2.25, 180), powerOnEye(r(0, -2.25, 180), left(10)));
    expect(leftover.sphere).toBeCloseTo(0.39, 2);
    expect(leftover.cylinder).toBeCloseTo(-0.78, 2);
    expect(leftover.axis).toBeCloseTo(40, 6);
    expect(residual(r(0, -2.25, 180), powerOnEye(r(0, -2.25, 180), right(10))).axis).toBeCloseTo(140, 6);
  });
});

describe('over-refraction through a turned lens', () => {
  // Source: thin lenses, obliquely crossed cylinders; values computed at 12 mm.
  it.each([
    ['−1.50 stabilised, 8 left', r(-1.5, 0, 180), left(8), r(0.25, -1.25, 112), r(-1.25, -1.24, 112), 120],
    ['plano, 15 left', r(0, 0, 180), left(15), r(-4.5, -3, 35), r(-4.27, -2.61, 35), 50],
    ['−2.75 −1.25 × 165, 12 left', r(-2.75, -1.25, 165), left(12), r(0.5, -0.75, 60), r(-2.99, -0.51, 157.45), 169.45],
    ['the same, 12 right', r(-2.75, -1.25, 165), right(12), r(0.5, -0.75, 60), r(-2.74, -1.01, 15.5), 3.5],
    ['−3.00 −1.75 × 20, 10 left', r(-3, -1.75, 20), left(10), r(0.25, -0.5, 70), r(-3.09, -1.56, 18), 28],
  ])('%s', (_name, lens, rotationLeft, overRefraction, need, orderAxis) => {
    const made = resolveOverRefraction({ lens, rotationLeft, overRefraction, vertexMm: 12 });
    expect(made.need.sphere).toBeCloseTo(need.sphere, 1);
    expect(Math.abs(made.need.sphere - need.sphere)).toBeLessThan(0.0051);
    expect(Math.abs(made.need.cylinder - need.cylinder)).toBeLessThan(0.0051);
    expect(Math.abs(made.need.axis - need.axis)).toBeLessThan(0.5);
    expect(Math.abs(made.order.axis - orderAxis)).toBeLessThan(0.5);
  });
  it('the turn is counted once: ordering the result, seated the same way, gives what the eye needs', () => {
    const arb = fc.record({
      sphere: fc.integer({ min: -40, max: 20 }).map((n) => n / 4),
      cylinder: fc.integer({ min: -10, max: -3 }).map((n) => n / 4),
      axis: fc.integer({ min: 1, max: 180 }),
    });
    fc.assert(
      fc.property(arb, arb, fc.integer({ min: -40, max: 40 }), (lens, over, turn) => {
        const made = resolveOverRefraction({ lens, rotationLeft: turn, overRefraction: over, vertexMm: 12 });
        expect(blurBetween(powerOnEye(made.order, turn), made.need)).toBeCloseTo(0, 8);
      }),
    );
  });
});

describe('do the two routes agree', () => {
  const fromRefraction = toCornealPlane(r(-3.25, -1.75, 20), 12);
  const through = (over: Refraction): Refraction =>
    resolveOverRefraction({ lens: r(-3, -1.75, 20), rotationLeft: left(10), overRefraction: over, vertexMm: 12 }).need;
  it('+0.25 −0.50 × 70 agrees, 0.07 D apart', () => {
    const verdict = routesAgree({ fromRefraction, fromOverRefraction: through(r(0.25, -0.5, 70)), lensCylinder: -1.75, rotationSd: 2 });
    expect(verdict.gap).toBeCloseTo(0.07, 2);
    expect(verdict.agree).toBe(true);
  });
  it('−0.75 −0.75 × 160 does not, 1.25 D apart', () => {
    const verdict = routesAgree({ fromRefraction, fromOverRefraction: through(r(-0.75, -0.75, 160)), lensCylinder: -1.75, rotationSd: 2 });
    expect(verdict.gap).toBeCloseTo(1.25, 2);
    expect(verdict.agree).toBe(false);
  });
  it('a strong cylinder read by eye widens the gate', () => {
    expect(routesAgree({ fromRefraction, fromOverRefraction: fromRefraction, lensCylinder: -5, rotationSd: 5 }).gate).toBeGreaterThan(0.5);
  });
  it('no order is offered while they disagree', () => {
    const eye = {
      refraction: { power: r(-3.25, -1.75, 20), vertexMm: 12 },
      lens: r(-3, -1.75, 20),
      turn: seriesStats([10, 10, 10], 2),
      recovery: null,
      early: false,
      nearPlus: 0,
      tried: null,
      rules: DEFAULT_SETTINGS,
    };
    expect(eyeVerdict({ ...eye, overRefraction: { power: r(-0.75, -0.75, 160), vertexMm: 12 } })).toMatchObject({ order: null, basis: null });
    expect(eyeVerdict({ ...eye, overRefraction: { power: r(0.25, -0.5, 70), vertexMm: 12 } })).toMatchObject({ basis: 'overRefraction' });
    expect(eyeVerdict({ ...eye, overRefraction: null }).order?.axis).toBeCloseTo(30, 9);
  });
});

describe('a turn as typed', () => {
  it.each([
    ['10l', 10],
    ['5 r', -5],
    ['left 10', 10],
    ['R12', -12],
    ['0', 0],
    ['10°L', 10],
  ])('%s', (text, value) => {
    expect(parseRotation(text)).toEqual({ ok: true, value });
  });
  it.each([
    ['10', 'needsSide'],
    ['95l', 'outOfRange'],
    ['l10r', 'notARotation'],
    ['ten', 'notARotation'],
    ['', 'empty'],
    ['2.5l', 'notWhole'],
  ])('%s is %s', (text, code) => {
    expect(parseRotation(text)).toMatchObject({ ok: false, error: { code } });
  });
});
