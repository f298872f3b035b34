import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_FAMILIES } from '../../../demo/families';
import {
  blurBetween,
  blurClass,
  compareRanked,
  isMade,
  nearestLenses,
  rangeValues,
  toCornealPlane,
  type LensFamily,
  type LensPower,
  type NearestOptions,
  type Ranked,
  type Refraction,
} from '../index';

const r = (sphere: number, cylinder: number, axis: number): Refraction => ({ sphere, cylinder, axis });
const families: readonly LensFamily[] = DEMO_FAMILIES.map((f) => ({ name: f.name, geometry: f.geometry, blocks: f.blocks }));

/** Every power a family makes, tried one by one: the slow way that the search must equal. */
function enumerate(need: Refraction, family: LensFamily, options: NearestOptions): Ranked[] {
  const { limit = 5, lastAxis, cylinderCap = false, baseCurve, diameter } = options;
  const seen = new Map<string, LensPower>();
  for (const block of family.blocks) {
    const curves = block.curves.filter((c) => (baseCurve === undefined || c.baseCurve === baseCurve) && (diameter === undefined || c.diameter === diameter));
    if (curves.length === 0) continue;
    for (const sphere of rangeValues(block.spheres)) {
      for (const cylinder of block.cylinders) {
        if (cylinderCap && cylinder < need.cylinder - 1e-9) continue;
        for (const axis of cylinder === 0 ? [180] : rangeValues(block.axes)) seen.set(`${sphere}|${cylinder}|${axis}`, { sphere, cylinder, axis });
      }
    }
  }
  return [...seen.values()]
    .map((power) => ({ power, blur: blurBetween(need, power) }))
    .sort((a, b) => compareRanked(a, b, lastAxis))
    .slice(0, limit);
}

const anyNeed = fc
  .record({
    sphere: fc.double({ min: -14, max: 10, noNaN: true }),
    cylinder: fc.double({ min: -5, max: 0, noNaN: true }),
    axis: fc.double({ min: 0.01, max: 180, noNaN: true }),
  })
  .map(({ sphere, cylinder, axis }) => r(sphere, cylinder, cylinder === 0 ? 180 : axis));
const anyOptions = fc.record({
  limit: fc.integer({ min: 1, max: 7 }),
  cylinderCap: fc.boolean(),
  lastAxis: fc.option(fc.integer({ min: 1, max: 180 }), { nil: undefined }),
});

it('an axis that is made, asked for but for the rounding of an angle sum, is found', () => {
  const family: LensFamily = {
    name: 'every degree',
    geometry: 'toric',
    blocks: [
      {
        spheres: { from: -2, to: 0, step: 0.25 },
        cylinders: [0, -1.25],
        axes: { from: 1, to: 180, step: 1 },
        adds: [null],
        curves: [{ baseCurve: 8.6, diameter: 14.4 }],
      },
    ],
  };
  for (let axis = 1; axis <= 180; axis++)
    for (const off of [-2e-14, 2e-14]) expect(nearestLenses({ sphere: -1.25, cylinder: -1.25, axis: axis + off }, family)[0]?.power.axis).toBe(axis);
});

