import type { AddBand, CurveDiameter, LensBlock, StepRange } from '../src/core';
import type { NewFamily } from '../src/db/lenses';

/** Invented families of invented makers. Blocks follow what soft lenses are really made in: finer steps near zero. */
const span = (from: number, to: number, step: number): StepRange => ({ from, to, step });
const curves = (...list: readonly (readonly [number, number])[]): CurveDiameter[] => list.map(([baseCurve, diameter]) => ({ baseCurve, diameter }));
const SPHERE_AXIS = span(180, 180, 10);
const TENS = span(10, 180, 10);

const sphereBlocks = (from: number, to: number, made: readonly CurveDiameter[]): LensBlock[] =>
  [
    { spheres: span(Math.max(from, -6), Math.min(to, 6), 0.25), cylinders: [0], axes: SPHERE_AXIS, adds: [null], curves: made },
    ...(from < -6 ? [{ spheres: span(from, -6.5, 0.5), cylinders: [0], axes: SPHERE_AXIS, adds: [null], curves: made }] : []),
    ...(to > 6 ? [{ spheres: span(6.5, to, 0.5), cylinders: [0], axes: SPHERE_AXIS, adds: [null], curves: made }] : []),
  ];
const toricBlocks = (from: number, to: number, cylinders: readonly number[], made: readonly CurveDiameter[], axes: StepRange = TENS): LensBlock[] => [
  { spheres: span(Math.max(from, -6), Math.min(to, 6), 0.25), cylinders, axes, adds: [null], curves: made },
  ...(from < -6 ? [{ spheres: span(from, -6.5, 0.5), cylinders, axes, adds: [null], curves: made }] : []),
];
const multifocalBlocks = (from: number, to: number, adds: readonly AddBand[], made: readonly CurveDiameter[]): LensBlock[] => [
  { spheres: span(from, to, 0.25), cylinders: [0], axes: SPHERE_AXIS, adds, curves: made },
];

type Draft = Omit<NewFamily, 'id' | 'version' | 'listed' | 'stabilisation' | 'markLayout' | 'overnightApproved'> &
  Partial<Pick<NewFamily, 'stabilisation' | 'markLayout' | 'overnightApproved'>>;

