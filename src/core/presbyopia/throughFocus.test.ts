import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectedAcuity, MULTIFOCAL_DESIGNS, nearPower, throughFocus, type EyeThroughLens } from '../index';

const eye = (over: Partial<EyeThroughLens> = {}): EyeThroughLens => ({ sphereLeft: 0, halfCylinderLeft: 0, near: null, pupilMm: 4, best: 0, ...over });
const anyEye = fc.record({
  sphereLeft: fc.double({ min: -2, max: 2, noNaN: true }),
  halfCylinderLeft: fc.double({ min: 0, max: 0.5, noNaN: true }),
  pupilMm: fc.double({ min: 2.5, max: 7, noNaN: true }),
  best: fc.double({ min: -0.15, max: 0.2, noNaN: true }),
  near: fc.option(fc.record({ design: fc.constantFrom(...MULTIFOCAL_DESIGNS), add: fc.double({ min: 0.5, max: 3, noNaN: true }) })),
});
const vergence = fc.double({ min: -0.5, max: 4, noNaN: true });
/** Dioptres over which an eye reads a line or better. */
const depth = (of: EyeThroughLens, line: number): number => throughFocus({ right: of, left: null }).right!.filter((a) => a <= line).length * 0.125;

describe('acuity through focus', () => {
  // Smith 1991, from memory: MAR ≈ 0.65 · pupil · defocus; 4 mm and 1 D give 2.6'.
  it.each([
    [3, 1],
    [4, 0.5],
    [4, 1],
    [4, 2],
    [5, 1.5],
    [6, 1],
  ])('a single-vision eye with a pupil of %d mm and %d D of defocus reads what Smith says', (pupilMm, defocus) => {
    const smith = 0.5 * Math.log10(1 + (0.65 * pupilMm * defocus) ** 2);
    expect(Math.abs(expectedAcuity([eye({ pupilMm })], defocus) - smith)).toBeLessThan(0.02);
  });
  it('0.75 D of cylinder left costs what 0.375 D of sphere does (common practice)', () => {
    expect(expectedAcuity([eye({ halfCylinderLeft: 0.375 })], 0)).toBeCloseTo(expectedAcuity([eye()], 0.375), 2);
  });
  it('an addition of nothing is a single-vision lens', () => {
    fc.assert(
      fc.property(anyEye, vergence, fc.constantFrom(...MULTIFOCAL_DESIGNS), (of, v, design) => {
        expect(expectedAcuity([{ ...of, near: { design, add: 0 } }], v)).toBeCloseTo(expectedAcuity([{ ...of, near: null }], v), 9);
      }),
    );
  });
  it('a monovision pair peaks at its two distances', () => {
    const { both, vergences } = throughFocus({ right: eye(), left: eye({ sphereLeft: -2 }) });
    const at = (v: number): number => both![vergences.indexOf(v)]!;
    expect(at(0)).toBeCloseTo(0, 2);
    expect(at(2)).toBeCloseTo(0, 2);
    expect(at(1)).toBeGreaterThan(0.3);
  });
  it('both eyes see at least as well as the better one', () => {
    fc.assert(
      fc.property(anyEye, anyEye, vergence, (a, b, v) => {
        expect(expectedAcuity([a, b], v)).toBeLessThanOrEqual(Math.min(expectedAcuity([a], v), expectedAcuity([b], v)) + 1e-9);
      }),
    );
  });
  it('a smaller pupil is deeper', () => {
    for (const [small, large] of [
      [3, 4],
      [4, 6],
    ] as const)
      expect(depth(eye({ pupilMm: small }), 0.2)).toBeGreaterThan(depth(eye({ pupilMm: large }), 0.2));
  });
  it('centre-near and centre-distance trade places with light', () => {
    const reads = (design: 'centreNear' | 'centreDistance', pupilMm: number, v: number): number =>
      expectedAcuity([eye({ pupilMm, near: { design, add: 2 } })], v);
    // A small pupil in bright light sees through the middle of the lens, a wide one through its rim.
    expect(reads('centreNear', 3, 0)).toBeGreaterThan(reads('centreNear', 6, 0));
    expect(reads('centreDistance', 3, 2)).toBeGreaterThan(reads('centreDistance', 6, 2));
    expect(reads('centreNear', 3, 2)).toBeLessThan(reads('centreDistance', 3, 2));
    expect(reads('centreNear', 6, 2)).toBeGreaterThan(reads('centreDistance', 6, 2));
  });
  it('a lens beside the pupil costs sight at its near distance, the more the farther', () => {
    const reads = [0, 0.3, 0.6, 1].map((decentredMm) => expectedAcuity([eye({ decentredMm, near: { design: 'centreNear', add: 2 } })], 2));
    for (let i = 1; i < reads.length; i++) expect(reads[i]).toBeGreaterThan(reads[i - 1]! + 0.02);
  });
  it('a centred lens is the same reckoned ring by ring and all round', () => {
    fc.assert(
      fc.property(anyEye, vergence, (of, v) => {
        const still = { ...of, halfCylinderLeft: 0 };
        expect(expectedAcuity([{ ...still, decentredMm: 1e-12 }], v)).toBeCloseTo(expectedAcuity([still], v), 6);
      }),
    );
  });
  it('the near zone of each design has the whole addition somewhere and none elsewhere within a wide pupil', () => {
    for (const design of MULTIFOCAL_DESIGNS) {
      const rings = Array.from({ length: 60 }, (_, i) => nearPower(design, 2, i / 20));
      expect(Math.max(...rings)).toBeCloseTo(2, 6);
      expect(Math.min(...rings)).toBeCloseTo(0, 6);
    }
  });
});
