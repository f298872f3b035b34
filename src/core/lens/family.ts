import type { Dioptres, Degrees, Millimetres } from '../units';

export type Geometry = 'sphere' | 'toric' | 'multifocal' | 'toricMultifocal';
export type Modality = 'daily' | 'twoWeekly' | 'monthly';
/** Where the family engraves its marks: hours of a clock face as the examiner sees the lens. */
export type MarkLayout = 'none' | 'six' | 'threeNine' | 'twelve';
/** What keeps a toric lens from turning. */
export type Stabilisation = 'prismBallast' | 'thinZones' | 'fourPoint';
export const ADD_BANDS = ['low', 'medium', 'high'] as const;
export type AddBand = (typeof ADD_BANDS)[number];

/** Evenly spaced values, both ends included. */
export interface StepRange {
  readonly from: number;
  readonly to: number;
  readonly step: number;
}

/** A base curve and diameter that are made together (mm). */
export interface CurveDiameter {
  readonly baseCurve: Millimetres;
  readonly diameter: Millimetres;
}

/**
 * One block of what is made: every sphere × cylinder × axis × add × curve named in it exists.
 * Spherical blocks have cylinders [0] and axes from 180 to 180.
 */
export interface LensBlock {
  readonly spheres: StepRange;
  readonly cylinders: readonly Dioptres[];
  readonly axes: StepRange;
  /** Add bands made; [null] for single vision. */
  readonly adds: readonly (AddBand | null)[];
  readonly curves: readonly CurveDiameter[];
}

/** A lens family as the optics need it; trade data live beside it. */
export interface LensFamily {
  readonly name: string;
  readonly geometry: Geometry;
  readonly blocks: readonly LensBlock[];
}

/** The power of one lens as made. `axis` 180 where the cylinder is 0. */
export interface LensPower {
  readonly sphere: Dioptres;
  readonly cylinder: Dioptres;
  readonly axis: Degrees;
}

/** Something a power is made in. */
export interface LensVariant extends CurveDiameter {
  readonly add: AddBand | null;
}

/** Calendar days from opening for a reusable lens, day 1 being the day it is opened; 1 for a daily lens. */
export const LIFE_DAYS: Readonly<Record<Modality, number>> = { daily: 1, twoWeekly: 14, monthly: 30 };

/**
 * The values of a step range, exact to the thousandth.
 * @example rangeValues({from: -1, to: -0.5, step: 0.25}) → [-1, -0.75, -0.5]
 */
export function rangeValues(range: StepRange): number[] {
  const count = rangeCount(range);
  return Array.from({ length: count }, (_, i) => rangeValue(range, i));
}
export const rangeCount = (range: StepRange): number => Math.floor((range.to - range.from) / range.step + 1e-6) + 1;
export const rangeValue = (range: StepRange, index: number): number => Math.round((range.from + index * range.step) * 1000) / 1000 + 0;
const inRange = (value: number, range: StepRange): boolean => {
  const index = Math.round((value - range.from) / range.step);
  return index >= 0 && index < rangeCount(range) && Math.abs(rangeValue(range, index) - value) < 1e-6;
};

/**
 * Curves and additions that a power is made in, each once, in the order of the catalogue.
 * @example variantsMade({sphere: -3, cylinder: -1.75, axis: 20}, family).length → 1
 */
export function variantsMade(power: LensPower, family: LensFamily): LensVariant[] {
  const all = family.blocks.flatMap((block) => block.adds.flatMap((add) => block.curves.map((curve) => ({ ...curve, add }))));
  const same = (a: LensVariant, b: LensVariant): boolean => a.add === b.add && a.baseCurve === b.baseCurve && a.diameter === b.diameter;
  return all.filter((v, i) => all.findIndex((o) => same(o, v)) === i && isMade({ ...power, ...v }, family));
}

/**
 * Is exactly this lens made? A lens outside its blocks cannot be offered, ordered or imported.
 * @example isMade({sphere: -3, cylinder: -1.75, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2}, family) → true
 */
export function isMade(lens: LensPower & LensVariant, family: LensFamily): boolean {
  return family.blocks.some(
    (block) =>
      inRange(lens.sphere, block.spheres) &&
      block.cylinders.some((c) => Math.abs(c - lens.cylinder) < 1e-6) &&
      (lens.cylinder === 0 || inRange(lens.axis, block.axes)) &&
      block.adds.includes(lens.add) &&
      block.curves.some((c) => Math.abs(c.baseCurve - lens.baseCurve) < 1e-6 && Math.abs(c.diameter - lens.diameter) < 1e-6),
  );
}