export const DEMO_FAMILIES: readonly Draft[] = [
  {
    code: 'plover-30-toric', maker: 'Marram Optical', name: 'Plover 30 Toric', geometry: 'toric', modality: 'monthly', material: 'silicone hydrogel',
    waterPercent: 46, dk: 110, dktCentre: 116, dktThickest: 62, modulusMpa: 0.8, markLayout: 'six', stabilisation: 'prismBallast', settleMinutes: 10,
    packSize: 6, packPriceMinor: 5200, leadDays: 5,
    blocks: toricBlocks(-9, 6, [-0.75, -1.25, -1.75, -2.25], curves([8.6, 14.2])),
  },
  {
    code: 'godwit-made-toric', maker: 'Saltern Lens Works', name: 'Godwit Made Toric', geometry: 'toric', modality: 'monthly', material: 'hydrogel',
    waterPercent: 55, dk: 21, dktCentre: 26, dktThickest: 14, modulusMpa: 0.5, markLayout: 'threeNine', stabilisation: 'thinZones', settleMinutes: 15,
    packSize: 3, packPriceMinor: 7400, leadDays: 12,
    blocks: toricBlocks(-12, 8, [-0.75, -1, -1.25, -1.5, -1.75, -2, -2.25, -2.5, -2.75, -3, -3.5, -4], curves([8.3, 14.4], [8.6, 14.4], [8.9, 14.4]), span(1, 180, 1)),
  },
  {
    code: 'dunlin-1-day-toric', maker: 'Marram Optical', name: 'Dunlin 1-Day Toric', geometry: 'toric', modality: 'daily', material: 'hydrogel',
    waterPercent: 58, dk: 24, dktCentre: 27, dktThickest: 17, modulusMpa: 0.4, markLayout: 'six', stabilisation: 'thinZones', settleMinutes: 10,
    packSize: 30, packPriceMinor: 3350, leadDays: 5,
    blocks: [
      ...toricBlocks(-8, 4, [-0.75, -1.25], curves([8.5, 14.2])),
      { spheres: span(-6, 0, 0.25), cylinders: [-1.75], axes: span(10, 30, 10), adds: [null], curves: curves([8.5, 14.2]) },
      { spheres: span(-6, 0, 0.25), cylinders: [-1.75], axes: span(80, 100, 10), adds: [null], curves: curves([8.5, 14.2]) },
      { spheres: span(-6, 0, 0.25), cylinders: [-1.75], axes: span(150, 180, 10), adds: [null], curves: curves([8.5, 14.2]) },
    ],
  },
  {
    code: 'sanderling-14-toric', maker: 'Foreshore Vision', name: 'Sanderling 14 Toric', geometry: 'toric', modality: 'twoWeekly', material: 'silicone hydrogel',
    waterPercent: 47, dk: 100, dktCentre: 110, dktThickest: 55, modulusMpa: 0.9, markLayout: 'six', stabilisation: 'fourPoint', settleMinutes: 10,
    packSize: 6, packPriceMinor: 2900, leadDays: 6,
    blocks: toricBlocks(-9, 6, [-0.75, -1.25, -1.75, -2.25], curves([8.5, 14.5], [8.9, 14.5])),
  },
  {
    code: 'turnstone-30', maker: 'Marram Optical', name: 'Turnstone 30', geometry: 'sphere', modality: 'monthly', material: 'silicone hydrogel',
    waterPercent: 46, dk: 110, dktCentre: 130, dktThickest: 88, modulusMpa: 0.8, settleMinutes: 5, packSize: 6, packPriceMinor: 3600, leadDays: 5,
    overnightApproved: true, blocks: sphereBlocks(-12, 8, curves([8.4, 14.2], [8.8, 14.2])),
  },
  {
    code: 'dunlin-1-day', maker: 'Marram Optical', name: 'Dunlin 1-Day', geometry: 'sphere', modality: 'daily', material: 'hydrogel',
    waterPercent: 58, dk: 24, dktCentre: 30, dktThickest: 22, modulusMpa: 0.4, settleMinutes: 5, packSize: 30, packPriceMinor: 2450, leadDays: 4,
    blocks: sphereBlocks(-12, 6, curves([8.5, 14.2], [9, 14.2])),
  },
  {
    code: 'knot-1-day', maker: 'Foreshore Vision', name: 'Knot 1-Day', geometry: 'sphere', modality: 'daily', material: 'silicone hydrogel',
    waterPercent: 51, dk: 90, dktCentre: 112, dktThickest: 74, modulusMpa: 0.6, settleMinutes: 5, packSize: 30, packPriceMinor: 3100, leadDays: 4,
    blocks: sphereBlocks(-10, 6, curves([8.4, 14], [8.8, 14])),
  },
  {
    code: 'sanderling-14', maker: 'Foreshore Vision', name: 'Sanderling 14', geometry: 'sphere', modality: 'twoWeekly', material: 'silicone hydrogel',
    waterPercent: 47, dk: 100, dktCentre: 122, dktThickest: 80, modulusMpa: 0.9, settleMinutes: 5, packSize: 6, packPriceMinor: 2300, leadDays: 6,
    blocks: sphereBlocks(-12, 8, curves([8.4, 14], [8.8, 14])),
  },
  {
    code: 'curlew-multifocal', maker: 'Marram Optical', name: 'Curlew Multifocal', geometry: 'multifocal', modality: 'monthly', material: 'silicone hydrogel',
    waterPercent: 46, dk: 110, dktCentre: 118, dktThickest: 79, modulusMpa: 0.8, settleMinutes: 15, packSize: 3, packPriceMinor: 5850, leadDays: 6,
    multifocalDesign: 'centreNear', blocks: multifocalBlocks(-8, 6, ['low', 'medium', 'high'], curves([8.6, 14.1])),
  },
  {
    code: 'dunlin-1-day-multifocal', maker: 'Marram Optical', name: 'Dunlin 1-Day Multifocal', geometry: 'multifocal', modality: 'daily', material: 'hydrogel',
    waterPercent: 58, dk: 24, dktCentre: 28, dktThickest: 19, modulusMpa: 0.4, settleMinutes: 15, packSize: 30, packPriceMinor: 4100, leadDays: 6,
    multifocalDesign: 'centreNear', blocks: multifocalBlocks(-6, 5, ['low', 'medium', 'high'], curves([8.5, 14.2])),
  },
  {
    code: 'sanderling-14-multifocal', maker: 'Foreshore Vision', name: 'Sanderling 14 Multifocal', geometry: 'multifocal', modality: 'twoWeekly', material: 'silicone hydrogel',
    waterPercent: 47, dk: 100, dktCentre: 108, dktThickest: 70, modulusMpa: 0.9, settleMinutes: 15, packSize: 6, packPriceMinor: 3900, leadDays: 7,
    multifocalDesign: 'concentric', blocks: multifocalBlocks(-8, 6, ['low', 'high'], curves([8.5, 14.3])),
  },
  {
    code: 'avocet-30-multifocal-toric', maker: 'Saltern Lens Works', name: 'Avocet Multifocal Toric', geometry: 'toricMultifocal', modality: 'monthly', material: 'hydrogel',
    waterPercent: 55, dk: 21, dktCentre: 24, dktThickest: 12, modulusMpa: 0.5, markLayout: 'threeNine', stabilisation: 'thinZones', settleMinutes: 15,
    packSize: 3, packPriceMinor: 9800, leadDays: 14, multifocalDesign: 'centreDistance',
    blocks: [{ spheres: span(-8, 6, 0.25), cylinders: [-0.75, -1.25, -1.75, -2.25], axes: span(5, 180, 5), adds: ['low', 'medium', 'high'], curves: curves([8.6, 14.4]) }],
  },
];

