import { readSetTable, type CurveDiameter, type LensBlock, type SetStartRow } from '../src/core';
import { must } from '../src/lib/assert';
import { span, type Draft } from './families';

/** Invented diagnostic sets: thick in the centre, stabilised, ordered in finer curves than the set has lenses. */
const setTable = (text: string): readonly SetStartRow[] => must(readSetTable(text), text);
const steps = (from: number, to: number, step: number, diameter: number): CurveDiameter[] =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => ({ baseCurve: Math.round((from + i * step) * 100) / 100, diameter }));
const CYLINDERS = [0, ...Array.from({ length: 22 }, (_, i) => -0.75 - i * 0.25)];
const made = (curves: readonly CurveDiameter[]): LensBlock[] => [
  { spheres: span(-20, 20, 0.25), cylinders: CYLINDERS, axes: span(1, 180, 1), adds: [null], curves },
];

export const DEMO_SETS: readonly Draft[] = [
  {
    code: 'heron-cone',
    maker: 'Saltern Lens Works',
    name: 'Heron Cone',
    geometry: 'toric',
    modality: 'quarterly',
    material: 'silicone hydrogel',
    waterPercent: 74,
    dk: 60,
    dktCentre: 15,
    dktThickest: 15,
    modulusMpa: 0.4,
    markLayout: 'six',
    stabilisation: 'prismBallast',
    settleMinutes: 10,
    sightMinutes: 30,
    packSize: 1,
    packPriceMinor: 11500,
    leadDays: 10,
    reusableTrial: true,
    irregular: true,
    disinfectWith: 'peroxide, neutralised',
    disinfectMinutes: 360,
    setTable: setTable('prolate stage<=1 8.4/14.5 | prolate stage<=2 8.2/14.5 | prolate stage<=3 7.8/14.5 | prolate stage<=4 7.6/14.5'),
    blocks: made(steps(7.4, 9, 0.1, 14.5)),
  },
  {
    code: 'bittern-oblate',
    maker: 'Foreshore Vision',
    name: 'Bittern Oblate',
    geometry: 'toric',
    modality: 'yearly',
    material: 'hydrogel',
    waterPercent: 55,
    dk: 20,
    dktCentre: 5,
    dktThickest: 5,
    modulusMpa: 0.6,
    markLayout: 'fiveSixSeven',
    markSpacing: 30,
    stabilisation: 'prismBallast',
    settleMinutes: 8,
    sightMinutes: 30,
    packSize: 1,
    packPriceMinor: 19800,
    leadDays: 15,
    reusableTrial: true,
    irregular: true,
    disinfectWith: 'peroxide, 3 %',
    disinfectMinutes: 180,
    setTable: setTable('oblate hvid<=11.5 8.8/14.2 | oblate 9.0/14.8'),
    blocks: made([...steps(8.2, 9.8, 0.1, 14.2), ...steps(8.2, 9.8, 0.1, 14.8)]),
  },
];

/** Lenses of the sets: [set, number, sphere, base curve, diameter]. The numbers of the one say nothing in the other. */
export const DEMO_SET_LENSES: readonly (readonly [string, string, number, number, number])[] = [
  ...[7.6, 7.8, 8, 8.2, 8.4, 8.6, 8.8].map((curve, i) => ['heron-cone', String(i + 1), i < 3 ? -4 : 0, curve, 14.5] as const),
  ['heron-cone', '8', -1.5, 8.2, 14.5],
  ...[8.4, 8.6, 8.8, 9, 9.2].map((curve, i) => ['bittern-oblate', `${i + 1}`, 0, curve, i % 2 === 0 ? 14.2 : 14.8] as const),
  ['bittern-oblate', '6', 0, 9, 14.2],
];
