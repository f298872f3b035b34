import {
  asking,
  bestOf,
  droppedLenses,
  EYES,
  isDropped,
  isOfKind,
  keratometerPower,
  preselectCurve,
  shortlist,
  sift,
  type Eye,
  type EyeState,
  type Filter,
  type HealthState,
  type Kind,
  type LensVariant,
  type NearestLens,
  type Placed,
  type Preselected,
  type Refraction,
  type ShortlistFamily,
  type ShortlistWish,
} from '@/core';
import type { VisitRecord } from '@/services/visitRecord';
import { costOf, daysOf, onSale, pricesOf, type CareProduct } from './cost';

export type Family = VisitRecord['families'][number] & ShortlistFamily;
export type Needs = Readonly<Record<Eye, Refraction | null>>;
type PerEye<T> = Readonly<Record<Eye, T>>;

/** One family in its place on the list. */
export type Candidate = Placed<Family>;
export interface LeftOut {
  readonly family: Family;
  readonly by: Filter;
}

/** What the fitter may narrow the list by. */
export const SHAPES = ['all', 'sphere', 'toric', 'add'] as const;
export type Shape = (typeof SHAPES)[number];
export interface ListChoice {
  readonly needs: Needs;
  /** Needs of a family that was on an eye, its turn allowed for; else the needs themselves. */
  readonly needsFor?: (code: string) => Needs;
  readonly adds: PerEye<number | null>;
  readonly kind: Kind | null;
  readonly shape: Shape;
  readonly withoutMaterial: ShortlistWish['withoutMaterial'];
  /** Codes of families that are to be shown although they failed before. */
  readonly anyway?: string;
  /** Eyes the ranking looks at; all that are fitted, if absent. */
  readonly rankedBy?: readonly Eye[];
  readonly product: CareProduct | null;
}

/** How many powers of a family are looked at. */
const DEPTH = 5;

/** What the list needs of the visit. */
export interface ListRoom {
  readonly record: VisitRecord;
  readonly health: Pick<HealthState, 'answers'>;
  readonly lastAxis: PerEye<number | undefined>;
}

/** A family as the shortlist looks at it. */
export const asShortlisted = (family: VisitRecord['families'][number]): Family => ({
  ...family,
  rotationPrior: family.rotationMean !== null && family.rotationSd !== null ? { mean: family.rotationMean, sd: family.rotationSd } : null,
});

const ofShape = (family: Family, shape: Shape): boolean =>
  shape === 'all' || (shape === 'add' ? family.geometry === 'multifocal' || family.geometry === 'toricMultifocal' : family.geometry === shape);

/** What the list begins with: lenses with an add where one is known, spheres where both eyes have little cylinder, else all. */
export function shapeFor(needs: Needs, adds: PerEye<number | null>): Shape {
  if (EYES.some((e) => adds[e] !== null)) return 'add';
  const asks = EYES.flatMap((e) => (needs[e] ? [kindAsked(needs[e])] : []));
  return asks.length > 0 && asks.every((k) => k === 'sphere') ? 'sphere' : 'all';
}

/** Half a dioptre of cylinder or less at the cornea is usually left to a sphere; 0.75 and more asks a toric. Common practice. */
export function kindAsked(need: Refraction): 'sphere' | 'either' | 'toric' {
  const cylinder = Math.abs(need.cylinder);
  if (cylinder <= 0.5) return 'sphere';
  if (cylinder >= 0.75) return Math.abs(need.sphere) >= 4 * cylinder ? 'either' : 'toric';
  return 'either';
}

/** The families that can serve, in their order, and those left out with what leaves them out. */
export function listOf(room: ListRoom, choice: ListChoice): { readonly rows: readonly Candidate[]; readonly leftOut: readonly LeftOut[] } {
  const { record, health, lastAxis } = room;
  const { needs, adds, kind, product } = choice;
  const needsFor = choice.needsFor ?? (() => needs);
  const { settings, today } = record.house;
  const given = record.handOvers.flatMap((c) =>
    c.current && c.current.visitId !== record.visit.id ? [record.lenses[c.current.lensId]?.familyName ?? ''] : [],
  );
  const asks = asking(needs);
  const pardoned = record.families.filter((f) => (choice.anyway ?? '').split(',').includes(f.code));
  const wish: ShortlistWish = {
    today,
    age: record.wearer.age,
    kind,
    adds,
    asks,
    dropped: droppedLenses(health.answers, given).filter((name) => !pardoned.some((f) => isDropped(f.name, [name]))),
    withoutMaterial: choice.withoutMaterial,
    settings,
  };
  const { kept, leftOut } = sift(
    record.families.map(asShortlisted).filter((f) => ofShape(f, choice.shape)),
    wish,
  );
  const prices = pricesOf(settings, product);
  const { days } = daysOf(health.answers);
  const placeOf = (family: Family): number | null => {
    const cell = record.houseList.find((h) => h.modality === family.modality && h.geometry === family.geometry);
    const at = cell ? cell.codes.indexOf(family.code) : -1;
    return at < 0 ? null : at + 1;
  };
  const kinds = new Set(record.stock.map((s) => s.familyCode));
  const seenTurning = kept.filter((f) => EYES.some((e) => needsFor(f.code)[e] !== needs[e]));
  const turned = Object.fromEntries(seenTurning.map((f) => [f.name, needsFor(f.code)]));
  const rows = shortlist(
    kept,
    wish,
    {
      needs,
      lastAxis,
      cylinderCap: settings.cylinderCap,
      tolerance: settings.rankTolerance,
      turned,
      ...(choice.rankedBy ? { rankedBy: choice.rankedBy } : {}),
    },
    (family) => ({
      ofKind: kind !== null && isOfKind(family, kind),
      housePlace: placeOf(family),
      stocked:
        kinds.has(family.code) &&
        asks.every((e) => {
          const lens = bestFor(record, family, needsFor(family.code)[e], adds[e], lastAxis[e], 1)[0];
          return lens !== undefined && inDrawer(record, family.code, lens, null) > 0;
        }),
      yearlyCost: costOf(family, needs, days, prices).net,
    }),
  );
  return { rows, leftOut };
}

/** The nearest lenses of a family for one eye, best first. */
export function bestFor(
  record: VisitRecord,
  family: Family,
  need: Refraction | null,
  add: number | null,
  lastAxis: number | undefined,
  limit = DEPTH,
): readonly NearestLens[] {
  return need ? bestOf(family, need, add, { limit, cylinderCap: record.house.settings.cylinderCap, lastAxis }) : [];
}

/** Trial lenses of exactly this kind in the drawer that may still be used. */
export function inDrawer(record: VisitRecord, familyCode: string, lens: NearestLens, variant: LensVariant | null): number {
  return record.stock
    .filter(
      (s) =>
        s.familyCode === familyCode &&
        s.sphereD === lens.power.sphere &&
        s.cylinderD === lens.power.cylinder &&
        (lens.power.cylinder === 0 || s.axisDeg === lens.power.axis) &&
        s.expiresOn >= record.house.today &&
        (variant === null || (s.baseCurveMm === variant.baseCurve && s.diameterMm === variant.diameter && s.addBand === variant.add)),
    )
    .reduce((sum, s) => sum + s.count, 0);
}

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

/** The near addition recorded for each eye, D. */
export const addsOf = (eye: (eye: Eye) => EyeState): Record<Eye, number | null> => ({
  right: eye('right').refraction?.current.addD ?? null,
  left: eye('left').refraction?.current.addD ?? null,
});

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
