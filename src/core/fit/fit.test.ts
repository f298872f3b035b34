import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blurDisc,
  centredOverlap,
  judgeFit,
  LENS_SIGNS,
  lensFindingProblem,
  movementByOverlap,
  nextCurves,
  overlaps,
  refitStep,
  sagitta,
  type LensFindings,
} from '../index';

describe('the overlap is the ruler', () => {
  it('(diameter on the eye − iris)/2, the label less 0.25 mm: common practice', () => {
    expect(centredOverlap(14.2, 11.8)).toBeCloseTo(1.075, 9);
  });
  it('an edge half-way to the limbus moved half of the overlap: common practice', () => {
    expect(movementByOverlap(0.5, 1.075)).toBe(0.55);
    expect(movementByOverlap(1, -0.2)).toBe(0);
  });
  it('a lens off to one side reaches as much less on the other', () => {
    expect(overlaps(1, { nose: 0.3, up: -0.2 })).toEqual({ up: 0.8, down: 1.2, nose: 1.3, ear: 0.7 });
  });
  it('any 0.1 mm is taken in by the database’s step', () => {
    for (let tenths = -30; tenths <= 30; tenths++) expect(lensFindingProblem('offNose', tenths / 10)).toBeNull();
  });
});

describe('loose, fits or tight', () => {
  const seen = (f: LensFindings, school: 'classic' | 'modern' = 'modern') => judgeFit(f, school).verdict;
  // Sources: schools of movement, common practice; push-up 40 to 60 %, Martin 1989 and Young 1996, from memory.
  it.each([
    [{ movement: 0.3 }, 'modern', 'fits'],
    [{ movement: 0.3 }, 'classic', null],
    [{ movement: 0.25 }, 'classic', 'tight'],
    [{ movement: 1.05 }, 'modern', 'loose'],
    [{ movement: 0.8 }, 'modern', null],
    [{ movement: 0.8 }, 'classic', 'fits'],
    // One watch is settled by another sign that is good; two on one side condemn.
    [{ movement: 0.1 }, 'modern', null],
    [{ movement: 0.15, pushUp: 50 }, 'modern', 'fits'],
    [{ movement: 0.3, pushUp: 65 }, 'modern', 'fits'],
    [{ movement: 0.15, pushUp: 65 }, 'modern', 'tight'],
    [{ movement: 0.8, pushUp: 50 }, 'modern', 'fits'],
    [{ movement: 0.8, pushUp: 35 }, 'modern', 'loose'],
    [{ movement: 0.15, pushUp: 35 }, 'modern', 'mixed'],
    [{ movement: 0.4, pushUp: 50 }, 'classic', 'fits'],
    [{ movement: 1.4, pushUp: 50 }, 'classic', 'fits'],
    [{ movement: 1.6, pushUp: 50 }, 'classic', 'loose'],
    // Never settled: under 0.1 mm, push-up over 70 %, indentation, red at the edge.
    [{ movement: 0.05, pushUp: 50 }, 'modern', 'tight'],
    [{ movement: 0.3, pushUp: 75 }, 'modern', 'tight'],
    [{ movement: 0.3, pushUp: 50, edge: 'indents' }, 'modern', 'tight'],
    [{ movement: 0.3, pushUp: 50, edgeVessels: 'red' }, 'modern', 'tight'],
    // Up gaze has limits of its own, whatever the school.
    [{ movementUp: 0.2 }, 'modern', null],
    [{ movementUp: 0.4 }, 'classic', 'fits'],
    [{ movementUp: 0.6, pushUp: 50 }, 'modern', 'fits'],
    [{ movementUp: 0.6, movement: 0.8 }, 'modern', 'loose'],
    [{ movementUp: 0.05 }, 'modern', 'tight'],
    [{ movement: 0.05 }, 'modern', 'tight'],
    [{ movement: 0.3, pushUp: 50 }, 'modern', 'fits'],
    [{ movement: 0.3, pushUp: 80 }, 'modern', 'tight'],
    [{ movement: 0.3, pushUp: 20 }, 'modern', 'loose'],
    [{ movement: 1.2, pushUp: 80 }, 'modern', 'mixed'],
    [{ edge: 'indents' }, 'modern', 'tight'],
    [{ edge: 'lifts' }, 'modern', 'loose'],
    [{ afterBlink: 'clearThenBlurs' }, 'modern', 'tight'],
    [{ afterBlink: 'worseJustAfter' }, 'modern', 'loose'],
    [{ overlapEar: -0.1 }, 'modern', 'loose'],
    [{ lineMovement: 'middle', lineRecovery: 'middle', lineCentre: 'middle', lineLag: 'middle' }, 'modern', 'fits'],
    [{ lineMovement: 'more', lineRecovery: 'fast' }, 'modern', 'loose'],
    [{ lineMovement: 'less', lineRecovery: 'slow' }, 'modern', 'tight'],
    [{ lineMovement: 'more', lineRecovery: 'middle' }, 'modern', 'fits'],
    [{ lineMovement: 'more' }, 'modern', null],
    [{ comfort: 9 }, 'modern', null],
    [{ edge: 'flat', coverage: 'full' }, 'modern', null],
    [{}, 'modern', null],
  ] as const)('%j by the %s school: %s', (findings, school, verdict) => {
    expect(seen(findings, school)).toBe(verdict);
  });
  it('off-centre alone does not make a lens loose, beside movement it speaks', () => {
    expect(judgeFit({ movement: 0.3, offNose: 0.8 }, 'modern')).toMatchObject({ verdict: 'fits' });
    expect(judgeFit({ movement: 1.2, offNose: 0.8 }, 'modern').reasons.map((r) => r.code)).toEqual(['movesMuch', 'offCentre']);
  });
  it('a single watch says what it waits for', () => {
    expect(judgeFit({ movement: 0.15 }, 'modern')).toMatchObject({ verdict: null, unsettled: 'tight' });
    expect(judgeFit({ pushUp: 35 }, 'modern')).toMatchObject({ verdict: null, unsettled: 'loose' });
    expect(judgeFit({ movement: 0.15, pushUp: 50 }, 'modern').unsettled).toBeNull();
  });
  it('fits but hurts opens the ladder of comfort', () => {
    expect(judgeFit({ movement: 0.3, comfort: 5 }, 'modern').hurts).toBe(true);
    expect(judgeFit({ movement: 0.3, comfort: 8 }, 'modern').hurts).toBe(false);
    expect(judgeFit({ movement: 2, comfort: 2 }, 'modern').hurts).toBe(false);
  });
  it('a verdict never stands without a reason of its side', () => {
    const arb = fc.record(
      {
        movement: fc.integer({ min: 0, max: 40 }).map((n) => n / 20),
        pushUp: fc.integer({ min: 0, max: 20 }).map((n) => n * 5),
        edge: fc.constantFrom('flat', 'lifts', 'indents'),
        lag: fc.integer({ min: 0, max: 40 }).map((n) => n / 20),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(arb, fc.constantFrom('classic' as const, 'modern' as const), (findings, school) => {
        const { verdict, reasons } = judgeFit(findings, school);
        const strong = reasons.filter((r) => r.weight !== 'weak');
        if (verdict === null) expect(strong.length).toBeLessThan(2);
        else if (verdict === 'mixed') expect(new Set(strong.map((r) => r.side)).size).toBeGreaterThan(1);
        else expect(strong.some((r) => r.side === verdict)).toBe(true);
        // Whatever else is good, a lens that does not move, indents or cannot be pushed up never passes.
        const { movement, pushUp, edge } = findings;
        const stuck = (movement !== undefined && movement < 0.1) || (pushUp !== undefined && pushUp > 70) || edge === 'indents';
        if (stuck) expect(['tight', 'mixed']).toContain(verdict);
      }),
    );
  });
});

describe('depth and the next curve', () => {
  // Source: geometry of the circle; a 6-8-10 triangle.
  it('sag of a 10 mm sphere across 12 mm is 2 mm', () => {
    expect(sagitta(10, 12)).toBeCloseTo(2, 12);
    expect(sagitta(7, 14)).toBeNull();
    expect(sagitta(8.6, 14.2)).toBeCloseTo(3.747, 3);
  });
  const made = [
    { baseCurve: 8.3, diameter: 14.4 },
    { baseCurve: 8.6, diameter: 14.4 },
    { baseCurve: 8.9, diameter: 14.4 },
  ];
  it('loose: steeper, the smallest step first; tight: flatter', () => {
    expect(nextCurves({ baseCurve: 8.9, diameter: 14.4 }, made, 'loose').map((n) => [n.step, n.curve.baseCurve])).toEqual([
      ['steeper', 8.6],
      ['steeper', 8.3],
    ]);
    expect(nextCurves({ baseCurve: 8.6, diameter: 14.4 }, made, 'tight').map((n) => [n.step, n.curve.baseCurve])).toEqual([['flatter', 8.9]]);
  });
  it('a family with one curve has no next one', () => {
    expect(nextCurves({ baseCurve: 8.6, diameter: 14.2 }, [{ baseCurve: 8.6, diameter: 14.2 }], 'loose')).toEqual([]);
  });
  it('larger counts as deeper', () => {
    const [next] = nextCurves({ baseCurve: 8.6, diameter: 14 }, [{ baseCurve: 8.6, diameter: 14.5 }], 'loose');
    expect(next?.step).toBe('larger');
    expect(next?.sagChange).toBeGreaterThan(0);
  });
  it('a flatter curve in a larger diameter may be the deeper one', () => {
    const [next] = nextCurves({ baseCurve: 8.6, diameter: 13.8 }, [{ baseCurve: 8.7, diameter: 14.5 }], 'loose');
    expect(next?.step).toBe('deeper');
  });
});

describe('a lens that does not sit still', () => {
  it('loose: steeper or larger; tight: flatter or smaller; fits: another stabilisation (common practice)', () => {
    expect(refitStep('loose')).toBe('loose');
    expect(refitStep('tight')).toBe('tight');
    expect(refitStep('fits')).toBe('stabilisation');
  });
  it('with no word on the fit, or signs of both, the fit is judged first', () => {
    expect(refitStep(null)).toBe('judge');
    expect(refitStep('mixed')).toBe('judge');
  });
});

describe('signs of a lens', () => {
  it.each([
    ['comfort', 11, 'findingOutOfRange'],
    ['comfort', 2.5, 'findingOffStep'],
    ['movement', 0.33, 'findingOffStep'],
    ['edge', 'curly', 'findingUnknown'],
    ['edge', 3, 'findingUnknown'],
    ['shine', 1, 'findingUnknown'],
    ['pushUp', Number.NaN, 'findingNotANumber'],
  ] as const)('%s %s is %s', (sign, value, code) => {
    expect(lensFindingProblem(sign, value)?.code).toBe(code);
  });
  it('every sign takes both ends of its range', () => {
    for (const s of LENS_SIGNS) {
      if (s.kind === 'word') for (const o of s.options) expect(lensFindingProblem(s.id, o)).toBeNull();
      else for (const v of [s.min, s.max]) expect(lensFindingProblem(s.id, v), s.id).toBeNull();
    }
  });
});

// Source: geometric blur disc 3.44 × mm × D arcminutes; 3 mm and 1 D make 10.31′.
it('blur disc of 3 mm and 1 D is 10.31′', () => {
  expect(blurDisc(3, 1)).toBeCloseTo(10.31, 2);
  expect(blurDisc(3, -1)).toBeCloseTo(10.31, 2);
});
