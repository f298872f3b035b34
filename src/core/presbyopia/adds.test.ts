import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_FAMILIES, wholeFamily } from '../../../demo/families';
import {
  addFor,
  addsOf,
  compareAdds,
  hasAdd,
  isLensAdd,
  parseLensAdd,
  readAddTable,
  readChangeRule,
  readStartTable,
  startPair,
  writeAddTable,
  writeChangeRule,
  writeStartTable,
  type LensAdd,
} from '../index';

const multifocals = DEMO_FAMILIES.map((f) => wholeFamily(f, f.code)).filter(hasAdd);

describe('additions as their family makes them', () => {
  it.each([
    ['High', 'high'],
    ['+1.5', '+1.50'],
    ['1,75', '+1.75'],
    ['cn 2', 'CN +2.00'],
    ['CD +2.00', 'CD +2.00'],
    ['huge', null],
    ['+1.30', null],
    ['+5.00', null],
    ['', null],
  ])('%s is read as %s', (typed, read) => expect(parseLensAdd(typed)).toBe(read));
  it('what is read is written so', () => {
    for (const text of ['low', '+1.50', 'CN +2.25']) expect(isLensAdd(parseLensAdd(text) ?? '')).toBe(true);
  });
  it('stand weakest first, single vision before all', () => {
    const mixed: (LensAdd | null)[] = ['high', '+1.50', null, 'CN +1.00', 'low'];
    expect([...mixed].sort(compareAdds)).toEqual([null, 'CN +1.00', 'low', '+1.50', 'high']);
  });
  it.each([
    [0.75, 'low'],
    [1.25, 'low'],
    [1.5, 'medium'],
    [2, 'medium'],
    [2.25, 'high'],
    [3, 'high'],
  ])('usual bands: +%d is %s (common practice: low to +1.25, medium to +2.00, high from +2.25)', (add, band) => {
    expect(addFor({ blocks: [{ adds: ['low', 'medium', 'high'] }] }, add)?.add).toBe(band);
  });
  it('a family without a medium serves it by its next; one that is too weak serves nothing', () => {
    expect(addFor({ blocks: [{ adds: ['low', 'high'] }] }, 1.5)?.add).toBe('high');
    expect(addFor({ blocks: [{ adds: ['low', 'medium'] }] }, 2.5)).toBeNull();
  });
});

describe('the tables of a family', () => {
  it('are read back as they were written', () => {
    for (const f of multifocals) {
      expect(readAddTable(writeAddTable(f.addTable))).toEqual(f.addTable);
      expect(readStartTable(writeStartTable(f.startTable))).toEqual(f.startTable);
      if (f.changeRule) expect(readChangeRule(writeChangeRule(f.changeRule))).toEqual(f.changeRule);
    }
    expect(multifocals.length).toBeGreaterThan(3);
  });
  it.each(['low 1.25', 'low <=1.25', 'big <=1 +1', 'low <=1.25 +1.00 sideways'])('%s is no table of additions', (text) =>
    expect(readAddTable(text)).toBeNull(),
  );
  it.each(['low / low', 'add <=x low / low', 'add <=1.25 low', 'add <=1.25 low / huge', 'add <=1.25 low@0.25 / low'])('%s is no start table', (text) =>
    expect(readStartTable(text)).toBeNull(),
  );
  it.each(['far: dominant-', 'near: other+ | far: dominant-', 'far: | near: other+', 'far: third- | near: other+'])('%s is no rule', (text) =>
    expect(readChangeRule(text)).toBeNull(),
  );
  it('every line of every start table of the demo is reached, and names only what the family makes', () => {
    for (const f of multifocals) {
      expect(f.startTable.length, f.code).toBeGreaterThan(0);
      const made = new Set(addsOf(f).map((a) => a.add));
      const reached = new Set<unknown>();
      for (let age = 40; age <= 75; age++)
        for (let quarter = 2; quarter <= 14; quarter++)
          for (const need of [-2, 2]) {
            const start = startPair(f, { age, add: quarter / 4, dominant: 'left', need: { right: need, left: need } });
            if (start?.row) reached.add(start.row);
            for (const lens of Object.values(start?.lenses ?? {})) expect(made.has(lens.add), `${f.code} ${lens.add}`).toBe(true);
          }
      expect(reached.size, f.code).toBe(f.startTable.length);
    }
  });
  it('the dominant eye gets its lens; unknown, the right one does', () => {
    const family = { blocks: [{ adds: ['low', 'high'] as const }], startTable: readStartTable('add <=4 low / high@+0.25') ?? [] };
    const who = { age: 55, add: 2, need: { right: -1, left: -1 } };
    expect(startPair(family, { ...who, dominant: 'left' })?.lenses).toMatchObject({ left: { add: 'low', plus: 0 }, right: { add: 'high', plus: 0.25 } });
    expect(startPair(family, { ...who, dominant: null })?.lenses.right.add).toBe('low');
  });
  it('without a table both eyes get the addition for the measured one', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 4, noNaN: true }), (add) => {
        const family = { blocks: [{ adds: ['low', 'medium', 'high'] as const }] };
        const start = startPair(family, { age: 50, add, dominant: null, need: { right: 0, left: 0 } });
        expect(start?.lenses.right.add).toBe(addFor(family, add)?.add);
        expect(start?.lenses.left).toEqual(start?.lenses.right);
      }),
    );
  });
});
