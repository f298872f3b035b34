import { blurBetween, fromPowerVector, toPowerVector } from '../optics/powerVector';
import type { Refraction } from '../optics/refraction';
import type { Degrees, Dioptres } from '../units';
import type { MeasuredParts } from './resolveOverRefraction';

/** Repeatability of each measurement as SD: of the mean power M, and of each crossed-cylinder part J (D). Our own choice. */
export const REFRACTION_NOISE = { m: 0.25, j: 0.12 } as const;
export const OVER_REFRACTION_NOISE = { m: 0.18, j: 0.1 } as const;
/** Gaps up to this never ask to measure again (D). Our own choice. */
export const LEAST_GATE = 0.5;

export interface RoutesInput {
  /** The spectacle refraction brought to the cornea. */
  readonly fromRefraction: Refraction;
  /** Lens as it lay + over-refraction. */
  readonly fromOverRefraction: Refraction;
  /** What the over-refraction measured; only that is compared. Default: all. */
  readonly parts?: MeasuredParts;
  /** Cylinder of the lens on the eye (D): a turn read wrong costs C·sin(error). */
  readonly lensCylinder: Dioptres;
  /** SD of the rotation reading in degrees. */
  readonly rotationSd: Degrees;
}

export interface RoutesVerdict {
  readonly parts: MeasuredParts;
  /** Blur strength between the two needs, in the parts compared (D). */
  readonly gap: Dioptres;
  /** The mean power of the over-refraction less that of the refraction (D): positive is more plus. */
  readonly towardsPlus: Dioptres;
  /** Gap above which the tool asks to measure again (D). */
  readonly gate: Dioptres;
  readonly noise: Dioptres;
  readonly agree: boolean;
}

/**
 * Do the refraction and the over-refraction agree? Only what both measured is compared. Where cylinder is compared the gate
 * is max(0.50 D, twice the combined noise of both and of the turn). A mean power alone takes no noise from the turn: 0.50 D,
 * wider only where the lens leaves cylinder uncorrected, whose focal lines lie half of it to either side of the sphere read.
 * @example routesAgree({fromRefraction: need, fromOverRefraction: need, lensCylinder: -1.75, rotationSd: 2}).agree → true
 * @source our own choice
 */
export function routesAgree(input: RoutesInput): RoutesVerdict {
  const { fromRefraction, fromOverRefraction, parts = 'all' } = input;
  const towardsPlus = toPowerVector(fromOverRefraction).m - toPowerVector(fromRefraction).m;
  if (parts === 'mean') {
    const noise = OVER_REFRACTION_NOISE.m;
    const gate = Math.max(LEAST_GATE, Math.hypot(2 * noise, cylinderStrength(fromRefraction) - cylinderStrength(fromOverRefraction)));
    const gap = Math.abs(towardsPlus);
    return { parts, gap, towardsPlus, gate, noise, agree: gap <= gate + 1e-9 };
  }
  const turnNoise = Math.abs(input.lensCylinder) * Math.sin((input.rotationSd * Math.PI) / 180);
  const noise = Math.hypot(REFRACTION_NOISE.m, OVER_REFRACTION_NOISE.m, ...twice(REFRACTION_NOISE.j), ...twice(OVER_REFRACTION_NOISE.j), turnNoise);
  const gate = Math.max(LEAST_GATE, 2 * noise);
  const gap = blurBetween(fromRefraction, fromOverRefraction);
  return { parts, gap, towardsPlus, gate, noise, agree: gap <= gate + 1e-9 };
}

const twice = (noise: Dioptres): readonly Dioptres[] => [noise, noise];
/** Blur strength of a power's cylinder: half of it (D). */
const cylinderStrength = (power: Refraction): Dioptres => Math.abs(power.cylinder) / 2;

export interface WeightedNeed {
  /** At the cornea, unrounded. */
  readonly need: Refraction;
  /** SD of its mean power (D). */
  readonly meanSd: Dioptres;
}

/**
 * The mean of refraction and over-refraction, each part weighted by the inverse square of its noise: shown beside what
 * decides, never instead of it.
 * @example weightedNeed({fromRefraction: {sphere: -3, cylinder: 0, axis: 180}, fromOverRefraction: {sphere: -2, cylinder: 0, axis: 180}, parts: 'mean'}).need → {sphere: -2.342, cylinder: 0, axis: 180}
 * @source inverse-variance weighting: statistics; the noise of each: our own choice
 */
export function weightedNeed(input: Pick<RoutesInput, 'fromRefraction' | 'fromOverRefraction'> & { readonly parts: MeasuredParts }): WeightedNeed {
  const a = toPowerVector(input.fromRefraction);
  const b = toPowerVector(input.fromOverRefraction);
  const share = (refraction: Dioptres, over: Dioptres): number => refraction ** 2 / (refraction ** 2 + over ** 2);
  const m = share(REFRACTION_NOISE.m, OVER_REFRACTION_NOISE.m);
  const j = input.parts === 'all' ? share(REFRACTION_NOISE.j, OVER_REFRACTION_NOISE.j) : 0;
  return {
    need: fromPowerVector({ m: a.m + m * (b.m - a.m), j0: a.j0 + j * (b.j0 - a.j0), j45: a.j45 + j * (b.j45 - a.j45) }),
    meanSd: Math.sqrt(1 / (1 / REFRACTION_NOISE.m ** 2 + 1 / OVER_REFRACTION_NOISE.m ** 2)),
  };
}
