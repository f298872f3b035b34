import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CYLINDER_ANSWERS, nextCylinder, sphericalEquivalent, withCylinder, type CylinderTry } from '../index';

const tries = (...list: readonly (readonly [number, CylinderTry['answer']])[]): CylinderTry[] => list.map(([cylinder, answer]) => ({ cylinder, answer }));

describe('cylinder by the wearer’s answers (common practice)', () => {
  it.each([
    [tries(), 1, { offer: -1, settled: null }],
    [tries(), 0.75, { offer: -0.75, settled: null }],
    [tries([-1, 'better']), 1, { offer: -2, settled: null }],
    [tries([-1, 'better'], [-2, 'worse']), 1, { offer: null, settled: -1 }],
    [tries([-0.75, 'same']), 0.75, { offer: null, settled: 0 }],
    [tries([-1, 'worse']), 1, { offer: null, settled: 0 }],
  ] as const)('%o by %s → %o', (of, step, next) => expect(nextCylinder(of, step)).toEqual(next));
  it('always ends, within the strongest offered, on one that was said to be better', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...CYLINDER_ANSWERS), { minLength: 12, maxLength: 12 }), fc.constantFrom(0.75, 1), (answers, step) => {
        const said: CylinderTry[] = [];
        for (const answer of answers) {
          const next = nextCylinder(said, step);
          if (next.offer === null) {
            expect(next.settled === 0 || said.some((t) => t.cylinder === next.settled && t.answer === 'better')).toBe(true);
            expect(next.settled).toBeGreaterThanOrEqual(-6);
            return;
          }
          said.push({ cylinder: next.offer, answer });
        }
        throw new Error('no end');
      }),
    );
  });
  it('the sphere gives half of it back: the spherical equivalent stays within an eighth, never towards minus', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 40 }), fc.integer({ min: 0, max: 24 }), (s, c) => {
        const power = withCylinder(s / 4, -c / 4, 75);
        const moved = sphericalEquivalent(power) - s / 4;
        expect(moved).toBeGreaterThanOrEqual(-1e-9);
        expect(moved).toBeLessThanOrEqual(0.125 + 1e-9);
      }),
    );
  });
});
