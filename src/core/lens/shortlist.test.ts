import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_FAMILIES, wholeFamily } from '../../../demo/families';
import {
  cellOf,
  cellShare,
  FILTERS,
  isMade,
  isOfKind,
  leftOutBy,
  mostPlus,
  nearestLenses,
  preselectCurve,
  rangeGrid,
  shortlist,
  sift,
  toBePassed,
  type Refraction,
  type ShortlistFamily,
  type ShortlistWish,
  type TradeMarks,
} from '../index';

const families: readonly ShortlistFamily[] = DEMO_FAMILIES.map((f) => ({ ...wholeFamily(f, f.code), rotationPrior: null }));
const WISH: ShortlistWish = {
  today: '2026-11-24',
  age: 34,
  kind: null,
  adds: { right: null, left: null },
  asks: ['right', 'left'],
  dropped: [],
  withoutMaterial: null,
  settings: { oxygenSchool: 'harvittBonanno', oxygenByDay: 'warn' },
};
const NO_AXIS = { right: undefined, left: undefined };
const MARKS: TradeMarks = { ofKind: false, housePlace: null, stocked: false, yearlyCost: 0 };
const need = fc.record({
  sphere: fc.double({ min: -11, max: 7, noNaN: true }),
  cylinder: fc.double({ min: -3, max: 0, noNaN: true }),
  axis: fc.double({ min: 1, max: 180, noNaN: true }),
});
const options = (right: Refraction | null, left: Refraction | null, tolerance = 0.06) => ({
  needs: { right, left },
  lastAxis: NO_AXIS,
  cylinderCap: false,
  tolerance,
});

describe('what leaves a family out and may be passed', () => {
  const young = { ...WISH, age: 12 };
  const labelled = { ...families[0]!, minAge: 18 };
  it('a judgement is passed for the family that is wanted, never for another', () => {
    const other = { ...families[1]!, minAge: 18 };
    const { kept, leftOut } = sift([labelled, other], young, [labelled.code]);
    expect(kept.map((f) => f.code)).toEqual([labelled.code]);
    expect(leftOut.map((l) => [l.family.code, l.by.id])).toEqual([[other.code, 'ageLabel']]);
    expect(toBePassed(labelled, young)).toEqual(['ageLabel']);
    expect(toBePassed(labelled, WISH)).toEqual([]);
  });
  it('what is not made, not approved or not known is passed by nobody', () => {
    const nights = { ...WISH, kind: { modality: 'daily', wear: 'overnight', geometry: 'sphere', material: 'hydrogel' } as const };
    const unapproved = { ...families[0]!, overnightApproved: false };
    expect(sift([unapproved], nights, [unapproved.code]).leftOut[0]?.by.id).toBe('overnightNotApproved');
    const ended = { ...families[0]!, lastOrderOn: '2026-01-01' };
    expect(sift([ended], WISH, [ended.code]).leftOut[0]?.by.id).toBe('ended');
  });
});

describe('what a list must not say', () => {
  const single = sift(families, WISH).kept;
  it('no family stands further ahead than the best', () => {
    fc.assert(
      fc.property(need, (right) => {
        const rows = shortlist(single, WISH, options(right, null), () => MARKS);
        for (const row of rows) expect(row.behind).toBeGreaterThanOrEqual(0);
        expect(Math.min(...rows.map((r) => r.behind))).toBe(0);
      }),
      { numRuns: 60 },
    );
  });
  it('a silicone hydrogel kind is not matched by a hydrogel', () => {
    const kind = { modality: 'daily', wear: 'day', geometry: 'sphere', material: 'siliconeHydrogel' } as const;
    const family = { modality: 'daily', geometry: 'sphere', overnightApproved: false } as const;
    expect(isOfKind({ ...family, material: 'siliconeHydrogel' }, kind)).toBe(true);
    expect(isOfKind({ ...family, material: 'hydrogel' }, kind)).toBe(false);
    expect(isOfKind({ ...family, material: 'hydrogel' }, { ...kind, material: 'hydrogel' })).toBe(true);
  });
  it.each([
    [-2.13, -0.5, -2.25],
    [-2.4, 0, -2.25],
    [-2.25, 0, -2.25],
    [-2.26, 0, -2.25],
    [1.1, 0, 1.25],
    [-1, -0.5, -1.25],
  ])('a multifocal for %d / %d is asked for the most plus equivalent, %d (maximum plus: common practice)', (sphere, cylinder, equivalent) => {
    const asked = mostPlus({ sphere, cylinder, axis: 90 });
    expect(asked.sphere + asked.cylinder / 2).toBeCloseTo(equivalent, 9);
    expect([asked.cylinder, asked.axis]).toEqual([cylinder, 90]);
  });
});

