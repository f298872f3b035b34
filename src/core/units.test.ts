import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { axisDistance, LIMITS, may, onStep, ROLES, roundToStep, withinLimit, wrapAxis } from './index';

describe('rounding', () => {
  it('powers tie towards plus', () => {
    for (let quarter = -40; quarter <= 40; quarter++) expect(roundToStep(quarter / 4 + 0.125, 0.25)).toBe((quarter + 1) / 4 + 0);
  });
  it('millimetres tie away from zero, and 0.1 steps stay exact', () => {
    expect(roundToStep(8.55, 0.1, 'away')).toBe(8.6);
    expect(roundToStep(14.2, 0.1, 'away')).toBe(14.2);
    expect(roundToStep(-0.05, 0.1, 'away')).toBe(-0.1);
  });
  it('is never −0, is idempotent, and is within half a step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.constantFrom(0.25, 0.5, 0.1, 1),
        fc.constantFrom('plus' as const, 'away' as const),
        (value, step, ties) => {
          const rounded = roundToStep(value, step, ties);
          expect(Object.is(rounded, -0)).toBe(false);
          expect(roundToStep(rounded, step, ties)).toBe(rounded);
          expect(Math.abs(rounded - value)).toBeLessThanOrEqual(step / 2 + 1e-6);
        },
      ),
    );
  });
});

describe('axes', () => {
  it('wrap into (0, 180]', () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 1000, noNaN: true }), (axis) => {
        const wrapped = wrapAxis(axis);
        expect(wrapped > 0 && wrapped <= 180).toBe(true);
        expect(axisDistance(wrapped, axis)).toBeCloseTo(0, 6);
      }),
    );
  });
  it('0 and 180 are one', () => {
    expect([wrapAxis(0), wrapAxis(180), wrapAxis(360), wrapAxis(-180)]).toEqual([180, 180, 180, 180]);
  });
});

describe('limits', () => {
  it('both ends are on the step and inside', () => {
    for (const limit of Object.values(LIMITS)) for (const end of [limit.min, limit.max]) expect(withinLimit(end, limit) && onStep(end, limit)).toBe(true);
  });
});

describe('the roles matrix', () => {
  it.each([
    ['prescriber', ['read', 'clinicalWrite', 'sign', 'wearers', 'orders']],
    ['technician', ['read', 'clinicalWrite', 'wearers']],
    ['coordinator', ['read', 'wearers', 'orders']],
    ['admin', ['read', 'staff']],
  ] as const)('%s may %j and nothing else', (role, rights) => {
    const every = ['read', 'clinicalWrite', 'sign', 'wearers', 'orders', 'staff'] as const;
    expect(every.filter((right) => may([role], right))).toEqual(rights);
  });
  it('nobody without a role may anything', () => {
    expect(may([], 'read')).toBe(false);
    expect(ROLES).toHaveLength(4);
  });
});
