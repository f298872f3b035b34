import { daysBetween } from '../calendar/dates';
import type { EyeState } from '../fit/eyeState';
import { linesGained, type LogMar } from '../optics/acuity';
import type { PracticeSettings } from '../practiceSettings';
import type { FactChain } from '../record/chains';
import type { HandOverFact } from '../record/visitFacts';
import type { Eye, IsoDate } from '../units';
import { cylinderRule, type CylinderRule } from './path';

/** A lens as far as it is known here: is it one for irregular corneas, and has it a cylinder? */
interface WornLens {
  readonly irregular: boolean;
  readonly cylinderD: number;
}

/**
 * Days since the first lens without a cylinder, of a kind for irregular corneas, went home for an eye; 0 where none did.
 * @param handOvers what was handed over at any visit
 */
export function daysInSphere(eye: Eye, handOvers: readonly FactChain<HandOverFact>[], lensOf: (id: string) => WornLens | undefined, today: IsoDate): number {
  const days = handOvers.flatMap(({ current: row }) => {
    const lens = row?.eye === eye ? lensOf(row.lensId) : undefined;
    return row && lens?.irregular && lens.cylinderD === 0 ? [row.handedOn] : [];
  });
  const [first] = days.sort();
  return first === undefined ? 0 : daysBetween(first, today);
}

/** What is known of sight with and without a cylinder over a lens. */
export interface CylinderSeen {
  /** The over-refraction that counts, by its cylinder and acuity; null while there is none. */
  readonly over: { readonly cylinder: number; readonly acuity: LogMar | null } | null;
  readonly lensAcuity: LogMar | null;
  /** With the best sphere taken before a cylinder was looked for; null where none was. */
  readonly sphereBefore: LogMar | null;
}
/** The same of an eye as it is recorded. */
export const cylinderSeen = ({ overRefraction, overBefore, acuities }: Pick<EyeState, 'overRefraction' | 'overBefore' | 'acuities'>): CylinderSeen => ({
  over: overRefraction ? { cylinder: overRefraction.current.cylinderD, acuity: acuities.over } : null,
  lensAcuity: acuities.lens,
  sphereBefore: [...overBefore].reverse().find((c) => c.current.cylinderD === 0)?.current.acuityLogMar ?? null,
});

/** May a cylinder be looked for, or ordered, over this lens? By what was seen with the sphere alone, and with the cylinder where one was tried. */
export function cylinderOfEye({ over, lensAcuity, sphereBefore }: CylinderSeen, days: number, school: PracticeSettings['irregularCylinder']): CylinderRule {
  const tried = over !== null && over.cylinder !== 0;
  const sphereAcuity = tried ? (sphereBefore ?? lensAcuity) : (over?.acuity ?? null);
  const gain = tried && sphereAcuity !== null && over.acuity !== null ? linesGained(sphereAcuity, over.acuity) : null;
  return cylinderRule({ sphereAcuity, gain, daysInSphere: days, school });
}
