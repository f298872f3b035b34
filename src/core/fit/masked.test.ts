import { describe, expect, it } from 'vitest';
import { DEMO_SETS } from '../../../demo/diagnosticSets';
import {
  axisDistance,
  eyeVerdict,
  formatRefraction,
  lensToOrder,
  seriesStats,
  settleOf,
  type EyeMeasurements,
  type Refraction,
  type RotationRules,
} from '../index';

const heron = DEMO_SETS.find((s) => s.code === 'heron-cone')!;
const rules: RotationRules = {
  readerNoiseDegrees: 2,
  blinkSchool: 'threeThenFive',
  scatterBlur: 0.15,
  recoverySeconds: 60,
  turnOver30: 'changeDesign',
  compensateFrom: 0.12,
  cylinderCap: false,
};
const power = (sphere: number, cylinder = 0, axis = 180): Refraction => ({ sphere, cylinder, axis });
const measured = (of: Refraction) => ({ power: of, vertexMm: 12 });
const through = (lens: Refraction, turn: number, over: Refraction, more: Partial<EyeMeasurements> = {}) =>
  eyeVerdict({
    refraction: null,
    lens,
    turn: seriesStats([turn, turn, turn], 2),
    recovery: null,
    early: false,
    overRefraction: measured(over),
    nearPlus: 0,
    gainsLine: true,
    tried: { family: heron, baseCurve: 8.2, diameter: 14.5 },
    rules,
    ...more,
  });

describe('over a lens that masks an irregular cornea', () => {
  // Computed outside the project from thin lenses at 12 mm, to two decimals.
  it.each([
    ['a stabilised sphere −1.50, mark 8 left, over +0.25 −1.25 × 112', power(-1.5), 8, power(0.25, -1.25, 112), '−1.25 −1.24 × 112', 120, '−1.25 −1.25 × 120'],
    ['a plano lens, mark 15 left, over −4.50 −3.00 × 35', power(0), 15, power(-4.5, -3, 35), '−4.27 −2.61 × 35', 50, '−4.25 −2.75 × 50'],
    [
      '−2.75 −1.25 × 165, mark 12 left, over +0.50 −0.75 × 60',
      power(-2.75, -1.25, 165),
      12,
      power(0.5, -0.75, 60),
      '−2.99 −0.51 × 157',
      169.45,
      '−2.75 −0.75 × 169',
    ],
    ['the same, mark 12 right', power(-2.75, -1.25, 165), -12, power(0.5, -0.75, 60), '−2.74 −1.01 × 15', 3.5, '−2.75 −1.00 × 3'],
  ])('%s', (_name, lens, turn, over, need, axis, order) => {
    const verdict = through(lens, turn, over);
    expect(formatRefraction(verdict.need!)).toBe(need);
    expect(axisDistance(verdict.order!.axis, axis)).toBeLessThan(0.06);
    expect(formatRefraction(lensToOrder(verdict, () => null)!.lens.power)).toBe(order);
  });
  it('the refraction of the bare eye neither counts nor disagrees', () => {
    const far = through(power(-1.5), 8, power(0.25, -1.25, 112), { refraction: measured(power(-9, -6, 40)) });
    expect([far.masked, far.routes, far.fromRefraction, far.noOrder]).toEqual([true, null, null, null]);
    expect(far.need).toEqual(through(power(-1.5), 8, power(0.25, -1.25, 112)).need);
    // Over a lens that masks nothing it does both.
    const regular = through(power(-1.5), 8, power(0.25, -1.25, 112), {
      refraction: measured(power(-9, -6, 40)),
      tried: { family: { ...heron, irregular: false }, baseCurve: 8.2, diameter: 14.5 },
    });
    expect([regular.masked, regular.noOrder]).toEqual([false, 'routesDisagree']);
  });
  it('any turn is allowed for while it is steady (common practice); one that is not is refitted', () => {
    const turned = through(power(-1.5), 40, power(0.25, -1.25, 112));
    expect(turned.rotation?.code).toBe('compensate');
    expect(axisDistance(turned.order!.axis, 152)).toBeLessThan(0.5);
    const loose = through(power(-1.5, -2.25, 180), 0, power(0.25, -1.25, 112), { turn: seriesStats([-20, 15, -10, 18, 0], 2) });
    expect([loose.rotation?.code, loose.order]).toEqual(['refit', null]);
  });
  it('a stabilised sphere stays a lens of its family: no cylinder is none, not another design', () => {
    const verdict = through(power(-1.5), 8, power(-0.5));
    expect(lensToOrder(verdict, () => null)?.lens.power).toEqual(power(-2));
  });
});

describe('two clocks', () => {
  it('the fit settles by its family’s minutes, sight by its own; never before the fit', () => {
    expect(settleOf({ settleMinutes: 10, sightMinutes: 30 })).toEqual({ fit: 10, sight: 30 });
    expect(settleOf({ settleMinutes: 15, sightMinutes: null })).toEqual({ fit: 15, sight: 15 });
    expect(settleOf(undefined)).toEqual({ fit: 15, sight: 15 });
  });
});
