import type { PracticeSettings } from '../practiceSettings';

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
