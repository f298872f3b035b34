import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  DEFAULT_SETTINGS,
  eyeVerdict,
  powerOnEye,
  seriesStats,
  toCornealPlane,
  toPowerVector,
  weightedNeed,
  type EyeMeasurements,
  type LensFamily,
  type Refraction,
} from '../index';

const r = (sphere: number, cylinder = 0, axis = 180): Refraction => ({ sphere, cylinder, axis });
const at12 = (power: Refraction) => ({ power, vertexMm: 12 });
const still = (turn: number) => seriesStats([turn, turn, turn], 2);
const eye = (change: Partial<EyeMeasurements>): EyeMeasurements => ({
  refraction: null,
  lens: null,
  turn: null,
  recovery: null,
  early: false,
  overRefraction: null,
  nearPlus: 0,
  tried: null,
  rules: DEFAULT_SETTINGS,
  ...change,
});

describe('a spherical over-refraction measures the mean power alone', () => {
  // Values computed for 12 mm: thin lenses, the sphere decides M, the refraction J0 and J45.
  it.each([
    [r(-3.25, -1.75, 20), r(-3, -1.75, 20), 10, r(0), r(-3.08, -1.59, 20), 30],
    [r(-3, -1.25, 180), r(-3, -1.25, 170), -20, r(0.25), r(-2.8, -1.15, 180), 160],
    [r(-4.5, -1.25, 165), r(-4.25, -1.25, 160), -12, r(0.5), r(-3.82, -1.11, 165), 153],
    [r(2, -2.25, 95), r(2, -2.25, 90), 8, r(-0.25), r(1.77, -2.3, 95), 103],
  ])('%j through %j turned %d with %j', (refraction, lens, turn, over, need, orderAxis) => {
    const v = eyeVerdict(eye({ refraction: at12(refraction), lens, turn: still(turn), overRefraction: at12(over) }));
    expect(v.need?.sphere).toBeCloseTo(need.sphere, 2);
    expect(v.need?.cylinder).toBeCloseTo(need.cylinder, 2);
    expect(v.need?.axis).toBeCloseTo(need.axis, 6);
    expect(v.order?.axis).toBeCloseTo(orderAxis, 6);
    expect(v).toMatchObject({ parts: 'mean', cylinderFrom: 'refraction', noOrder: null, routes: { agree: true, gate: 0.5 } });
  });
  it('the third lies 0.45 D of mean power apart, the fourth 0.27 towards minus', () => {
    const third = eyeVerdict(eye({ refraction: at12(r(-4.5, -1.25, 165)), lens: r(-4.25, -1.25, 160), turn: still(-12), overRefraction: at12(r(0.5)) }));
    expect(third.routes?.towardsPlus).toBeCloseTo(0.45, 2);
    const fourth = eyeVerdict(eye({ refraction: at12(r(2, -2.25, 95)), lens: r(2, -2.25, 90), turn: still(8), overRefraction: at12(r(-0.25)) }));
    expect(fourth.routes?.towardsPlus).toBeCloseTo(-0.27, 2);
  });
  it('whatever the trial, its axis and its turn: a sphere never moves the cylinder or axis of the refraction', () => {
    const power = fc.record({
      sphere: fc.integer({ min: -30, max: 16 }).map((n) => n / 4),
      cylinder: fc.integer({ min: -10, max: -3 }).map((n) => n / 4),
      axis: fc.integer({ min: 1, max: 180 }),
    });
    fc.assert(
      fc.property(power, power, fc.integer({ min: -30, max: 30 }), fc.integer({ min: -8, max: 8 }), (refraction, lens, turn, quarters) => {
        const v = eyeVerdict(eye({ refraction: at12(refraction), lens, turn: still(turn), overRefraction: at12(r(quarters / 4)), picked: 'overRefraction' }));
        const asked = toPowerVector(toCornealPlane(refraction, 12));
        const need = toPowerVector(v.need ?? r(99));
        expect(need.j0).toBeCloseTo(asked.j0, 9);
        expect(need.j45).toBeCloseTo(asked.j45, 9);
        const over = toCornealPlane(r(quarters / 4), 12).sphere;
        expect(need.m).toBeCloseTo(toPowerVector(powerOnEye(lens, turn)).m + over, 9);
      }),
    );
  });
  it('without a refraction the lens as it lay stands in for the cylinder', () => {
    const v = eyeVerdict(eye({ lens: r(-3, -1.75, 20), turn: still(10), overRefraction: at12(r(0)) }));
    expect(v).toMatchObject({ cylinderFrom: 'lens', routes: null });
    expect(v.need?.axis).toBeCloseTo(10, 9);
  });
  it('a cylinder of 0.25, and one that gained no line, are noise', () => {
    const base = { refraction: at12(r(-3.25, -1.75, 20)), lens: r(-3, -1.75, 20), turn: still(10) };
    expect(eyeVerdict(eye({ ...base, overRefraction: at12(r(0, -0.25, 70)) })).parts).toBe('mean');
    expect(eyeVerdict(eye({ ...base, overRefraction: at12(r(0.25, -0.5, 70)) })).parts).toBe('all');
    expect(eyeVerdict(eye({ ...base, overRefraction: at12(r(0.25, -0.5, 70)), gainsLine: false })).parts).toBe('mean');
    expect(eyeVerdict(eye({ ...base, overRefraction: at12(r(0.25, -0.5, 70)), gainsLine: true })).parts).toBe('all');
  });
  it('the expected over-refraction is a sphere beside one that measured no more', () => {
    const base = { refraction: at12(r(-3.25, -1.75, 20)), lens: r(-3, -1.75, 20), turn: still(10) };
    expect(eyeVerdict(eye({ ...base, overRefraction: at12(r(0)) })).expectedOverRefraction?.cylinder).toBe(0);
    expect(eyeVerdict(eye(base)).expectedOverRefraction?.cylinder).toBeLessThan(-0.4);
  });
  it('the lens is put where it lay when the over-refraction was taken, the order where it sits now', () => {
    const v = eyeVerdict(eye({ refraction: null, lens: r(-3, -1.75, 20), turn: still(0), overTurn: 10, overRefraction: at12(r(0.25, -0.5, 70)) }));
    expect(v.need?.axis).toBeCloseTo(18, 0);
    expect(v.order?.axis).toBeCloseTo(18, 0);
  });
});

