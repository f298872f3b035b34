import { describe, expect, it } from 'vitest';
import { record } from '../fixtures';
import {
  kindAsked,
  listOf as coreList,
  shapeFor,
  soFar,
  toCornealPlane,
  WITHIN_RANGE,
  type Eye,
  type HealthState,
  type ListChoice,
  type Refraction,
} from '../../src/core';
import { bestFor, curveFor, inDrawer, listInputOf } from '../../src/features/visit/shell/candidates';
import type { VisitRecord } from '../../src/features/visit/shell/visitData';
import { chosenOf, comparedOf, firstChoice, toggled, whyOf, type Row } from '../../src/features/visit/steps/lens/model';

const needs: Record<Eye, Refraction | null> = {
  right: toCornealPlane({ sphere: -3.25, cylinder: -1.75, axis: 20 }, 12),
  left: toCornealPlane({ sphere: -4.5, cylinder: -1.25, axis: 165 }, 12),
};
const stock = (familyCode: string, sphereD: number, cylinderD: number, axisDeg: number) => ({
  familyCode,
  sphereD,
  cylinderD,
  axisDeg,
  baseCurveMm: 8.6,
  diameterMm: 14.2,
  addBand: null,
  count: 2,
});
interface Room {
  readonly record: VisitRecord;
  readonly health: Pick<HealthState, 'answers'>;
  readonly lastAxis: Readonly<Record<Eye, number | undefined>>;
}
const listRoom = (r: Room) => listInputOf(r.record, r.health.answers, r.lastAxis);
const listOf = (r: Room, asked: ListChoice) => coreList(listRoom(r), asked);
const NO_AXIS = { right: undefined, left: undefined };
const room = (change: Partial<VisitRecord> = {}): Room => {
  const plain = record();
  return {
    record: {
      ...plain,
      drawer: [stock('plover-30-toric', -3, -1.75, 20), stock('plover-30-toric', -4.25, -1.25, 160)],
      session: { ...plain.session, settings: { ...plain.session.settings, oxygenByDay: 'warn' } },
      ...change,
    },
    health: { answers: {} },
    lastAxis: NO_AXIS,
  };
};
const choice = (change: Partial<ListChoice> = {}): ListChoice => ({
  needs,
  adds: { right: null, left: null },
  kind: null,
  shape: 'all',
  withoutMaterial: null,
  product: null,
  ...change,
});
const codes = (list: { readonly rows: readonly { readonly family: { readonly code: string } }[] }): string[] => list.rows.map((r) => r.family.code);

describe('the list of families', () => {
  const here = room();
  const list = listOf(here, choice());
  it('puts first, within a band of equal blur, what is in the drawer', () => {
    const band = list.rows.filter((r) => r.band === 1).map((r) => r.family.code);
    expect(band).toContain('sanderling-14-toric');
    expect(band[0]).toBe('plover-30-toric');
  });
  it('bands are counted from the best and never mixed', () => {
    const bands = list.rows.map((r) => r.band);
    expect(bands).toEqual([...bands].sort((a, b) => a - b));
    for (const band of new Set(bands)) {
      const blurs = list.rows.filter((r) => r.band === band && Number.isFinite(r.worst)).map((r) => r.worst);
      if (blurs.length > 0) expect(Math.max(...blurs) - Math.min(...blurs)).toBeLessThanOrEqual(0.06 + 1e-9);
    }
  });
  it('within a band: the kind decided before the house list before the drawer before the cost', () => {
    const band = (l: ReturnType<typeof listOf>): string[] => l.rows.filter((r) => r.band === 1).map((r) => r.family.code);
    const cell = (code: string, modality: 'twoWeekly' | 'monthly') => ({
      id: code,
      modality,
      geometry: 'toric' as const,
      codes: [code],
      recordedAt: '',
      recordedByName: '',
    });
    const session = room({ houseList: [cell('sanderling-14-toric', 'twoWeekly')] });
    expect(band(listOf(session, choice()))[0]).toBe('sanderling-14-toric');
    const monthly = { modality: 'monthly', wear: 'day', geometry: 'toric', material: 'siliconeHydrogel' } as const;
    expect(band(listOf(session, choice({ kind: monthly })))[0]).toBe('plover-30-toric');
    expect(band(listOf(room({ drawer: [] }), choice()))).toEqual(
      [...list.rows]
        .filter((r) => r.band === 1)
        .sort((a, b) => a.yearlyCost - b.yearlyCost)
        .map((r) => r.family.code),
    );
  });
  it('counts only lenses that may still be used', () => {
    const plover = list.rows.find((r) => r.family.code === 'plover-30-toric');
    if (!plover) throw new Error('plover');
    const [first, twin] = bestFor(here.record, plover.family, needs.left, null, undefined);
    if (!first || !twin) throw new Error('lenses');
    expect([first.power.axis, twin.power.axis]).toEqual([160, 170]);
    expect(inDrawer(here.record, 'plover-30-toric', first, null)).toBe(2);
    expect(inDrawer(here.record, 'plover-30-toric', twin, null)).toBe(0);
  });
  it('eyes apart are ranked by one eye', () => {
    const worst = (eyes: readonly Eye[] | undefined): number =>
      listOf(here, choice(eyes ? { rankedBy: eyes } : {})).rows.find((r) => r.family.code === 'turnstone-30')?.worst ?? NaN;
    expect(worst(['left'])).toBeLessThan(worst(['right']));
    expect(worst(undefined)).toBe(Math.max(worst(['left']), worst(['right'])));
  });
  it('an eye past every family stands last and is said to be unreached only when nothing is made', () => {
    const far = listOf(here, choice({ needs: { right: { sphere: -25, cylinder: 0, axis: 180 }, left: null } }));
    expect(far.rows.every((r) => r.worst > 10)).toBe(true);
  });
});

