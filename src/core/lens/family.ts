import type { Dioptres, Degrees, Millimetres } from '../units';

export type Geometry = 'sphere' | 'toric' | 'multifocal' | 'toricMultifocal';
/** How long a lens is kept; quarterly and yearly ones are made for one wearer, for irregular corneas. */
export type Modality = 'daily' | 'twoWeekly' | 'monthly' | 'quarterly' | 'yearly';
/** Where the family engraves its marks: hours of a clock face as the examiner sees the lens; `fiveSixSeven` three about 6, evenly spaced. */
export type MarkLayout = 'none' | 'six' | 'threeNine' | 'twelve' | 'fiveSixSeven';
/** What keeps a toric lens from turning. */
export type Stabilisation = 'prismBallast' | 'thinZones' | 'fourPoint';
export const ADD_BANDS = ['low', 'medium', 'high'] as const;
export type AddBand = (typeof ADD_BANDS)[number];
/**
 * An addition as a box says it: a band, dioptres (`+1.50`), or dioptres of one of two designs that the family makes
 * (`CD +2.00` centre-distance, `CN +2.00` centre-near).
 */
export type LensAdd = AddBand | `${'' | 'CD ' | 'CN '}+${number}`;
const WRITTEN_ADD = /^(?:C[DN] )?\+[0-4]\.(?:00|25|50|75)$/;
/**
 * Reads an addition as somebody types what stands on a box: `High`, `+1.5`, `cn 2.00`. Null where it is none.
 * @example parseLensAdd('cn 2') → 'CN +2.00'
 */
export function parseLensAdd(text: string): LensAdd | null {
  const plain = text.normalize('NFKC').trim().toUpperCase().replace(',', '.');
  const band = ADD_BANDS.find((b) => b.toUpperCase() === plain);
  if (band) return band;
  const found = /^(C[DN])?\s*\+?(\d(?:\.\d{1,2})?)$/.exec(plain);
  const written = found ? `${found[1] ? `${found[1]} ` : ''}+${Number(found[2]).toFixed(2)}` : '';
  return isLensAdd(written) ? written : null;
}
/** An addition in words: a band by its word, dioptres as they are written. @example nameOfAdd('+1.50', (band) => band) → '+1.50' */
export const nameOfAdd = (add: LensAdd, ofBand: (band: AddBand) => string): string => (isAddBand(add) ? ofBand(add) : add);
/** Is an addition named by a band? */
export const isAddBand = (add: LensAdd): add is AddBand => (ADD_BANDS as readonly string[]).includes(add);
/** Near power by which additions are put in order, D; bands stand where they usually lie. */
const orderOf = (add: LensAdd): number => (isAddBand(add) ? { low: 1, medium: 1.75, high: 2.25 }[add] : Number(add.replace(/^C[DN] /, '')));
/** Additions in order, weakest first, single vision before all. @example compareAdds('high', '+1.50') → 0.75 */
export const compareAdds = (a: LensAdd | null, b: LensAdd | null): number =>
  a === null || b === null ? Number(a !== null) - Number(b !== null) : orderOf(a) - orderOf(b) || a.localeCompare(b, 'en');
/** Is this how an addition is written on a box? @example isLensAdd('CN +2.00') → true */
export const isLensAdd = (text: string): text is LensAdd => (ADD_BANDS as readonly string[]).includes(text) || WRITTEN_ADD.test(text);

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
  /** Additions made; [null] for single vision. */
  readonly adds: readonly (LensAdd | null)[];
  readonly curves: readonly CurveDiameter[];
}

/** A lens family as the optics need it; trade data live beside it. */
export interface LensFamily {
  readonly name: string;
  readonly geometry: Geometry;
  readonly blocks: readonly LensBlock[];
  /** Thick in the centre, so that it smooths the front of an irregular cornea: over it the refraction says nothing. */
  readonly irregular?: boolean;
}

/** Has a lens an addition? */
export const hasAdd = (family: Pick<LensFamily, 'geometry'>): boolean => family.geometry === 'multifocal' || family.geometry === 'toricMultifocal';

/** The power of one lens as made. `axis` 180 where the cylinder is 0. */
export interface LensPower {
  readonly sphere: Dioptres;
  readonly cylinder: Dioptres;
  readonly axis: Degrees;
}

/** Something a power is made in. */
export interface LensVariant extends CurveDiameter {
  readonly add: LensAdd | null;
}

/** Calendar days from opening for a reusable lens, day 1 being the day it is opened; 1 for a daily lens. */
export const LIFE_DAYS: Readonly<Record<Modality, number>> = { daily: 1, twoWeekly: 14, monthly: 30, quarterly: 90, yearly: 365 };

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