describe('measure again, and what frees it', () => {
  const plus = { refraction: at12(r(-3)), lens: r(-3), overRefraction: at12(r(0.75)) };
  const minus = { ...plus, overRefraction: at12(r(-0.75)) };
  it('an uncorrected +0.75 is asked about, at any age', () => {
    expect(eyeVerdict(eye({ ...plus, age: 15 }))).toMatchObject({ noOrder: 'routesDisagree', order: null, routes: { parts: 'mean', gate: 0.5 } });
    expect(eyeVerdict(eye(plus)).noOrder).toBe('routesDisagree');
  });
  it('a mean power takes no noise from the turn', () => {
    const turned = { refraction: at12(r(-3, -2.25, 180)), lens: r(-3, -2.25, 180), turn: seriesStats([0, 6, -6, 4, -4], 2), overRefraction: at12(r(0.75)) };
    expect(eyeVerdict(eye(turned)).routes?.gate).toBe(0.5);
    const all = eyeVerdict(eye({ ...turned, overRefraction: at12(r(0.75, -0.5, 90)) }));
    // Twice the noise of both (0.25, 0.18 in M; 0.12, 0.10 in each J) and of C·sin(5.1°): computed.
    expect(all.routes?.gate).toBeCloseTo(2 * Math.hypot(0.25, 0.18, 0.12, 0.12, 0.1, 0.1, 2.25 * Math.sin((5.099 * Math.PI) / 180)), 3);
  });
  it('a sphere read through uncorrected cylinder is taken less strictly: half of it lies to either side', () => {
    const v = eyeVerdict(eye({ refraction: at12(r(-3, -2, 90)), lens: r(-4), overRefraction: at12(r(0)) }));
    expect(v.routes?.gate).toBeCloseTo(Math.hypot(0.36, -toCornealPlane(r(-3, -2, 90), 12).cylinder / 2), 2);
  });
  it('towards plus: a second over-refraction within 0.25, the more plus of the two decides', () => {
    const again = (first: number) => eyeVerdict(eye({ ...plus, overBefore: [{ ...at12(r(first)), turn: null }] }));
    expect(again(1)).toMatchObject({ freed: 'repeated', noOrder: null });
    expect(again(1).need?.sphere).toBeCloseTo(-3 + toCornealPlane(r(1), 12).sphere, 9);
    expect(again(0.5).need?.sphere).toBeCloseTo(-3 + toCornealPlane(r(0.75), 12).sphere, 9);
    expect(again(0.25)).toMatchObject({ freed: null, noOrder: 'routesDisagree' });
    expect(again(1.25).freed).toBeNull();
  });
  it('towards minus repetition is not enough: a gained line with fogging or balance', () => {
    const of = (change: Partial<EyeMeasurements>) => eyeVerdict(eye({ ...minus, ...change })).freed;
    expect(of({ overBefore: [{ ...at12(r(-0.75)), turn: null }] })).toBeNull();
    expect(of({ gainsLine: true })).toBeNull();
    expect(of({ gainsLine: true, control: 'fogging' })).toBe('gainedLine');
    expect(of({ gainsLine: true, control: 'balance' })).toBe('gainedLine');
    expect(of({ gainsLine: false, control: 'balance' })).toBeNull();
    expect(of({ control: 'cycloplegia' })).toBeNull();
  });
  it('under 18 only cycloplegia', () => {
    const of = (control: 'fogging' | 'balance' | 'cycloplegia') => eyeVerdict(eye({ ...minus, age: 17, gainsLine: true, control })).freed;
    expect([of('fogging'), of('balance'), of('cycloplegia')]).toEqual([null, null, 'gainedLine']);
  });
  it('a prescriber picks one; without a disagreement a pick changes nothing', () => {
    const picked = (which: 'refraction' | 'overRefraction') => eyeVerdict(eye({ ...plus, picked: which }));
    expect(picked('refraction').need?.sphere).toBeCloseTo(toCornealPlane(r(-3), 12).sphere, 9);
    expect(picked('refraction').basis).toBe('refraction');
    expect(picked('overRefraction').need?.sphere).toBeCloseTo(-3 + toCornealPlane(r(0.75), 12).sphere, 9);
    const fine = { ...plus, overRefraction: at12(r(0.25)) };
    expect(eyeVerdict(eye({ ...fine, picked: 'refraction' }))).toEqual(eyeVerdict(eye(fine)));
  });
  it('the weighted mean lies between the two, nearer the one with less noise', () => {
    const both = { fromRefraction: r(-3), fromOverRefraction: r(-2), parts: 'mean' as const };
    // Weights 1/0.25² and 1/0.18²: computed.
    expect(weightedNeed(both).need.sphere).toBeCloseTo(-3 + 0.0625 / (0.0625 + 0.0324), 9);
    expect(weightedNeed(both).meanSd).toBeCloseTo(0.1461, 4);
  });
});

