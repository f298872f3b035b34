import { describe, expect, it } from 'vitest';
import {
  fromPowerVector,
  isUnrestored,
  overPatterns,
  powerOnEye,
  sightDoubts,
  sightGate,
  subtractVectors,
  toPowerVector,
  type OverRead,
  type Refraction,
} from '../index';

const r = (sphere: number, cylinder = 0, axis = 180): Refraction => ({ sphere, cylinder, axis });
const less = (a: Refraction, b: Refraction): Refraction => fromPowerVector(subtractVectors(toPowerVector(a), toPowerVector(b)));
/** What is read through `really` when `lens` is believed to be on an eye that asks `need`. */
const read = (need: Refraction, lens: Refraction, really: Refraction, turn = 0): OverRead => ({
  lens,
  rotationLeft: turn,
  need,
  over: less(need, powerOnEye(really, turn)),
  orderAxis: null,
});
const none = { right: [], left: [] };

describe('what an over-refraction looks like', () => {
  it('right and left exchanged: equal and opposite (common practice)', () => {
    const right = read(r(-2), r(-2), r(-4));
    const left = read(r(-4), r(-4), r(-2));
    expect(right.over.sphere).toBeCloseTo(2);
    expect(overPatterns({ right, left }, none)).toEqual({ right: [{ code: 'swapped' }], left: [{ code: 'swapped' }] });
  });
  it('equal and opposite through two equal lenses is no exchange', () => {
    const right: OverRead = { lens: r(-3), rotationLeft: 0, need: r(-2.25), over: r(0.75), orderAxis: null };
    const left: OverRead = { lens: r(-3), rotationLeft: 0, need: r(-3.75), over: r(-0.75), orderAxis: null };
    expect(overPatterns({ right, left }, none)).toEqual({ right: [], left: [] });
  });
  it('torics exchanged are recognised although each sits turned in its own way', () => {
    const [needR, needL] = [r(-2, -1.75, 20), r(-4.5, -1.25, 165)];
    // Each eye wears the other's lens; the mark is read as that lens sits on this eye.
    const right: OverRead = { ...read(needR, needR, needL, 12), lens: needR };
    const left: OverRead = { ...read(needL, needL, needR, -9), lens: needL };
    expect(overPatterns({ right, left }, none)).toEqual({ right: [{ code: 'swapped' }], left: [{ code: 'swapped' }] });
    const mean = (o: OverRead): OverRead => ({ ...o, over: r(o.over.sphere + o.over.cylinder / 2), parts: 'mean' });
    expect(overPatterns({ right: mean(right), left: mean(left) }, none).right).toEqual([{ code: 'swapped' }]);
  });
  it('a sphere is compared by mean power alone: a turned toric with plano is no surprise', () => {
    const turned: OverRead = { lens: r(-3, -2.25, 20), rotationLeft: 20, need: r(-3, -2.25, 20), over: r(0), orderAxis: null };
    expect(overPatterns({ right: { ...turned, parts: 'mean' }, left: null }, none).right).toEqual([]);
    expect(overPatterns({ right: turned, left: null }, none).right).toMatchObject([{ code: 'surprise' }]);
  });
  it('about the lens’s own power: no lens there (common practice)', () => {
    expect(overPatterns({ right: read(r(-4, -1, 20), r(-4, -1, 20), r(0)), left: null }, none).right).toEqual([{ code: 'noLens' }]);
  });
  it('another lens that was at hand is named', () => {
    const right = read(r(-3, -1.75, 20), r(-3, -1.75, 20), r(-4.25, -1.25, 170));
    expect(overPatterns({ right, left: null }, { right: [{ name: 'trial of the left eye', power: r(-4.25, -1.25, 170) }], left: [] }).right).toEqual([
      { code: 'looksLike', name: 'trial of the left eye' },
    ]);
  });
  it('a surprise asks from 0.75 D in one eye, 0.50 in both', () => {
    const off = (by: number): OverRead => ({ lens: r(-3), rotationLeft: 0, need: r(-3), over: r(by), orderAxis: null });
    expect(overPatterns({ right: off(0.5), left: off(0) }, none).right).toEqual([]);
    expect(overPatterns({ right: off(0.75), left: off(0) }, none).right).toMatchObject([{ code: 'surprise', limit: 0.75 }]);
    expect(overPatterns({ right: off(0.5), left: off(0.5) }, none).left).toMatchObject([{ code: 'surprise', limit: 0.5 }]);
  });
  it('the trap of the copied chart: worn −4.75, +0.25 through it is no surprise, the right order is −4.25 after +0.50', () => {
    const worn = (over: number): OverRead => ({ lens: r(-4.75), rotationLeft: 0, need: null, over: r(over), orderAxis: null });
    expect(overPatterns({ right: worn(0.25), left: null }, none).right).toEqual([]);
  });
  it('an axis over 20° away asks; a weak cylinder’s does not', () => {
    const through = (cylinder: number, orderAxis: number): OverRead => ({ lens: r(-3, cylinder, 20), rotationLeft: 0, need: null, over: r(0), orderAxis });
    expect(overPatterns({ right: through(-1.75, 45), left: null }, none).right).toEqual([{ code: 'axisFar', by: 25 }]);
    expect(overPatterns({ right: through(-1.75, 175), left: null }, none).right).toEqual([{ code: 'axisFar', by: 25 }]);
    expect(overPatterns({ right: through(-1.75, 35), left: null }, none).right).toEqual([]);
    expect(overPatterns({ right: through(-0.5, 80), left: null }, none).right).toEqual([]);
  });
});