describe('the nearest makeable lens', () => {
  it('an axis that is made and asked for, but for the rounding of a sum of angles, is found', () => {
    const everyDegree: LensFamily = {
      name: 'every degree',
      geometry: 'toric',
      blocks: [
        {
          spheres: { from: -2, to: 0, step: 0.25 },
          cylinders: [0, -1.25],
          axes: { from: 1, to: 180, step: 1 },
          adds: [null],
          curves: [{ baseCurve: 8.6, diameter: 14.4 }],
        },
      ],
    };
    for (let axis = 1; axis <= 180; axis++) {
      for (const off of [-2e-14, 2e-14]) {
        expect(nearestLenses({ sphere: -1.25, cylinder: -1.25, axis: axis + off }, everyDegree)[0]?.power.axis).toBe(axis);
      }
    }
  });
  it.each(families.map((f) => [f.name, f] as const))(
    'equals trying every lens: %s',
    (_name, family) => {
      fc.assert(
        fc.property(anyNeed, anyOptions, (need, { lastAxis, ...rest }) => {
          const options: NearestOptions = { ...rest, ...(lastAxis === undefined ? {} : { lastAxis }) };
          const fast = nearestLenses(need, family, options);
          const slow = enumerate(need, family, options);
          expect(fast.map((x) => x.power)).toEqual(slow.map((x) => x.power));
          fast.forEach((x, i) => expect(x.blur).toBeCloseTo(slow[i]?.blur ?? NaN, 9));
        }),
        { numRuns: family.name.includes('Made') ? 6 : 40 },
      );
    },
    60_000,
  );

  // Source: least blur strength; values computed.
  const family: LensFamily = {
    name: 'tens',
    geometry: 'toric',
    blocks: [
      {
        spheres: { from: -6, to: 2, step: 0.25 },
        cylinders: [-0.75, -1.25, -1.75],
        axes: { from: 10, to: 180, step: 10 },
        adds: [null],
        curves: [{ baseCurve: 8.6, diameter: 14.2 }],
      },
    ],
  };
  const need = toCornealPlane(r(-3.25, -1.75, 20), 12);
  it('need −3.13 −1.59 × 20 takes −3.00 −1.75 × 20', () => {
    const [best] = nearestLenses(need, family);
    expect(best?.power).toEqual(r(-3, -1.75, 20));
    expect(best?.blur).toBeCloseTo(0.093, 3);
  });
  it('with the cylinder cap −3.25 −1.25', () => {
    const [best] = nearestLenses(need, family, { cylinderCap: true });
    expect(best?.power).toMatchObject({ sphere: -3.25, cylinder: -1.25 });
    expect(best?.blur).toBeCloseTo(0.176, 3);
  });
  it('need × 165: 160 and 170 tie, the twin is shown, and the last axis worn decides', () => {
    const tied = toCornealPlane(r(-4.5, -1.25, 165), 12);
    const [first, second] = nearestLenses(tied, family);
    expect([first?.power.axis, second?.power.axis]).toEqual([160, 170]);
    expect(first?.blur).toBeCloseTo(0.134, 3);
    expect(second?.tiesWithPrevious).toBe(true);
    expect(nearestLenses(tied, family, { lastAxis: 175 })[0]?.power.axis).toBe(170);
  });
  it('powers never tie towards minus: every odd quarter of cylinder', () => {
    const sphere: LensFamily = {
      name: 'sphere',
      geometry: 'sphere',
      blocks: [
        {
          spheres: { from: -10, to: 6, step: 0.25 },
          cylinders: [0],
          axes: { from: 180, to: 180, step: 10 },
          adds: [null],
          curves: [{ baseCurve: 8.4, diameter: 14 }],
        },
      ],
    };
    for (let s = -8; s <= 4; s += 0.25) {
      for (const c of [-0.25, -0.75, -1.25]) {
        const [best, twin] = nearestLenses(r(s, c, 90), sphere);
        expect(blurClass(best?.blur ?? 0)).toBe(blurClass(twin?.blur ?? 1));
        expect(best?.power.sphere).toBe(s + c / 2 + 0.125);
      }
    }
  });
  it('a filter on curve or diameter leaves only powers made so', () => {
    const made = families.find((f) => f.name === 'Sanderling 14 Toric');
    if (!made) throw new Error('family');
    expect(nearestLenses(need, made, { baseCurve: 8.9 })[0]?.variants).toEqual([{ baseCurve: 8.9, diameter: 14.5, add: null }]);
    expect(nearestLenses(need, made, { baseCurve: 8.1 })).toEqual([]);
  });
  it('every row it offers is made', () => {
    fc.assert(
      fc.property(anyNeed, fc.constantFrom(...families), (asked, f) => {
        for (const row of nearestLenses(asked, f, { limit: 3 })) for (const variant of row.variants) expect(isMade({ ...row.power, ...variant }, f)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});
