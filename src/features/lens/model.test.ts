import { describe, expect, it } from 'vitest';
import { DEMO_FAMILIES } from '../../../demo/families';
import { eyeVerdict, toCornealPlane, type Eye, type EyeState, type Refraction } from '@/core';
import type { VisitRecord } from '@/services/visitRecord';
import { candidates, chosenOf, inDrawer, kindAsked } from './model';

const need: Record<Eye, Refraction | null> = {
  right: toCornealPlane({ sphere: -3.25, cylinder: -1.75, axis: 20 }, 12),
  left: toCornealPlane({ sphere: -4.5, cylinder: -1.25, axis: 165 }, 12),
};
const stock = (familyVersionId: string, sphereD: number, cylinderD: number, axisDeg: number, expiresOn = '2027-01-01') => ({
  familyVersionId,
  sphereD,
  cylinderD,
  axisDeg,
  baseCurveMm: 8.6,
  diameterMm: 14.2,
  addBand: null,
  count: 2,
  expiresOn,
});
const record = {
  families: DEMO_FAMILIES.map((f) => ({ ...f, id: f.code })),
  house: { settings: { cylinderCap: false, rankTolerance: 0.06 }, today: '2026-11-24' },
  stock: [stock('plover-30-toric', -3, -1.75, 20), stock('plover-30-toric', -4.25, -1.25, 160), stock('plover-30-toric', -4.25, -1.25, 170, '2026-11-23')],
} as unknown as VisitRecord;
const untried = {
  onEye: null,
  verdict: eyeVerdict({ refraction: null, lens: null, rotationLeft: null, overRefraction: null, readerNoise: 2 }),
} as unknown as EyeState;
const rows = candidates(
  record,
  need,
  () => untried,
  () => undefined,
);

describe('the list of families', () => {
  it('puts first, within equal blur, what is in the drawer', () => {
    expect(rows[0]?.family.code).toBe('plover-30-toric');
    expect(rows[0]?.best.right[0]?.power).toEqual({ sphere: -3, cylinder: -1.75, axis: 20 });
  });
  it('keeps lenses with an add behind single vision', () => {
    const firstAdd = rows.findIndex((r) => !r.single);
    expect(rows.slice(firstAdd).every((r) => !r.single)).toBe(true);
  });
  it('never puts a band of more blur before one of less', () => {
    const single = rows.filter((r) => r.single);
    const bandStart = single[0]?.worst ?? 0;
    const firstWorse = single.findIndex((r) => r.worst > bandStart + 0.06 + 1e-9);
    expect(single.slice(firstWorse).every((r) => r.worst > bandStart + 0.06)).toBe(true);
  });
  it('counts only lenses that may still be used', () => {
    const plover = rows.find((r) => r.family.code === 'plover-30-toric');
    const [first, twin] = plover?.best.left ?? [];
    if (!plover || !first || !twin) throw new Error('rows');
    expect([first.power.axis, twin.power.axis]).toEqual([160, 170]);
    expect(inDrawer(record, plover.family.id, first, null)).toBe(2);
    expect(inDrawer(record, plover.family.id, twin, null)).toBe(0);
  });
  it('R and L may be of different families, or one left out', () => {
    const body = { rightFamily: 'turnstone-30', leftFamily: 'none' };
    expect(chosenOf(body, 'right', rows)?.family.code).toBe('turnstone-30');
    expect(chosenOf(body, 'left', rows)).toBeNull();
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
});