describe('what acuity says against it', () => {
  const va = (glasses: number | null, lens: number | null, over: number | null, pinhole: number | null = null) => ({ glasses, lens, over, pinhole });
  const codes = (a: ReturnType<typeof va>, over: Refraction | null): string[] => sightDoubts(a, over).map((d) => d.code);
  it('minus that gains no line is questioned', () => {
    expect(codes(va(0, 0.1, 0.1), r(-0.5))).toContain('minusNoLine');
    expect(codes(va(0, 0.1, 0), r(-0.5))).toEqual([]);
    expect(codes(va(0, 0.06, 0), r(-0.25))).toContain('minusNoLine');
    expect(codes(va(0, null, 0), r(-0.5))).toContain('minusUnread');
    expect(codes(va(0, 0.1, 0.1), r(0.5))).not.toContain('minusNoLine');
  });
  it('minus counts as the mean of both meridians', () => {
    expect(codes(va(0, 0, 0), r(0.25, -0.75, 90))).toContain('minusNoLine');
    expect(codes(va(0, 0, 0), r(0.5, -0.5, 90))).toEqual([]);
  });
  it('a sphere that falls a line short asks for the cylinder', () => {
    expect(codes(va(0, 0.2, 0.1), r(0.25))).toEqual(['askCylinder']);
    expect(codes(va(0, 0.3, 0.2), r(0.25))).toEqual(['askCylinder', 'unrestored']);
    expect(codes(va(0, 0.3, 0.2), r(0.25, -0.75, 20))).toEqual(['unrestored']);
    expect(sightDoubts({ ...va(0, 0.2, 0.1), cylinderTested: true }, r(0.25))).toEqual([]);
  });
  it('the pinhole tells optics from the eye', () => {
    expect(codes(va(0, 0.3, null, 0.1), null)).toEqual(['unrestored', 'pinholeHelps']);
    expect(codes(va(0, 0.3, null, 0.28), null)).toEqual(['unrestored', 'pinholeNot']);
  });
  it('no order before pinhole and cause; a cause to put right forbids it still', () => {
    const a = va(0, 0.2, 0.2);
    expect(isUnrestored(a)).toBe(true);
    expect(sightGate(a, {})).toBe('sightUnrestored');
    expect(sightGate(a, { cause: 'cornea' })).toBe('sightUnrestored');
    expect(sightGate({ ...a, pinhole: 0.2 }, { cause: 'cornea' })).toBeNull();
    expect(sightGate({ ...a, pinhole: 0 }, { cause: 'swapped' })).toBe('sightCauseFirst');
    expect(sightGate(va(0, 0.2, 0), {})).toBeNull();
    expect(sightGate(va(null, 0.5, 0.5), {})).toBeNull();
  });
  it('the best ever recorded counts, with whatever it was read', () => {
    expect(isUnrestored({ ...va(null, 0.2, 0.2), best: 0 })).toBe(true);
    expect(isUnrestored({ ...va(0.3, 0.2, 0.2), best: -0.1 })).toBe(true);
    expect(isUnrestored({ ...va(0.3, 0.2, 0.2), best: 0.1 })).toBe(false);
    expect(isUnrestored(va(0.3, 0.3, 0.3, 0.1))).toBe(true);
  });
  it('two lines ask, one does not: 20/20 to 20/30 is 0.176 and asks, 20/20 to 20/25 does not', () => {
    expect(isUnrestored(va(0, 0.1, 0.1))).toBe(false);
    expect(isUnrestored(va(0, 0.18, 0.18))).toBe(true);
    expect(isUnrestored(va(0, 0.14, 0.14))).toBe(false);
    expect(isUnrestored(va(0, 0.15, 0.15))).toBe(true);
  });
  it('what the over-refraction cannot give back is expected, and one line more asks', () => {
    expect(isUnrestored({ ...va(0, 0.2, 0.2), expectedLoss: 0.12 })).toBe(false);
    expect(isUnrestored({ ...va(0, 0.22, 0.22), expectedLoss: 0.12 })).toBe(true);
    // A near eye expects nothing: it has to see fully through its over-refraction.
    expect(isUnrestored({ ...va(0, 0.5, 0), expectedLoss: 0 })).toBe(false);
    expect(sightGate({ ...va(0, 0.5, 0.2), expectedLoss: 0 }, { cause: 'nearEye' })).toBe('sightNearEye');
  });
  it('with pain, stain, an infiltrate or an only eye one line asks', () => {
    expect(isUnrestored({ ...va(0, 0.1, 0.1), oneLineAsks: true })).toBe(true);
    expect(isUnrestored({ ...va(0, 0.1, 0.1), oneLineAsks: true, expectedLoss: 0.3 })).toBe(true);
    expect(isUnrestored({ ...va(0, 0.08, 0.08), oneLineAsks: true })).toBe(false);
  });
  it.each(['turnedSteady', 'cylinderLeft', 'multifocal', 'lazyEye', 'cornea', 'surface', 'tears', 'insideEye', 'prescriber'] as const)(
    '%s explains it',
    (cause) => {
      expect(sightGate(va(0, 0.3, 0.3, 0.3), { cause })).toBeNull();
    },
  );
});
