import { describe, expect, it } from 'vitest';
import { geometryOfEyes, setsApart } from '../advice/recommend';
import { bestThroughLens, isUnrestored, sightDoubts, type EyeAcuities } from '../fit/overDoubts';
import type { RefractionFact } from '../record/visitFacts';
import { accommodates, addKnown, addsKnown } from './addKnown';
import { aimsOf, servedBy, writtenAims } from './aims';
import { nearState, type NearWay } from './nearFindings';

const row = (eye: 'right' | 'left', addD: number | null, nearCm: number | null = 40): RefractionFact => ({
  id: `${eye}${addD}`,
  rootId: `${eye}${addD}`,
  visitId: 'v',
  correctsId: null,
  voided: false,
  eye,
  observedAt: '2026-01-05T10:00:00Z',
  recordedAt: '2026-01-05T10:00:00Z',
  recordedBy: 'p',
  recordedByName: 'P',
  reason: null,
  sphereD: -2,
  cylinderD: 0,
  axisDeg: 180,
  vertexMm: 12,
  typedText: '-2',
  source: 'typed',
  addD,
  addSource: addD === null ? null : 'measured',
  nearCm,
  nearAcuityLogMar: null,
  nearAcuityTyped: null,
  prismText: null,
  acuityLogMar: null,
  acuityTyped: null,
});
const chain = (fact: RefractionFact) => ({ rootId: fact.id, rows: [fact], current: fact });

describe('the addition a wearer is served by', () => {
  it('is of this visit; only where none was found here the newest of an earlier one stands', () => {
    const before = [row('right', 1.5), row('left', 1.5)];
    expect(addKnown([chain(row('right', 2)), chain(row('left', null))], before)).toMatchObject({ addD: 2, cm: 40 });
    expect(addKnown([chain(row('right', null)), chain(row('left', null))], before)?.addD).toBe(1.5);
    expect(addsKnown([chain(row('right', 2))], before).left).toBeNull();
    expect(addKnown([], [])).toBeNull();
  });
  it('with its distance tells what is still accommodated', () => {
    expect(accommodates(addKnown([chain(row('right', 1.5, 40))], []))).toBe(1);
    expect(accommodates(addKnown([chain(row('right', 1.5, 50))], []))).toBe(0.5);
    // Where nobody wrote the distance down 40 cm is taken.
    expect(accommodates(addKnown([chain(row('right', 1.5, null))], []))).toBe(1);
    expect(accommodates(null)).toBe(0);
  });
});

describe('what an eye is to see, as it is written on the prescription', () => {
  const add = addKnown([chain(row('right', 1.5, 33))], []);
  it('is nothing until it is decided how near is served', () => expect(writtenAims(nearState([]), add)).toBeNull());
  it('names each eye: far, near with its distance, or both', () => {
    const near = { ...nearState([]), dominanceBlur: 'left' as const };
    expect(writtenAims({ ...near, way: 'monovision' }, add)).toEqual({ left: { sees: 'far', cm: null }, right: { sees: 'near', cm: 33 } });
    expect(writtenAims({ ...near, way: 'multifocal' }, null)).toEqual({ left: { sees: 'both', cm: 40 }, right: { sees: 'both', cm: 40 } });
    expect(writtenAims({ ...near, way: 'readers' }, add)?.right).toEqual({ sees: 'far', cm: null });
  });
});

describe('what is looked for among lenses', () => {
  it('is set nearer for a near eye and has an addition only where far and near are seen', () => {
    const far = { sphere: -3, cylinder: 0, axis: 180 };
    const asked = { needs: { right: far, left: far }, adds: { right: 1.5, left: 1.5 } };
    const near = { ...nearState([]), dominanceBlur: 'left' as const };
    const of = (way: NearWay) => servedBy(aimsOf({ ...near, way }, 1.5), asked);
    expect(of('monovision')).toMatchObject({ needs: { right: { sphere: -1.5 }, left: { sphere: -3 } }, adds: { right: null, left: null } });
    expect(of('multifocal')).toEqual(asked);
    expect(of('modified')).toMatchObject({ needs: asked.needs, adds: { right: 1.5, left: null } });
  });
  it('an eye that sees far only has no addition in its kind of lens; cylinder is each eye’s own', () => {
    const needs = { right: { sphere: -2, cylinder: -1.25, axis: 20 }, left: { sphere: -2, cylinder: 0, axis: 180 } };
    const near = { ...nearState([]), dominanceBlur: 'left' as const };
    expect(geometryOfEyes(needs, aimsOf({ ...near, way: 'modified' }, 1.5))).toEqual({ right: 'toricMultifocal', left: 'sphere' });
    expect(geometryOfEyes(needs, aimsOf({ ...near, way: 'toricOneEye' }, 1.5))).toEqual({ right: 'toricMultifocal', left: 'multifocal' });
    expect(setsApart('toricOneEye') && setsApart('modified') && !setsApart('multifocal') && !setsApart(null)).toBe(true);
  });
});

describe('sight of a near eye', () => {
  const nearEye: EyeAcuities = { glasses: 0, lens: 0.5, over: null, pinhole: null, nearEye: true };
  it('is not judged by what its lens shows at far', () => {
    expect(isUnrestored({ ...nearEye, nearEye: false })).toBe(true);
    expect(bestThroughLens(nearEye)).toBeNull();
    expect(isUnrestored(nearEye)).toBe(false);
  });
  it('is judged at near, or at far with its far power given back: short of it it asks like any other', () => {
    expect(isUnrestored({ ...nearEye, near: 0.1 })).toBe(false);
    expect(isUnrestored({ ...nearEye, near: 0.3 })).toBe(true);
    expect(isUnrestored({ ...nearEye, over: 0.3 })).toBe(true);
    expect(isUnrestored({ ...nearEye, over: 0.02, near: 0.3 })).toBe(false);
  });
  it('minus that gives its far power back is no minus to be earned', () => {
    const over = { sphere: -1.5, cylinder: 0, axis: 180 };
    expect(sightDoubts({ ...nearEye, nearEye: false, over: 0.5 }, over).map((d) => d.code)).toContain('minusNoLine');
    expect(sightDoubts({ ...nearEye, over: 0 }, over).map((d) => d.code)).not.toContain('minusNoLine');
    expect(sightDoubts(nearEye, over).map((d) => d.code)).not.toContain('minusUnread');
  });
});
