import fc from 'fast-check';
import { Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import {
  addPowers,
  blurBetween,
  blurStrength,
  effectivePower,
  fromPowerCross,
  fromPowerVector,
  keratometerPower,
  sphericalEquivalent,
  toCornealPlane,
  toMinusCylinder,
  toPowerVector,
  toSpectaclePlane,
  transpose,
  type Refraction,
} from '../index';

const r = (sphere: number, cylinder: number, axis: number): Refraction => ({ sphere, cylinder, axis });
/** Any minus-cylinder power within the limits of entry. */
const anyRefraction = fc
  .record({
    sphere: fc.double({ min: -25, max: 25, noNaN: true }),
    cylinder: fc.double({ min: -12, max: -0.01, noNaN: true }),
    axis: fc.double({ min: 0.5, max: 180, noNaN: true }),
  })
  .map(({ sphere, cylinder, axis }) => r(sphere, cylinder, axis));

/** Dioptric power matrix, off-diagonal −C·sin α·cos α. Source: Long 1976; Harris (from memory). */
function powerMatrix({ sphere, cylinder, axis }: Refraction): Matrix {
  const a = (axis * Math.PI) / 180;
  const off = -cylinder * Math.sin(a) * Math.cos(a);
  return new Matrix([
    [sphere + cylinder * Math.sin(a) ** 2, off],
    [off, sphere + cylinder * Math.cos(a) ** 2],
  ]);
}
const close = (a: Refraction, b: Refraction, digits = 6): void => expect(blurBetween(a, b)).toBeCloseTo(0, digits);

describe('vertex distance', () => {
  // Source: F/(1 − dF), any ophthalmic optics text; values computed for 12 mm.
  it.each([
    [-4, -3.817],
    [-6, -5.597],
    [-8, -7.299],
    [-10, -8.929],
    [-12, -10.49],
    [6, 6.466],
    [8, 8.85],
    [10, 11.364],
  ])('%d D at 12 mm is %d D at the cornea', (spectacle, cornea) => {
    expect(toCornealPlane(r(spectacle, 0, 180), 12).sphere).toBeCloseTo(cornea, 3);
  });
  it.each([
    [r(-8, -2.5, 10), 12, r(-7.3, -2.03, 10)],
    [r(-8, -2.5, 10), 14, r(-7.19, -1.96, 10)],
    [r(5.5, -2.25, 75), 12, r(5.89, -2.51, 75)],
    [r(-3.25, -1.75, 20), 12, r(-3.13, -1.59, 20)],
    [r(-4.5, -1.25, 165), 12, r(-4.27, -1.11, 165)],
  ])('converts both meridians of %o at %d mm', (spectacle, vertex, cornea) => {
    const made = toCornealPlane(spectacle, vertex);
    expect(made.sphere).toBeCloseTo(cornea.sphere, 2);
    expect(made.cylinder).toBeCloseTo(cornea.cylinder, 2);
    expect(made.axis).toBe(cornea.axis);
  });
  it('there and back is the identity', () => {
    fc.assert(
      fc.property(anyRefraction, fc.double({ min: 5, max: 20, noNaN: true }), (power, vertex) => {
        close(toSpectaclePlane(toCornealPlane(power, vertex), vertex), power);
      }),
    );
  });
  it('gives more plus and less minus at the eye', () => {
    fc.assert(
      fc.property(fc.double({ min: -30, max: 30, noNaN: true }), (power) => {
        expect(effectivePower(power, 12)).toBeGreaterThanOrEqual(power);
      }),
    );
  });
});

describe('power vectors', () => {
  it('−3.00 −2.25 × 30, Thibos, Wheeler & Horner 1997 (formula; value computed)', () => {
    const v = toPowerVector(r(-3, -2.25, 30));
    expect(v.m).toBeCloseTo(-4.125, 6);
    expect(v.j0).toBeCloseTo(0.5625, 4);
    expect(v.j45).toBeCloseTo(0.9743, 4);
    expect(blurStrength(v)).toBeCloseTo(4.2757, 4);
  });
  it('there and back is the identity', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        const back = fromPowerVector(toPowerVector(power));
        close(back, power);
        expect(back.cylinder).toBeLessThanOrEqual(0);
        expect(back.axis).toBeGreaterThan(0);
        expect(back.axis).toBeLessThanOrEqual(180);
      }),
    );
  });
  it('a zero cylinder has axis 180 and no negative zero', () => {
    expect(fromPowerVector({ m: -0, j0: 0, j45: 0 })).toEqual({ sphere: 0, cylinder: 0, axis: 180 });
  });
});

