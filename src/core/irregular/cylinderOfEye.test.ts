import { describe, expect, it } from 'vitest';
import { chains, cylinderOfEye, daysInSphere, type CylinderSeen, type HandOverFact } from '../index';

const seen = (over: CylinderSeen['over'], sphereBefore: number | null = null, lensAcuity: number | null = null): CylinderSeen => ({
  over,
  sphereBefore,
  lensAcuity,
});
const LENSES: Readonly<Record<string, { irregular: boolean; cylinderD: number }>> = {
  sphere: { irregular: true, cylinderD: 0 },
  toric: { irregular: true, cylinderD: -1.25 },
  plain: { irregular: false, cylinderD: 0 },
};
const given = (eye: 'right' | 'left', lensId: string, handedOn: string): HandOverFact =>
  ({ id: `${eye}${lensId}${handedOn}`, rootId: `${eye}${lensId}${handedOn}`, correctsId: null, voided: false, eye, lensId, handedOn }) as HandOverFact;

describe('a cylinder over an irregular cornea, by what was seen (common practice, two schools)', () => {
  it('under 20/40 with the sphere: after two weeks, or the same day by the second school', () => {
    const under = seen({ cylinder: 0, acuity: 0.4 });
    expect(cylinderOfEye(under, 3, 'twoWeeks')).toEqual({ may: false, why: 'wearFirst' });
    expect(cylinderOfEye(under, 14, 'twoWeeks')).toEqual({ may: true, why: 'underFunctional' });
    expect(cylinderOfEye(under, 0, 'sameDay')).toEqual({ may: true, why: 'underFunctional' });
  });
  it('with a cylinder on, sight with the sphere before it counts, and what the cylinder gained', () => {
    expect(cylinderOfEye(seen({ cylinder: -1, acuity: 0 }, 0.2), 20, 'twoWeeks')).toEqual({ may: true, why: 'gainsTwoLines' });
    expect(cylinderOfEye(seen({ cylinder: -1, acuity: 0.1 }, 0.2), 20, 'twoWeeks')).toEqual({ may: false, why: 'functional' });
    // Where no sphere was read before, the lens alone is what it is measured against.
    expect(cylinderOfEye(seen({ cylinder: -1, acuity: 0.1 }, null, 0.4), 20, 'twoWeeks')).toEqual({ may: true, why: 'underFunctional' });
    expect(cylinderOfEye(seen({ cylinder: -1, acuity: 0.1 }), 20, 'twoWeeks')).toEqual({ may: false, why: 'sphereFirst' });
    expect(cylinderOfEye(seen(null), 20, 'sameDay')).toEqual({ may: false, why: 'sphereFirst' });
  });
  it('days count from the first lens of this kind without a cylinder that went home for this eye', () => {
    const handOvers = chains([
      given('right', 'plain', '2026-10-01'),
      given('right', 'toric', '2026-10-15'),
      given('right', 'sphere', '2026-11-10'),
      given('right', 'sphere', '2026-11-20'),
      given('left', 'toric', '2026-11-01'),
    ]);
    const days = (eye: 'right' | 'left') => daysInSphere(eye, handOvers, (id) => LENSES[id], '2026-11-24');
    expect(days('right')).toBe(14);
    expect(days('left')).toBe(0);
  });
});