/** Lens powers in the trial drawer: [family, sphere, cylinder, axis, base curve, diameter, add, count]. */
export type DrawerLens = readonly [string, number, number, number, number, number, AddBand | null, number];
const toricDrawer = (code: string, baseCurve: number, diameter: number, spheres: readonly number[], cylinders: readonly number[], axes: readonly number[], count: number): DrawerLens[] =>
  spheres.flatMap((s) => cylinders.flatMap((c) => axes.map((a): DrawerLens => [code, s, c, a, baseCurve, diameter, null, count])));
const sphereDrawer = (code: string, baseCurve: number, diameter: number, from: number, to: number, count: number): DrawerLens[] =>
  Array.from({ length: (to - from) / 0.25 + 1 }, (_, i): DrawerLens => [code, from + i * 0.25, 0, 180, baseCurve, diameter, null, count]);

const NEAR_HORIZONTAL = [10, 20, 30, 150, 160, 170, 180];
export const DEMO_DRAWER: readonly DrawerLens[] = [
  ...toricDrawer('plover-30-toric', 8.6, 14.2, [-4.5, -4.25, -4, -3.5, -3.25, -3, -2.75, -2.5, -2], [-0.75, -1.25, -1.75], [...NEAR_HORIZONTAL, 80, 90, 100], 4),
  ...toricDrawer('dunlin-1-day-toric', 8.5, 14.2, [-4.25, -4, -3.25, -3, -2.5, -2], [-0.75, -1.25], [10, 20, 90, 160, 170, 180], 4),
  ...toricDrawer('sanderling-14-toric', 8.5, 14.5, [-4.25, -3.25, -3, -2.5], [-0.75, -1.25, -1.75], [10, 20, 90, 170, 180], 2),
  ...sphereDrawer('turnstone-30', 8.4, 14.2, -6, 2, 3),
  ...sphereDrawer('dunlin-1-day', 8.5, 14.2, -6, 2, 6),
  ...sphereDrawer('knot-1-day', 8.4, 14, -6, 2, 5),
  ...sphereDrawer('sanderling-14', 8.4, 14, -6, 2, 3),
  ...[-3, -2, -1, 0, 1, 2].flatMap((s): DrawerLens[] => [
    ['curlew-multifocal', s, 0, 180, 8.6, 14.1, 'low', 1],
    ['curlew-multifocal', s, 0, 180, 8.6, 14.1, 'high', 1],
  ]),
];