describe('the order of families', () => {
  const single = sift(families, WISH).kept;
  it('is by the worse eye, in bands counted from the best, whatever the marks', () => {
    fc.assert(
      fc.property(need, need, fc.integer({ min: 0, max: 1000 }), (right, left, seed) => {
        const marks = (f: ShortlistFamily): TradeMarks => ({ ...MARKS, stocked: (f.code.length * seed) % 3 === 0, yearlyCost: (f.code.length * seed) % 97 });
        const rows = shortlist(single, WISH, options(right, left), marks);
        expect(rows).toHaveLength(single.length);
        for (const row of rows) {
          const blur = (n: Refraction): number => nearestLenses(n, row.family, { limit: 1 })[0]?.blur ?? Infinity;
          expect(row.worst).toBeCloseTo(Math.max(blur(right), blur(left)), 9);
        }
        const best = Math.min(...rows.map((r) => r.worst));
        let start = best;
        for (const band of new Set(rows.map((r) => r.band))) {
          const inBand = rows.filter((r) => r.band === band).map((r) => r.worst);
          if (band > 1) start = Math.min(...inBand);
          // Classes of blur are 0.005 D wide.
          for (const worst of inBand) expect(worst - start).toBeLessThanOrEqual(0.06 + 0.005);
        }
        const bands = rows.map((r) => r.band);
        expect(bands).toEqual([...bands].sort((a, b) => a - b));
      }),
      { numRuns: 60 },
    );
  });
  it('marks decide within a band only: kind, then house list, then drawer, then cost', () => {
    const right = { sphere: -3.13, cylinder: -1.59, axis: 20 };
    const order = (marks: (code: string) => Partial<TradeMarks>): string[] =>
      shortlist(single, WISH, options(right, null), (f) => ({ ...MARKS, ...marks(f.code) }))
        .filter((r) => r.band === 1)
        .map((r) => r.family.code);
    const [plain] = [order(() => ({}))];
    const last = plain.at(-1) ?? '';
    expect(plain.length).toBeGreaterThan(2);
    const cheap = (c: string): Partial<TradeMarks> => ({ yearlyCost: c === last ? 0 : 10 });
    const other = plain[1] ?? '';
    expect(order(cheap)[0]).toBe(last);
    expect(order((c) => ({ ...cheap(c), stocked: c === other })).slice(0, 2)).toEqual([other, last]);
    expect(order((c) => ({ stocked: c === other, housePlace: c === last ? 1 : null }))[0]).toBe(last);
    expect(order((c) => ({ ofKind: c === other, housePlace: c === last ? 1 : null }))[0]).toBe(other);
  });
});

