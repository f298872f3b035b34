import {
  bestOf,
  countInDrawer,
  dominanceOf,
  nearState,
  keratometerPower,
  preselectCurve,
  type Eye,
  type EyeState,
  type Filter,
  type HealthState,
  type ListInput,
  type LensVariant,
  type NearestLens,
  type Placed,
  type Preselected,
  type Refraction,
  type ShortlistFamily,
  type StartLens,
  ROTATION_PRIORS,
  shrunkTurn,
} from '@/core';
import type { VisitRecord } from './visitData';
import { onSale, type CareProduct } from './cost';

export type Family = VisitRecord['families'][number] & ShortlistFamily;

/** One family in its place on the list. */
export type Candidate = Placed<Family>;
export interface LeftOut {
  readonly family: Family;
  readonly by: Filter;
}

/** How many powers of a family are looked at. */
const DEPTH = 5;

/** A family as the shortlist looks at it. */
export function asShortlisted(family: VisitRecord['families'][number], ownTurns = false): Family {
  const named = family.rotationMean !== null && family.rotationSd !== null ? { mean: family.rotationMean, sd: family.rotationSd } : null;
  const assumed = named ?? (family.stabilisation ? ROTATION_PRIORS[family.stabilisation] : null);
  // The practice's own eyes, drawn towards what is assumed while they are few; unless the practice goes by what is assumed alone.
  return { ...family, rotationPrior: ownTurns && family.practiceTurn && assumed ? shrunkTurn(family.practiceTurn, assumed) : named };
}

/** What the list needs of the visit. */
export const listInputOf = (record: VisitRecord, answers: HealthState['answers'], lastAxis: ListInput<Family>['lastAxis']): ListInput<Family> => ({
  today: record.session.today,
  settings: record.session.settings,
  families: record.families.map((family) => asShortlisted(family, record.session.settings.ownTurns)),
  drawer: record.drawer,
  houseList: record.houseList,
  age: record.wearer.age,
  dominant: dominanceOf(nearState(record.nearFindings)).eye,
  answers,
  given: record.givenFamilies,
  lastAxis,
});

/** The nearest lenses of a family for one eye, best first. */
export function bestFor(
  record: VisitRecord,
  family: Family,
  need: Refraction | null,
  add: number | StartLens | null,
  lastAxis: number | undefined,
  limit = DEPTH,
): readonly NearestLens[] {
  return need ? bestOf(family, need, add, { limit, cylinderCap: record.session.settings.cylinderCap, lastAxis }) : [];
}

/** Trial lenses of exactly this kind in the drawer that may still be used. */
export const inDrawer = (record: VisitRecord, familyCode: string, lens: NearestLens, variant: LensVariant | null): number =>
  countInDrawer(record.drawer, familyCode, lens.power, variant);

/** Mean keratometry of an eye, D; null when it was not measured today or before. */
export function meanKOf(health: HealthState, eye: Eye): number | null {
  const { kFlatMm, kSteepMm } = health.facts.eyes[eye];
  return typeof kFlatMm === 'number' && typeof kSteepMm === 'number' ? (keratometerPower(kFlatMm) + keratometerPower(kSteepMm)) / 2 : null;
}

/** The curve to begin with for a lens, and why. */
export const curveFor = (lens: NearestLens, meanK: number | null): Preselected<LensVariant> | null => preselectCurve(lens.variants, meanK);

/** What each eye asks for at the cornea: from the over-refraction where there is one, else from the refraction. */
export const needsOf = (eye: (eye: Eye) => EyeState): Record<Eye, Refraction | null> => ({
  right: eye('right').verdict.need,
  left: eye('left').verdict.need,
});

/**
 * What each family is asked for: the need, with the turn allowed for in the family that was seen to turn. Another family
 * will sit in its own way, and no lens of it was on the eye.
 */
export function needsByFamily(record: VisitRecord, eye: (eye: Eye) => EyeState): (code: string) => Record<Eye, Refraction | null> {
  const of = (code: string, e: Eye): Refraction | null => {
    const { verdict, onEye } = eye(e);
    const lensId = onEye?.current.lensId;
    return lensId && record.lenses[lensId]?.familyCode === code ? verdict.choosing : verdict.need;
  };
  return (code) => ({ right: of(code, 'right'), left: of(code, 'left') });
}

/** The axis the lens on each eye carries: breaks ties between equal lenses. */
export function lastAxesOf(eye: (eye: Eye) => EyeState, lensOf: (id: string) => { readonly power: Refraction } | undefined): Record<Eye, number | undefined> {
  const of = (e: Eye): number | undefined => {
    const lensId = eye(e).onEye?.current.lensId;
    const power = lensId ? lensOf(lensId)?.power : undefined;
    return power && power.cylinder !== 0 ? power.axis : undefined;
  };
  return { right: of('right'), left: of('left') };
}

/** The care product chosen by its identity, else the first on sale. */
export const productOf = (record: VisitRecord, id: string | undefined): CareProduct | null =>
  onSale(record).find((p) => p.productId === id) ?? onSale(record)[0] ?? null;
