import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseRefraction, type RefractionFact } from '../../src/core';
import { addsTyped, asSphere, crossText, doubtsOf, otherMeridian, thumbOf } from '../../src/features/visit/steps/refraction/model';
import { byWords, extentOf, lifeOf } from '../../src/features/library/model';
import { byPower, powerSought } from '../../src/features/library/powerSearch';
import { must } from '../../src/lib/assert';
import { families, record } from '../fixtures';

describe('a power cross typed in its parts', () => {
  it('is read as the line it makes', () => {
    expect(parseRefraction(crossText('-1.00', '180', '-2.25'))).toMatchObject({ ok: true, value: { sphere: -1, cylinder: -1.25, axis: 180 } });
    expect(parseRefraction(crossText('-1,00', '20', '-2,25'))).toMatchObject({ ok: true, value: { sphere: -1, cylinder: -1.25, axis: 20 } });
    expect(crossText('', ' ', '')).toBe('');
    expect(parseRefraction(crossText('-1.00', '200', '-2.25')).ok).toBe(false);
  });
  it('the other meridian lies across, and across again is where it began', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 180 }), (at) => {
        const other = otherMeridian(String(at)) ?? 0;
        expect(Math.abs(other - at)).toBe(90);
        expect(otherMeridian(String(other))).toBe(at);
      }),
    );
    expect([otherMeridian('0'), otherMeridian('181'), otherMeridian('x'), otherMeridian('')]).toEqual([90, null, null, null]);
  });
});

describe('beside the exact power', () => {
  it('the rule of thumb, meridian by meridian, only where it has something to say', () => {
    expect(thumbOf({ sphere: -5.25, cylinder: -1.75, axis: 20 })).toEqual({ sphere: -5, cylinder: -1.5, axis: 20 });
    expect(thumbOf({ sphere: -3.25, cylinder: -1.75, axis: 20 })).toEqual({ sphere: -3.25, cylinder: -1.5, axis: 20 });
    expect(thumbOf({ sphere: -2, cylinder: -1, axis: 20 })).toBeNull();
  });
  it('what a sphere leaves: half the cylinder as blur (Thibos 1997)', () => {
    const alone = asSphere({ sphere: -3, cylinder: -1.5, axis: 37 });
    expect(alone).toMatchObject({ sphere: -3.75, cylinder: 1.5 });
    expect(alone.blur).toBeCloseTo(0.75, 9);
  });
});

describe('near additions typed', () => {
  it('an accepted estimate fills both eyes and says where it is from', () => {
    expect(addsTyped({ addFromAge: 'yes', rightAdd: '3' }, 52)).toEqual({
      text: { right: '+2.00', left: '+2.00' },
      value: { right: 2, left: 2 },
      source: 'age',
    });
    expect(addsTyped({ rightAdd: '175', leftAdd: 'x' }, 52)).toMatchObject({ value: { right: 1.75, left: null }, source: 'measured' });
    expect(addsTyped({ addFromAge: 'yes' }, 30)).toMatchObject({ value: { right: null }, source: 'measured' });
  });
});

describe('what is worth asking', () => {
  const earlier = (eye: 'right' | 'left', sphereD: number): RefractionFact => ({ eye, sphereD, cylinderD: 0, axisDeg: 180 }) as RefractionFact;
  const person = { ...record(), earlierRefractions: [earlier('right', -2), earlier('left', -4.25)] };
  const NONE = { right: null, left: null };
  const now = (right: number, left: number) => ({ right: { sphere: right, cylinder: 0, axis: 180 }, left: { sphere: left, cylinder: 0, axis: 180 } });
  it('exchanged eyes are asked about once, not as two large changes', () => {
    expect(doubtsOf(person, now(-4.25, -2), { right: '', left: '' }, NONE)).toMatchObject({ swapped: true, changed: [] });
    expect(doubtsOf(person, now(-3.5, -4.25), { right: '', left: '' }, NONE)).toMatchObject({ swapped: false, changed: [{ eye: 'right', change: 1.5 }] });
  });
  it('prism as typed, else as recorded', () => {
    const recorded = { right: '3Δ BI', left: null };
    expect(doubtsOf(person, now(-2, -4.25), { right: '', left: '-4.25 1 BU' }, recorded).prism).toEqual([
      { eye: 'right', prism: '3Δ BI' },
      { eye: 'left', prism: '1 BU' },
    ]);
    expect(doubtsOf(person, now(-2, -4.25), { right: '-2.00', left: '' }, recorded).prism).toEqual([]);
  });
  it('nearsighted and near forty: said; young or farsighted: not', () => {
    const aged = (age: number) => ({ ...person, wearer: { ...person.wearer, age } });
    const said = (age: number, power: number) => doubtsOf(aged(age), now(power, power), { right: '', left: '' }, NONE).nearForty;
    expect([said(40, -3), said(36, -3), said(40, 2), said(46, -3)]).toEqual([true, false, false, false]);
  });
});

describe('the library', () => {
  it('is found by words in any order, without case or accents', () => {
    expect(byWords(families, 'TORIC márram').map((f) => f.family.code)).toEqual(expect.arrayContaining(['plover-30-toric', 'dunlin-1-day-toric']));
    expect(byWords(families, 'toric marram').every((f) => f.family.maker === 'Marram Optical')).toBe(true);
    expect(byWords(families, 'no such')).toEqual([]);
    expect(byWords(families, '')).toHaveLength(families.length);
  });
  it('and by a power: nearest first, with how far out', () => {
    expect(powerSought('plover')).toBeNull();
    const rows = byPower(families, must(powerSought('-3.25 -3.25 x 25'), 'power'), 12);
    expect(rows[0]?.family.code).toBe('godwit-made-toric');
    const blurs = rows.map((r) => r.reach?.blur ?? Infinity);
    expect(blurs).toEqual([...blurs].sort((a, b) => a - b));
    // -6.50 along the other meridian is -6.030 at the cornea, -3.25 is -3.128 (computed): 2.902 D of cylinder, 0.652 past 2.25.
    expect(rows.find((r) => r.family.code === 'plover-30-toric')?.out?.cylinder).toBeCloseTo(0.652, 3);
  });
  it('says in a line what a family makes, and where it stands in its life', () => {
    const plover = families.find((f) => f.code === 'plover-30-toric');
    expect(extentOf(plover?.blocks ?? [])).toEqual({ from: -9, to: 6, cylinder: -2.25, curves: ['8.6 / 14.2'] });
    expect(extentOf([])).toBeNull();
    expect(['2026-11-23', '2026-11-24', null].map((lastOrderOn) => lifeOf({ lastOrderOn }, '2026-11-24'))).toEqual(['ended', 'ending', 'open']);
  });
});
