import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cylinderRule, FUNCTIONAL, irregularPath, PATH_STEPS, type IrregularEye } from '../index';

const fresh: IrregularEye = {
  ...{ minutesOn: null, settle: { fit: 10, sight: 30 }, fit: null, markSteady: null, upGazeWanders: null },
  ...{ overRefracted: false, lensAcuity: null, overAcuity: null, best: null },
};
const eye = (over: Partial<IrregularEye>): IrregularEye => ({ ...fresh, minutesOn: 40, fit: 'fits', markSteady: true, upGazeWanders: false, ...over });

describe('the way over an irregular cornea (common practice)', () => {
  it.each([
    ['nothing is on', fresh, 'putOn'],
    ['just put on', { ...fresh, minutesOn: 2 }, 'waitFit'],
    ['too loose, seen at once: no need to wait', { ...fresh, minutesOn: 2, fit: 'loose' }, 'steeper'],
    ['too little movement', { ...fresh, minutesOn: 11, fit: 'tight' }, 'flatter'],
    ['ten minutes: how does it move?', { ...fresh, minutesOn: 10 }, 'judgeFit'],
    ['it fits: is the mark steady?', eye({ markSteady: null, minutesOn: 12 }), 'readMark'],
    ['the mark wanders after each blink', eye({ markSteady: false, minutesOn: 12 }), 'refit'],
    ['up gaze', eye({ upGazeWanders: null, minutesOn: 12 }), 'lookUp'],
    ['a walk until thirty minutes', eye({ minutesOn: 12 }), 'waitSight'],
    ['a sphere over it', eye({}), 'sphereOver'],
    ['what it sees with it', eye({ overRefracted: true }), 'readSight'],
    ['a line gained: order', eye({ overRefracted: true, lensAcuity: 0.4, overAcuity: 0.2, best: 0 }), 'order'],
    ['nothing gained, though a rigid lens gave 20/20', eye({ overRefracted: true, lensAcuity: 0.4, overAcuity: 0.4, best: 0 }), 'notThisKind'],
    ['nothing to gain: as good as the eye is known to see', eye({ overRefracted: true, lensAcuity: 0.1, overAcuity: 0.1, best: 0.1 }), 'order'],
    ['nothing gained, nothing known, under 20/40', eye({ overRefracted: true, lensAcuity: 0.5, overAcuity: 0.5 }), 'notThisKind'],
  ] as const)('%s', (_name, of, step) => expect(irregularPath(of)).toBe(step));
  it('a fit that is not right is changed before any sight is judged, whatever else was read', () => {
    const any = <T>(...of: readonly T[]) => fc.constantFrom(...of);
    fc.assert(
      fc.property(
        fc.record({
          minutesOn: any<number | null>(null, 3, 15, 45),
          fit: any<IrregularEye['fit']>(null, 'loose', 'tight', 'fits', 'mixed'),
          markSteady: any<boolean | null>(null, true, false),
          upGazeWanders: any<boolean | null>(null, true, false),
          overRefracted: fc.boolean(),
          lensAcuity: any<number | null>(null, 0.1, 0.5),
          overAcuity: any<number | null>(null, 0.1, 0.5),
          best: any<number | null>(null, 0),
        }),
        (over) => {
          const step = irregularPath({ ...fresh, ...over });
          expect(PATH_STEPS).toContain(step);
          if (['sphereOver', 'readSight', 'notThisKind', 'order', 'waitSight'].includes(step))
            expect([over.fit, over.markSteady, over.upGazeWanders === null]).toEqual(['fits', true, false]);
        },
      ),
    );
  });
});

describe('cylinder over a lens of a set (common practice, two schools)', () => {
  const rule = (over: Partial<Parameters<typeof cylinderRule>[0]>) =>
    cylinderRule({ sphereAcuity: 0.4, gain: null, daysInSphere: 20, school: 'twoWeeks', ...over });
  it.each([
    [{ sphereAcuity: null }, false, 'sphereFirst'],
    [{}, true, 'underFunctional'],
    [{ daysInSphere: 3 }, false, 'wearFirst'],
    [{ daysInSphere: 0, school: 'sameDay' }, true, 'underFunctional'],
    [{ sphereAcuity: FUNCTIONAL }, false, 'functional'],
    [{ sphereAcuity: 0.2, gain: 1 }, false, 'functional'],
    [{ sphereAcuity: 0.2, gain: 2 }, true, 'gainsTwoLines'],
    [{ sphereAcuity: 0.2, gain: 2, daysInSphere: 13 }, false, 'wearFirst'],
  ] as const)('%o → %s, %s', (over, may, why) => expect(rule(over)).toEqual({ may, why }));
});