describe('against an independent matrix library (ml-matrix)', () => {
  it('−3.00 −2.25 × 30 as a dioptric power matrix, Long 1976', () => {
    const m = powerMatrix(r(-3, -2.25, 30));
    expect(m.get(0, 0)).toBeCloseTo(-3.5625, 4);
    expect(m.get(0, 1)).toBeCloseTo(0.9743, 4);
    expect(m.get(1, 1)).toBeCloseTo(-4.6875, 4);
  });
  it('power vectors are the matrix in other coordinates', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        const m = powerMatrix(power);
        const v = toPowerVector(power);
        expect((m.get(0, 0) + m.get(1, 1)) / 2).toBeCloseTo(v.m, 8);
        expect((m.get(0, 0) - m.get(1, 1)) / 2).toBeCloseTo(v.j0, 8);
        expect(m.get(0, 1)).toBeCloseTo(v.j45, 8);
      }),
    );
  });
  it('adding two lenses adds their matrices', () => {
    fc.assert(
      fc.property(anyRefraction, anyRefraction, (a, b) => {
        const sum = Matrix.add(powerMatrix(a), powerMatrix(b));
        expect(Matrix.sub(sum, powerMatrix(addPowers(a, b))).norm()).toBeCloseTo(0, 7);
      }),
    );
  });
  it('blur strength is the Frobenius norm of the matrix over √2', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        expect(powerMatrix(power).norm() / Math.SQRT2).toBeCloseTo(blurStrength(toPowerVector(power)), 7);
      }),
    );
  });
  it('principal powers are the matrix’s eigenvalues, moved to the cornea one by one', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        const [[a, b], [, d]] = powerMatrix(power).to2DArray() as [[number, number], [number, number]];
        const half = Math.hypot((a - d) / 2, b);
        const eigen = [(a + d) / 2 + half, (a + d) / 2 - half].map((f) => f / (1 - 0.012 * f));
        const moved = toCornealPlane(power, 12);
        expect(eigen[0]).toBeCloseTo(moved.sphere, 6);
        expect(eigen[1]).toBeCloseTo(moved.sphere + moved.cylinder, 6);
      }),
    );
  });
});

describe('obliquely crossed cylinders', () => {
  // Source: standard formula; values computed.
  it('−1.00 × 180 with −1.00 × 45', () => {
    const sum = addPowers(r(0, -1, 180), r(0, -1, 45));
    expect(sum.sphere).toBeCloseTo(-0.2929, 4);
    expect(sum.cylinder).toBeCloseTo(-1.4142, 4);
    expect(sum.axis).toBeCloseTo(22.5, 4);
  });
  it('+2.00 × 30 with +3.00 × 60', () => {
    const sum = addPowers(toMinusCylinder(r(0, 2, 30)), toMinusCylinder(r(0, 3, 60)));
    expect(sum.sphere).toBeCloseTo(4.679, 3);
    expect(sum.cylinder).toBeCloseTo(-4.359, 3);
    expect(sum.axis).toBeCloseTo(138.29, 2);
  });
});

describe('transposition', () => {
  it('twice is the identity', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        const twice = transpose(transpose(power));
        expect(twice.sphere).toBeCloseTo(power.sphere, 9);
        expect(twice.cylinder).toBe(power.cylinder);
        expect(twice.axis).toBeCloseTo(power.axis, 9);
      }),
    );
  });
  it('is the same power', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        close(transpose(power), power);
      }),
    );
  });
  it('keeps the spherical equivalent', () => {
    fc.assert(
      fc.property(anyRefraction, (power) => {
        expect(sphericalEquivalent(transpose(power))).toBeCloseTo(sphericalEquivalent(power), 9);
      }),
    );
  });
});

describe('power cross and keratometer', () => {
  it('−1.00 along 180 and −2.25 along 90 is −1.00 −1.25 × 180 (common practice)', () => {
    expect(fromPowerCross({ power: -1, along: 180 }, { power: -2.25, along: 90 })).toEqual(r(-1, -1.25, 180));
    expect(fromPowerCross({ power: -2.25, along: 90 }, { power: -1, along: 180 })).toEqual(r(-1, -1.25, 180));
  });
  it.each([
    [7.8, 43.27],
    [7.5, 45],
  ])('%d mm is %d D with the keratometer constant 337.5', (radius, power) => {
    expect(keratometerPower(radius)).toBeCloseTo(power, 2);
  });
});