describe('hard filters', () => {
  it('each names its source, and leaves out at least one family of the demo somewhere', () => {
    const seen = new Set<string>();
    const wishes: ShortlistWish[] = [
      WISH,
      { ...WISH, kind: { modality: 'monthly', wear: 'overnight', geometry: 'sphere', material: 'siliconeHydrogel' } },
      { ...WISH, withoutMaterial: 'hydrogel' },
      { ...WISH, dropped: ['Plover 30 Toric'], settings: { ...WISH.settings, oxygenByDay: 'leaveOut' } },
      { ...WISH, age: 15, adds: { right: 1.75, left: null } },
      { ...WISH, adds: { right: 3, left: null } },
    ];
    const odd: ShortlistFamily[] = [
      ...families,
      { ...families[4]!, name: 'Ended', code: 'ended', lastOrderOn: '2026-11-23' },
      { ...families[4]!, name: 'For cones', code: 'for-cones', irregular: true },
      { ...families[4]!, name: 'Thick', code: 'thick', overnightApproved: true, dktThickest: 90 },
    ];
    for (const wish of wishes) for (const f of odd) for (const by of [leftOutBy(f, wish)]) if (by) seen.add(by.id);
    expect([...seen].sort()).toEqual(FILTERS.map((f) => f.id).sort());
    expect(FILTERS.every((f) => f.source.text.length > 0)).toBe(true);
  });
  it('Dk/t at the thickest zone counts, never at the centre (Harvitt and Bonanno 1999: 125 by night; from memory)', () => {
    const nights = { ...WISH, kind: { modality: 'monthly', wear: 'overnight', geometry: 'sphere', material: 'siliconeHydrogel' } as const };
    const turnstone = families.find((f) => f.code === 'turnstone-30')!;
    expect(leftOutBy(turnstone, nights)).toBeNull();
    expect(leftOutBy({ ...turnstone, dktThickest: 124 }, nights)?.id).toBe('oxygenOvernight');
    expect(leftOutBy({ ...turnstone, dktThickest: null }, nights)?.id).toBe('oxygenOvernight');
  });
  it('the last day on which a family can be ordered still counts', () => {
    expect(leftOutBy({ ...families[4]!, lastOrderOn: '2026-11-24' }, WISH)).toBeNull();
  });
});

describe('curves to begin with (K foretells soft fit weakly: Young 1992, from memory)', () => {
  const curves = [
    { baseCurve: 8.4, diameter: 14 },
    { baseCurve: 8.8, diameter: 14 },
  ];
  it.each([
    [40.99, 8.8, 'flatK'],
    [41, 8.4, 'middleK'],
    [46, 8.4, 'middleK'],
    [46.01, 8.4, 'steepK'],
    [null, 8.4, 'noK'],
  ] as const)('mean K %s begins with %s', (k, baseCurve, why) =>
    expect(preselectCurve(curves, k)).toEqual({ curve: curves.find((c) => c.baseCurve === baseCurve), why }),
  );
  it('one curve is the only one; none is none', () => {
    expect(preselectCurve([curves[0]!], 40)?.why).toBe('onlyOne');
    expect(preselectCurve([], 40)).toBeNull();
  });
});

describe('the picture of a range', () => {
  it.each(families.map((f) => [f.name, f] as const))('%s: a cell is there exactly where the family makes a lens', (_name, family) => {
    const grid = rangeGrid(family.blocks);
    for (const sphere of [-12, -9.5, -6.25, -6, -3, 0, 2.25, 6.5, 8.5]) {
      for (const row of grid.rows) {
        const cell = cellOf(grid, { sphere, cylinder: row.cylinder, axis: 180 }, row.add);
        const axes = row.cylinder === 0 ? [180] : Array.from({ length: 180 }, (_, i) => i + 1);
        const made = axes.filter((axis) =>
          family.blocks.some((b) => b.curves.some((c) => isMade({ sphere, cylinder: row.cylinder, axis, add: row.add, ...c }, family))),
        );
        if (row.cylinder === 0) expect(cell !== undefined).toBe(made.length > 0);
        else expect(cell?.axes ?? []).toEqual(made);
        if (cell) expect(cellShare(cell, grid.axes)).toBeGreaterThan(0);
      }
    }
  });
  it('names where the step changes', () => expect(rangeGrid(families.find((f) => f.code === 'turnstone-30')!.blocks).stepChanges).toEqual([-6, 6]));
});