describe('verdict and order never contradict each other', () => {
  const family: LensFamily = {
    name: 'Tens',
    geometry: 'toric',
    blocks: [
      {
        spheres: { from: -9, to: 6, step: 0.25 },
        cylinders: [-0.75, -1.25, -1.75, -2.25],
        axes: { from: 10, to: 180, step: 10 },
        adds: [null],
        curves: [{ baseCurve: 8.6, diameter: 14.2 }],
      },
    ],
  };
  const tried = { family, baseCurve: 8.6, diameter: 14.2 };
  it('left alone is ordered without the turn, compensated with it', () => {
    const needs = fc.record({
      sphere: fc.integer({ min: -24, max: 12 }).map((n) => n / 4),
      cylinder: fc.integer({ min: -9, max: -3 }).map((n) => n / 4),
      axis: fc.integer({ min: 1, max: 180 }),
    });
    fc.assert(
      fc.property(needs, fc.integer({ min: -30, max: 30 }), (refraction, turn) => {
        const v = eyeVerdict(eye({ refraction: at12(refraction), lens: refraction, turn: still(turn), tried }));
        if (v.rotation?.code === 'leave') expect(v.order).toEqual(v.need);
        else expect(((((v.order?.axis ?? 0) - (v.need?.axis ?? 0) - turn) % 180) + 180) % 180).toBeCloseTo(0, 6);
      }),
    );
  });
  it('fewer than three blinks give no order, but say what overriding would bring', () => {
    const v = eyeVerdict(eye({ refraction: at12(r(-3, -1.75, 20)), lens: r(-3, -1.75, 20), turn: seriesStats([10, 10], 2), tried }));
    expect(v).toMatchObject({ noOrder: 'fewBlinks', order: null, rotation: { code: 'provisional', why: 'few' } });
    expect(v.orderDespite?.axis).toBeCloseTo(30, 9);
  });
  it('a need without cylinder does not wait for blinks', () => {
    expect(eyeVerdict(eye({ refraction: at12(r(-3)), lens: r(-3), turn: seriesStats([10], 2), tried })).noOrder).toBeNull();
  });
});
