import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  DEFAULT_SETTINGS,
  firedRules,
  adviceFacts,
  inTenths,
  LESION_KINDS,
  lesionProblem,
  nearestToCentre,
  sightThreats,
  triage,
  worstLesion,
  DANGER_SIGNS,
  type CornealLesion,
  type Findings,
} from '../index';

const lesion = (change: Partial<CornealLesion> = {}): CornealLesion => ({ kind: 'infiltrate', nasalMm: 0, upMm: 5, longMm: 1, acrossMm: 1, ...change });
const anyLesion = fc.record({
  kind: fc.constantFrom(...LESION_KINDS),
  nasalMm: fc.double({ min: -7, max: 7, noNaN: true }),
  upMm: fc.double({ min: -7, max: 7, noNaN: true }),
  longMm: fc.double({ min: 0.1, max: 12, noNaN: true }),
  acrossMm: fc.double({ min: 0.1, max: 12, noNaN: true }),
});

describe('what is drawn on a cornea', () => {
  it('lies on it, and has a size', () => {
    expect(lesionProblem(lesion())).toBeNull();
    expect(lesionProblem(lesion({ upMm: 7.1 }))?.code).toBe('lesionOffCornea');
    expect(lesionProblem(lesion({ longMm: 0 }))?.code).toBe('lesionSize');
    expect(lesionProblem(lesion({ longMm: 12.5 }))?.code).toBe('lesionSize');
    expect(lesionProblem(lesion({ acrossMm: 1.5 }))?.code).toBe('lesionAcrossLonger');
    expect(lesionProblem(lesion({ nasalMm: NaN }))?.code).toBe('lesionNotANumber');
  });
  it('is as near to the centre as its edge', () => {
    expect(nearestToCentre(lesion({ upMm: 4, longMm: 2 }))).toBe(3);
    expect(nearestToCentre(lesion({ upMm: 0.2, longMm: 2 }))).toBe(0);
  });
  it('in tenths it is never further off than half a tenth', () => {
    fc.assert(
      fc.property(anyLesion, (l) => {
        const kept = inTenths(l);
        for (const key of ['nasalMm', 'upMm', 'longMm', 'acrossMm'] as const) {
          expect(Math.abs(kept[key] - l[key])).toBeLessThanOrEqual(0.05 + 1e-9);
          expect(Math.round(kept[key] * 10)).toBeCloseTo(kept[key] * 10, 9);
        }
      }),
    );
  });
});

describe('sight is threatened (from memory: cells 1 or more, 2 mm, within 3 mm of the centre)', () => {
  it.each<[string, Findings, CornealLesion[], string[]]>([
    ['cells 1', { cells: 1 }, [], ['cells']],
    ['cells under 1', { cells: 0.5 }, [], []],
    ['an infiltrate of 2 mm at the edge', {}, [lesion({ upMm: 6, longMm: 2 })], ['large']],
    ['one of 1.9 mm', {}, [lesion({ upMm: 6, longMm: 1.9 })], []],
    ['one that reaches to 3 mm from the centre', {}, [lesion({ upMm: 3.5, longMm: 1 })], ['central']],
    ['one that ends just outside', {}, [lesion({ upMm: 3.6, longMm: 1 })], []],
    ['an ulcer counts as well', {}, [lesion({ kind: 'ulcer', upMm: 0, longMm: 0.5, acrossMm: 0.5 })], ['central']],
    ['staining alone does not', {}, [lesion({ kind: 'staining', upMm: 0, longMm: 4 })], []],
    ['ring, dendrite, pain beyond the signs', { ring: 'seen', dendrite: 'seen', painBeyond: 'yes' }, [], ['ring', 'dendrite', 'painBeyond']],
  ])('%s', (_name, seen, lesions, threats) => {
    expect(sightThreats(seen, lesions)).toEqual(threats);
  });
  it('another lesion never makes it less', () => {
    fc.assert(
      fc.property(fc.array(anyLesion, { maxLength: 4 }), anyLesion, (lesions, more) => {
        const before = sightThreats({}, lesions);
        expect(sightThreats({}, [...lesions, more])).toEqual(expect.arrayContaining([...before]));
      }),
    );
  });
  it('the rules read the worst of what is drawn: an ulcer stops, an infiltrate stops where the eye hurts', () => {
    expect(worstLesion([lesion(), lesion({ kind: 'ulcer' }), lesion({ kind: 'staining' })])).toBe('ulcer');
    const fired = (right: Findings) =>
      firedRules(
        adviceFacts({
          answers: {},
          age: 30,
          guardianNamed: true,
          eyes: { right, left: {} },
          baseline: { right: {}, left: {} },
          power: null,
          settings: DEFAULT_SETTINGS,
        }),
      ).map((f) => `${f.rule.strength}:${f.rule.id}`);
    expect(fired({ lesion: 'ulcer' })).toContain('absolute:cornealUlcer');
    expect(fired({ lesion: 'infiltrate' })).toEqual(['stop:infiltrate']);
    expect(fired({ lesion: 'infiltrate', pain: 1 })).toContain('absolute:infiltrateDrawn');
    expect(fired({ lesion: 'staining' })).toEqual([]);
  });
});

describe('whoever answers the telephone (common practice)', () => {
  it.each<[string, Parameters<typeof triage>[0], string]>([
    ['redness alone is seen the same day', ['redness'], 'today'],
    ['pain is seen at once', ['pain'], 'now'],
    ['light that hurts is seen at once', ['light'], 'now'],
    ['changed sight is seen at once', ['vision'], 'now'],
    ['three signs together are seen at once', ['redness', 'discharge', 'something'], 'now'],
    ['two of them the same day', ['redness', 'discharge'], 'today'],
  ])('%s', (_name, signs, urgency) => {
    expect(triage(signs).urgency).toBe(urgency);
  });
  it('a sign more never makes it less urgent', () => {
    fc.assert(
      fc.property(fc.subarray([...DANGER_SIGNS]), fc.constantFrom(...DANGER_SIGNS), (signs, more) => {
        if (triage(signs).urgency === 'now') expect(triage([...new Set([...signs, more])]).urgency).toBe('now');
      }),
    );
  });
});
