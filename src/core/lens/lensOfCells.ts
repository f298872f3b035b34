import { err, ok, type ProblemData, type Result } from '../../lib/outcome';
import { toMinusCylinder } from '../optics/transpose';
import type { Refraction } from '../optics/refraction';
import type { Millimetres } from '../units';
import { isMade, type LensAdd, type CurveDiameter, type LensFamily } from './family';

/** A lens as a list names it; curve and diameter may be left out where the family leaves no choice. */
export interface LensCells {
  readonly power: Refraction;
  readonly add: LensAdd | null;
  readonly baseCurve: Millimetres | null;
  readonly diameter: Millimetres | null;
}
export interface LensCellsFault {
  readonly column: 'power' | 'base_curve';
  readonly code: 'lensNotMade' | 'curveNeeded';
  readonly data: ProblemData;
}
export interface LensOfCells extends CurveDiameter {
  readonly sphere: number;
  readonly cylinder: number;
  readonly axis: number;
  readonly add: LensAdd | null;
}

/**
 * The one lens of a family that a list means.
 * @returns a fault when the family does not make it, or makes it in more than one curve and none is named
 */
export function lensOfCells(family: LensFamily, { power, add, baseCurve, diameter }: LensCells): Result<LensOfCells, LensCellsFault> {
  const { sphere, cylinder, axis } = toMinusCylinder(power);
  const asked = { sphere, cylinder, axis: cylinder === 0 ? 180 : axis, add };
  const curves = new Map(family.blocks.flatMap((block) => block.curves).map((c) => [`${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`, c]));
  const near = (a: number | null, b: number): boolean => a === null || Math.abs(a - b) < 1e-6;
  const made = [...curves].filter(([, c]) => near(baseCurve, c.baseCurve) && near(diameter, c.diameter) && isMade({ ...asked, ...c }, family));
  const [first] = made;
  if (!first) return err({ column: 'power', code: 'lensNotMade', data: { family: family.name } });
  if (made.length > 1)
    return err({ column: 'base_curve', code: 'curveNeeded', data: { family: family.name, curves: made.map(([words]) => words).join(', ') } });
  return ok({ ...asked, baseCurve: first[1].baseCurve, diameter: first[1].diameter });
}