describe('families left out', () => {
  const why = (change: Partial<ListChoice>, at: Room = room()): Record<string, string> =>
    Object.fromEntries(listOf(at, choice(change)).leftOut.map((l) => [l.family.code, l.by.id]));
  it('lenses with an add, while none is known; those not made in it, once it is', () => {
    expect(why({})['curlew-multifocal']).toBe('addUnknown');
    const withAdd = why({ adds: { right: 1.75, left: 1.75 } });
    expect(withAdd['curlew-multifocal']).toBeUndefined();
    // Its maker's high is for +1.75 too; beyond +2.50 it makes none.
    expect(withAdd['sanderling-14-multifocal']).toBeUndefined();
    expect(why({ adds: { right: 2.75, left: 2.75 } })['sanderling-14-multifocal']).toBe('addNotMade');
  });
  it('not approved, or too little oxygen where thickest, for nights', () => {
    const nights = why({ kind: { modality: 'monthly', wear: 'overnight', geometry: 'sphere', material: 'siliconeHydrogel' } });
    expect(nights['plover-30-toric']).toBe('overnightNotApproved');
    expect(nights['turnstone-30']).toBeUndefined();
  });
  it('too little oxygen by day, where the practice leaves such lenses out', () => {
    const strict = room();
    const settings = { ...strict.record.session.settings, oxygenByDay: 'leaveOut' as const };
    const found = why({}, { ...strict, record: { ...strict.record, session: { ...strict.record.session, settings } } });
    expect(found['godwit-made-toric']).toBe('oxygenByDay');
    expect(found['plover-30-toric']).toBeUndefined();
  });
  it('a material left out; a label that names an age; a lens that can no longer be ordered; the lens that failed', () => {
    expect(why({ withoutMaterial: 'hydrogel' })['godwit-made-toric']).toBe('material');
    const young = room();
    expect(
      why({ adds: { right: 1, left: 1 } }, { ...young, record: { ...young.record, wearer: { ...young.record.wearer, age: 15 } } })['dunlin-1-day-multifocal'],
    ).toBe('ageLabel');
    const ended = room({ families: young.record.families.map((f) => (f.code === 'turnstone-30' ? { ...f, lastOrderOn: '2026-11-23' } : f)) });
    expect(why({}, ended)['turnstone-30']).toBe('ended');
    const dropped = {
      ...room(),
      health: { answers: { whyChange: { value: ['dryness'], note: null }, whichLens: { value: 'monthly', note: 'plover 30 toric' } } },
    };
    expect(why({}, dropped)['plover-30-toric']).toBe('failedBefore');
    expect(why({ anyway: 'plover-30-toric' }, dropped)['plover-30-toric']).toBeUndefined();
  });
});

describe('what is chosen to begin with', () => {
  const here = room();
  const daily = { modality: 'daily', wear: 'day', geometry: 'sphere', material: 'hydrogel' } as const;
  const list = listOf(here, choice({ kind: daily }));
  const rows = list.rows.map((r): Row => ({
    ...r,
    needs,
    best: { right: bestFor(here.record, r.family, needs.right, null, undefined), left: bestFor(here.record, r.family, needs.left, null, undefined) },
  }));
  it('is the first of the kind decided, though others leave less blur', () => {
    expect(list.rows[0]?.ofKind).toBe(false);
    expect(firstChoice(list.rows)?.family.code).toBe('dunlin-1-day');
    expect(chosenOf({}, 'right', rows, firstChoice(list.rows), null)?.family.code).toBe('dunlin-1-day');
  });
  it('R and L may be of different families, or one left out', () => {
    const body = { rightFamily: 'turnstone-30', leftFamily: 'none' };
    expect(chosenOf(body, 'right', rows, undefined, null)?.family.code).toBe('turnstone-30');
    expect(chosenOf(body, 'left', rows, undefined, null)).toBeNull();
  });
  it('a flat cornea gets the flatter curve of two, a steep one the steeper; weak', () => {
    const [lens] = bestFor(here.record, rows.find((r) => r.family.code === 'turnstone-30')?.family ?? rows[0]!.family, needs.right, null, undefined);
    if (!lens) throw new Error('lens');
    expect([40.9, 43, 46.1, null].map((k) => curveFor(lens, k)?.curve.baseCurve)).toEqual([8.8, 8.4, 8.4, 8.4]);
    expect(curveFor(lens, 40.9)?.why).toBe('flatK');
  });
  it('says why a row stands where it does', () => {
    expect(list.rows.filter((r) => r.band === 1).map((r) => whyOf(r)[0]?.code)).toEqual(expect.arrayContaining(['best', 'band']));
    const kind = list.rows.find((r) => r.ofKind);
    expect(kind && whyOf(kind).map((w) => w.code)).toContain('ofKind');
    expect(kind && whyOf(kind)[0]?.code).toBe('behind');
  });
});

