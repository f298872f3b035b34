import type { FactChain } from '../record/chains';
import type { LensRow } from '../record/lens';
import type { Prescription } from '../record/prescription';
import type { OnEyeFact } from '../record/visitFacts';
import { inForce } from '../supply/purpose';

/** How long lenses that slow a child's myopia are worn by their label. */
export interface WearLabel {
  /** At least so many hours a day. */
  readonly hours: number;
  readonly days: number;
}

/** The label of a lens; null where it has none. */
export const labelOfLens = (lens: Pick<LensRow, 'myopiaHours' | 'myopiaDays'> | undefined): WearLabel | null =>
  typeof lens?.myopiaHours === 'number' && typeof lens.myopiaDays === 'number' ? { hours: lens.myopiaHours, days: lens.myopiaDays } : null;

/** The label of the lenses on the eyes in a visit, else of those prescribed and in force; null where none of them has one. */
export function labelOf(of: {
  readonly onEye: readonly FactChain<OnEyeFact>[];
  readonly prescriptions: readonly Prescription[];
  readonly lenses: Readonly<Record<string, LensRow>>;
}): WearLabel | null {
  const worn = of.onEye.flatMap((c) => c.current?.lensId ?? []);
  const prescribed = inForce(of.prescriptions).flatMap((p) => p.eyes.flatMap((e) => e.lensId ?? []));
  return (worn.length > 0 ? worn : prescribed).flatMap((id) => labelOfLens(of.lenses[id]) ?? [])[0] ?? null;
}

/**
 * Is a label missed by what is really worn? Fewer hours or days than it says slow nothing.
 * @example labelMissed({hours: 10, days: 6}, 8, 7) → true
 * @source the label; commonly 10 h or more, 6 to 7 days a week: common practice
 */
export const labelMissed = (label: WearLabel, hoursADay: number | null, daysAWeek: number | null): boolean =>
  (hoursADay !== null && hoursADay < label.hours) || (daysAWeek !== null && daysAWeek < label.days);
