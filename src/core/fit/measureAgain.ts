import { blurStrength, subtractVectors, toPowerVector, type PowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import type { OverControl } from '../record/visitFacts';
import type { MeasuredParts } from '../rotation/resolveOverRefraction';
import type { RoutesVerdict } from '../rotation/routesAgree';
import type { Dioptres } from '../units';

/** Two over-refractions this near to each other count as the same finding (D). Our own choice. */
export const REPEATS_WITHIN: Dioptres = 0.25;
/** Under this age only cycloplegia, or a prescriber, frees a change towards minus. Common practice. */
export const FULL_ACCOMMODATION_AGE = 18;

/** What an over-refraction came to through the lens as it lay. */
export interface Through {
  /** At the trial frame. */
  readonly over: Refraction;
  /** Lens as it lay + over-refraction, at the cornea. */
  readonly power: Refraction;
}

export interface AgainInput {
  readonly routes: RoutesVerdict;
  readonly now: Through;
  /** Taken before, separately, through the same confirmed lens. */
  readonly before: readonly Through[];
  /** True where a line of letters was gained with this over-refraction; null where letters were not read. */
  readonly gainsLine: boolean | null;
  readonly control: OverControl;
  /** Years; null where nobody knows: taken as grown up. */
  readonly age: number | null;
}

export type Freed = 'repeated' | 'gainedLine';

const partsOf = (power: Refraction, parts: MeasuredParts): PowerVector => (parts === 'all' ? toPowerVector(power) : { ...toPowerVector(power), j0: 0, j45: 0 });

/** The separate over-refraction that says the same; undefined when there is none. */
const repeatOf = ({ routes, now, before }: AgainInput): Through | undefined =>
  before.findLast((b) => blurStrength(subtractVectors(partsOf(b.over, routes.parts), partsOf(now.over, routes.parts))) <= REPEATS_WITHIN + 1e-9);

/**
 * What frees "measure again", and the power that then decides; null while nothing does. Towards plus a second
 * over-refraction that says the same, the more plus of the two deciding. Towards minus repetition is not enough, because
 * accommodation repeats: a gained line, with fogging or binocular balance; under 18 with cycloplegia.
 * @example measureAgainFreed({routes, now, before: [], gainsLine: null, control: 'none', age: 30}) → null
 * @source common practice; figures: our own choice
 */
export function measureAgainFreed(input: AgainInput): { readonly by: Freed; readonly through: Refraction } | null {
  const { routes, now, gainsLine, control, age } = input;
  if (routes.towardsPlus < -1e-9) {
    const relaxed = age !== null && age < FULL_ACCOMMODATION_AGE ? control === 'cycloplegia' : control !== 'none';
    return gainsLine === true && relaxed ? { by: 'gainedLine', through: now.power } : null;
  }
  const repeat = repeatOf(input);
  if (!repeat) return null;
  const more = toPowerVector(repeat.power).m > toPowerVector(now.power).m + 1e-9 ? repeat : now;
  return { by: 'repeated', through: more.power };
}
