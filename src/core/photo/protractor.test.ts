import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anglesOf } from './markLayout';
import { clockwiseFromDown, halfTurn, hourAngle, marksOf, photoLies, placeAt, rollOfCanthi, turnByHand } from './protractor';

const LENS = { x: 300, y: 200, r: 100 } as const;

describe('the protractor on a picture', () => {
  it('a bottom mark to the examiner’s left is clockwise and positive; a top mark to the right is the same turn (common practice)', () => {
    const left = { x: LENS.x - 50, y: LENS.y + 86.6 };
    expect(turnByHand('six', 0, { lens: LENS, at: clockwiseFromDown(LENS, left), hour: null, roll: 0 })).toBeCloseTo(30, 1);
    const upRight = { x: LENS.x + 50, y: LENS.y - 86.6 };
    expect(turnByHand('twelve', 0, { lens: LENS, at: clockwiseFromDown(LENS, upRight), hour: null, roll: 0 })).toBeCloseTo(30, 1);
    // The mark at the examiner's right, 3 o'clock, going down is clockwise.
    const rightDown = { x: LENS.x + 86.6, y: LENS.y + 50 };
    expect(turnByHand('threeNine', 0, { lens: LENS, at: clockwiseFromDown(LENS, rightDown), hour: 'three', roll: 0 })).toBeCloseTo(30, 1);
  });
  it('one of several marks says nothing until it is known which', () => {
    for (const layout of ['threeNine', 'fiveSixSeven'] as const) expect(turnByHand(layout, 30, { lens: LENS, at: 10, hour: null, roll: 0 })).toBeNull();
    expect(turnByHand('fiveSixSeven', 30, { lens: LENS, at: 10, hour: 'six', roll: 0 })).toBe(10);
    expect(turnByHand('fiveSixSeven', 30, { lens: LENS, at: 10, hour: 'seven', roll: 0 })).toBe(-20);
    expect(turnByHand('fiveSixSeven', 30, { lens: LENS, at: 10, hour: 'five', roll: 0 })).toBe(40);
    expect(turnByHand('six', 0, { lens: LENS, at: 10, hour: 'seven', roll: 0 })).toBeNull();
    expect(turnByHand('none', 0, { lens: LENS, at: 10, hour: null, roll: 0 })).toBeNull();
  });
  it('turning the picture turns the arm and the line of the canthi alike: the reading stays', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -45, max: 45 }),
        fc.double({ min: -30, max: 30, noNaN: true }),
        fc.constantFrom('six', 'twelve', 'threeNine', 'fiveSixSeven'),
        (turn, roll, layout) => {
          for (const hour of marksOf(layout)) {
            const at = clockwiseFromDown(LENS, placeAt(LENS, turn + roll + (hourAngle(layout, 20, hour) ?? 0)));
            const rad = (roll * Math.PI) / 180;
            const canthi = [-1, 1].map((side) => ({ x: LENS.x + side * 90 * Math.cos(rad), y: LENS.y + side * 90 * Math.sin(rad) })) as [never, never];
            expect(turnByHand(layout, 20, { lens: LENS, at, hour, roll: rollOfCanthi(...canthi) })).toBeCloseTo(turn, 6);
          }
        },
      ),
    );
  });
  it('the canthi may be placed in either order', () => {
    const [a, b] = [
      { x: 0, y: 10 },
      { x: 100, y: 20 },
    ] as const;
    expect(rollOfCanthi(a, b)).toBeCloseTo(5.71, 2);
    expect(rollOfCanthi(b, a)).toBe(rollOfCanthi(a, b));
  });
  it('a picture lies as was said of it: the nose of a right eye is at the examiner’s right', () => {
    expect(photoLies('right', { nose: 'right', top: 'up' })).toBe('upright');
    expect(photoLies('left', { nose: 'left', top: 'up' })).toBe('upright');
    expect(photoLies('right', { nose: 'left', top: 'up' })).toBe('mirrored');
    expect(photoLies('right', { nose: 'left', top: 'down' })).toBe('upsideDown');
    expect(photoLies('left', { nose: 'left', top: 'down' })).toBe('mirrored');
  });
  it('angles stay within half a turn; every mark named has its place', () => {
    fc.assert(fc.property(fc.integer({ min: -2000, max: 2000 }), (a) => Math.abs(halfTurn(a)) <= 180 && (halfTurn(a) - a) % 360 === 0));
    for (const layout of ['none', 'six', 'threeNine', 'twelve', 'fiveSixSeven'] as const) expect(marksOf(layout)).toHaveLength(anglesOf(layout, 30).length);
  });
});
