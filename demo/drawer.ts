import type { LensAdd } from '../src/core';

/** Lens powers in the trial drawer: [family, sphere, cylinder, axis, base curve, diameter, add, count]. */
export type DrawerLens = readonly [string, number, number, number, number, number, LensAdd | null, number];
const toricDrawer = (
  code: string,
  baseCurve: number,
  diameter: number,
  spheres: readonly number[],
  cylinders: readonly number[],
  axes: readonly number[],
  count: number,
): DrawerLens[] => spheres.flatMap((s) => cylinders.flatMap((c) => axes.map((a): DrawerLens => [code, s, c, a, baseCurve, diameter, null, count])));
const sphereDrawer = (code: string, baseCurve: number, diameter: number, from: number, to: number, count: number): DrawerLens[] =>
  Array.from({ length: (to - from) / 0.25 + 1 }, (_, i): DrawerLens => [code, from + i * 0.25, 0, 180, baseCurve, diameter, null, count]);

const NEAR_HORIZONTAL = [10, 20, 30, 150, 160, 170, 180];
export const DEMO_DRAWER: readonly DrawerLens[] = [
  ...toricDrawer(
    'plover-30-toric',
    8.6,
    14.2,
    [-4.5, -4.25, -4, -3.5, -3.25, -3, -2.75, -2.5, -2],
    [-0.75, -1.25, -1.75],
    [...NEAR_HORIZONTAL, 80, 90, 100],
    4,
  ),
  ...toricDrawer('dunlin-1-day-toric', 8.5, 14.2, [-4.25, -4, -3.25, -3, -2.5, -2], [-0.75, -1.25], [10, 20, 90, 160, 170, 180], 4),
  ...toricDrawer('sanderling-14-toric', 8.5, 14.5, [-4.25, -3.25, -3, -2.5], [-0.75, -1.25, -1.75], [10, 20, 90, 170, 180], 2),
  ...sphereDrawer('turnstone-30', 8.4, 14.2, -6, 2, 3),
  ...sphereDrawer('dunlin-1-day', 8.5, 14.2, -6, 2, 6),
  ...sphereDrawer('knot-1-day', 8.4, 14, -6, 2, 5),
  ...sphereDrawer('sanderling-14', 8.4, 14, -6, 2, 3),
  // In quarters: the next change of a pair is a quarter of a dioptre, or the next addition.
  ...Array.from({ length: 21 }, (_, i) => -3 + i / 4).flatMap((s) =>
    (['low', 'medium', 'high'] as const).map((add): DrawerLens => ['curlew-multifocal', s, 0, 180, 8.6, 14.1, add, 3]),
  ),
];
