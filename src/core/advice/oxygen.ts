import type { Geometry } from '../lens/family';
import type { PracticeSettings } from '../practiceSettings';
import type { Dioptres } from '../units';

/**
 * Oxygen a lens must let through at its thickest worn zone, Dk/t in 10⁻⁹ units, by school.
 * @source Holden and Mertz 1984 (24 open eye, 87 closed); Harvitt and Bonanno 1999 (35 and 125); from memory
 */
export const DKT_LIMITS: Readonly<Record<PracticeSettings['oxygenSchool'], { readonly day: number; readonly overnight: number }>> = {
  holdenMertz: { day: 24, overnight: 87 },
  harvittBonanno: { day: 35, overnight: 125 },
};

/**
 * Dk/t from Dk (10⁻¹¹) and thickness (mm), in 10⁻⁹ units.
 * @example transmissibility(140, 0.08) → 175
 * @source definition; Holden and Mertz 1984, from memory
 */
export const transmissibility = (dk: number, thicknessMm: number): number => dk / (thicknessMm * 10);

/** What a maker says of a family's oxygen, Dk/t in 10⁻⁹ units; null where it does not. */
export interface OxygenFigures {
  readonly geometry: Geometry;
  readonly dktCentre: number | null;
  /** At the thickest zone worn. */
  readonly dktThickest: number | null;
}

/** Past this plus a lens is two to three times as thick as the one a figure was published for: its oxygen is unknown. Common practice. */
const THICK_PLUS: Dioptres = 3;
/** The centre's figure, published for about −3.00, counts for minus spheres up to this. Common practice. */
const CENTRE_COUNTS_TO: Dioptres = -6;

/**
 * Oxygen through a lens of a family at a power. The thickest zone's figure where it is known; where it is not, the centre's
 * counts for minus spheres to −6.00 only. A plus over +3.00, and a toric without a figure for its thickest zone, is unknown.
 * @param power as made, D; null while no power is known
 * @returns Dk/t in 10⁻⁹ units; null: unknown
 * @example dktAt({geometry: 'sphere', dktCentre: 150, dktThickest: null}, {sphere: -3, cylinder: 0}) → 150
 * @source limits speak of the centre; thick plus and torics: common practice
 */
export function dktAt(family: OxygenFigures, power: { readonly sphere: Dioptres; readonly cylinder: Dioptres } | null): number | null {
  if (power && power.sphere > THICK_PLUS + 1e-9) return null;
  if (family.dktThickest !== null) return family.dktThickest;
  const thin = family.geometry === 'sphere' && power !== null && power.cylinder === 0 && power.sphere <= 0 && power.sphere >= CENTRE_COUNTS_TO - 1e-9;
  return thin ? family.dktCentre : null;
}

/**
 * Corneal infections per 10,000 wearers a year by kind of wear.
 * @source Stapleton and others 2008, from memory
 */
export const INFECTIONS_PER_10000 = {
  softDay: 1.9,
  dailyDisposable: 2,
  siliconeHydrogelDay: 11.9,
  softOvernight: 19.5,
  siliconeHydrogelOvernight: 25.4,
} as const;

/** When who sleeps in lenses is seen again. Common practice: after the first night, then 1 week, 1 month, every 3 months. */
export const NIGHT_VISITS = ['firstMorning', 'oneWeek', 'oneMonth', 'everyThreeMonths'] as const;