describe('side by side', () => {
  it('up to three; a fourth changes nothing; pressed again it goes', () => {
    expect(toggled(['a', 'b'], 'c')).toEqual(['a', 'b', 'c']);
    expect(toggled(['a', 'b', 'c'], 'd')).toEqual(['a', 'b', 'c']);
    expect(toggled(['a', 'b', 'c'], 'b')).toEqual(['a', 'c']);
    expect(comparedOf({ compare: 'a,,b' })).toEqual(['a', 'b']);
  });
});

describe('sphere or toric (common practice)', () => {
  it.each([
    [-3, -0.5, 'sphere'],
    [-3, -0.74, 'either'],
    [-3, -1.59, 'toric'],
    [-8, -1, 'either'],
  ] as const)('%d %d asks %s', (sphere, cylinder, kind) => {
    expect(kindAsked({ sphere, cylinder, axis: 90 })).toBe(kind);
  });
  it('the list begins with spheres where both eyes have little cylinder, with adds where one is known', () => {
    const little = { sphere: -2, cylinder: -0.4, axis: 90 };
    expect(shapeFor({ right: little, left: little }, { right: null, left: null })).toBe('sphere');
    expect(shapeFor(needs, { right: null, left: null })).toBe('all');
    expect(shapeFor(needs, { right: 1.5, left: 1.5 })).toBe('add');
    expect(codes(listOf(room(), choice({ shape: 'sphere' }))).every((c) => !c.includes('toric'))).toBe(true);
  });
});

describe('a turn belongs to the family it was read on', () => {
  const turned = { ...needs, right: { sphere: -3.13, cylinder: -1.59, axis: 30 } };
  const plain = { ...needs, right: { sphere: -3.13, cylinder: -1.59, axis: 20 } };
  const here = room();
  const needsFor = (code: string) => (code === 'plover-30-toric' ? turned : plain);
  it('that family is asked for the turned axis, another for the plain one', () => {
    const list = listOf(here, choice({ needs: plain, needsFor }));
    const blur = (code: string): number => list.rows.find((r) => r.family.code === code)?.worst ?? NaN;
    const without = listOf(here, choice({ needs: plain }));
    const all = listOf(here, choice({ needs: turned }));
    const of = (rows: typeof list.rows, code: string): number => rows.find((r) => r.family.code === code)?.worst ?? NaN;
    expect(blur('plover-30-toric')).toBe(of(all.rows, 'plover-30-toric'));
    expect(blur('sanderling-14-toric')).toBe(of(without.rows, 'sanderling-14-toric'));
    expect(blur('dunlin-1-day-toric')).toBe(of(without.rows, 'dunlin-1-day-toric'));
  });
});

describe('the best so far, while it is typed', () => {
  const here = room();
  const asked = { needs, adds: { right: null, left: null } };
  it('is the head of the list with its nearest powers', () => {
    const list = listOf(here, choice({ shape: shapeFor(needs, asked.adds) }));
    const found = soFar({ room: listRoom(here), kind: null, product: null }, asked);
    expect(found.best.map((b) => b.code)).toEqual(codes(list).slice(0, 3));
    expect(found.reached).toBe(list.rows.filter((r) => r.worst <= WITHIN_RANGE).length);
    const [first] = list.rows;
    expect(found.best[0]?.powers.right).toEqual(first && bestFor(here.record, first.family, needs.right, null, undefined, 1)[0]?.power);
  });
  it('asks nothing of an eye that is not fitted', () => {
    const found = soFar({ room: listRoom(here), kind: null, product: null }, { ...asked, needs: { ...needs, left: null } });
    expect(found.best[0]?.powers.left).toBeNull();
  });
  it('what it is told and what it answers can cross to another thread', () => {
    const settled = { room: listRoom(here), kind: null, product: null };
    expect(structuredClone(settled)).toEqual(settled);
    const found = soFar(structuredClone(settled), asked);
    expect(structuredClone(found)).toEqual(soFar(settled, asked));
  });
});
