import { eyeAtRisk, type HealthState } from '../advice/healthState';
import { eyeState, type EyeContext, type EyeRules, type EyeState, type LensOfEye } from '../fit/eyeState';
import type { Picked } from '../fit/eyeVerdict';
import type { LogMar } from '../optics/acuity';
import type { KnownTurn } from '../rotation/knownTurn';
import type { Eye } from '../units';
import { aimsOfVisit, type AimsOf } from '../presbyopia/aims';
import type { VisitFacts } from './visitFacts';

/** What a prescriber picked where refraction and over-refraction do not agree, by eye. */
export type Picks = Readonly<Partial<Record<Eye, Picked | null>>>;

/** What of the wearer bears on the eyes beside what was measured in the visit. */
export interface EyesOf extends AimsOf {
  readonly age: number;
  readonly bestBefore: Readonly<Record<Eye, LogMar | null>>;
  /** History and eye health without any power. */
  readonly health: HealthState;
  readonly knownTurns: readonly KnownTurn[];
  readonly picks?: Picks;
}

/** What bears on one eye. */
export const contextOf = (of: EyesOf, facts: Pick<VisitFacts, 'refractions'>, eye: Eye): EyeContext => ({
  aim: aimsOfVisit(of, facts.refractions)[eye],
  age: of.age,
  bestBefore: of.bestBefore[eye],
  oneLineAsks: eyeAtRisk(of.health, eye),
  picked: of.picks?.[eye] ?? null,
  knownTurns: of.knownTurns,
});

/** Both eyes of a visit as they stand: in the browser and on the server alike. */
export function eyesOfVisit(
  facts: VisitFacts,
  lensOf: (lensId: string) => LensOfEye | undefined,
  rules: EyeRules,
  of: EyesOf,
): Readonly<Record<Eye, EyeState>> {
  const one = (eye: Eye): EyeState => eyeState(facts, eye, lensOf, rules, contextOf(of, facts, eye));
  return { right: one('right'), left: one('left') };
}
