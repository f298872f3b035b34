import { droppedLenses } from '../advice/dropOut';
import type { Kind } from '../advice/recommend';
import type { Refraction } from '../optics/refraction';
import type { PracticeSettings } from '../practiceSettings';
import { costOf, daysOf, pricesOf, type PackFigures } from '../supply/familyCost';
import type { CareSupply } from '../supply/yearlyCost';
import { startLensOf } from '../presbyopia/startPair';
import { EYES, type Degrees, type Dioptres, type Eye, type IsoDate, type Millimetres } from '../units';
import type { LensAdd, Geometry, LensVariant, Modality } from './family';
import type { NearestLens } from './nearestLenses';
import { bestOf, isOfKind, shortlist, sift, type Placed } from './shortlist';
import { asking, toBePassed, type Filter, type PassableFilter, type ShortlistFamily, type ShortlistWish } from './shortlistFilters';

type PerEye<T> = Readonly<Record<Eye, T>>;
export type Needs = PerEye<Refraction | null>;

/** A family with what its packs hold and cost. */
export type ListedFamily = ShortlistFamily & PackFigures;
/** Trial lenses of one kind in the drawer. */
export interface DrawerCount {
  readonly familyCode: string;
  readonly sphereD: Dioptres;
  readonly cylinderD: Dioptres;
  readonly axisDeg: Degrees;
  readonly addBand: LensAdd | null;
  readonly baseCurveMm: Millimetres | null;
  readonly diameterMm: Millimetres | null;
  readonly count: number;
}
/** One cell of the house list: its families by code, first choice first. */
export interface HouseCell {
  readonly modality: Modality;
  readonly geometry: Geometry;
  readonly codes: readonly string[];
}

/** What the list needs of practice and wearer. */
export interface ListInput<F extends ListedFamily> {
  readonly today: IsoDate;
  readonly settings: PracticeSettings;
  readonly families: readonly F[];
  readonly drawer: readonly DrawerCount[];
  readonly houseList: readonly HouseCell[];
  readonly age: number;
  /** The eye for far, where it is known. */
  readonly dominant?: Eye | null;
  /** The wearer's answers by question. */
  readonly answers: Parameters<typeof droppedLenses>[0];
  /** Codes of the families handed over at earlier visits. */
  readonly given: readonly string[];
  /** Axis of the lens last worn: breaks ties. */
  readonly lastAxis: PerEye<Degrees | undefined>;
}

/** What the fitter may narrow the list by. */
export const SHAPES = ['all', 'sphere', 'toric', 'add'] as const;
export type Shape = (typeof SHAPES)[number];
export interface ListChoice {
  readonly needs: Needs;
  /** Needs of a family that was on an eye, its turn allowed for; else the needs themselves. */
  readonly needsFor?: (code: string) => Needs;
  readonly adds: PerEye<Dioptres | null>;
  readonly kind: Kind | null;
  readonly shape: Shape;
  readonly withoutMaterial: ShortlistWish['withoutMaterial'];
  /** Codes of families that are wanted although a judgement leaves them out. */
  readonly anyway?: string;
  /** Eyes the ranking looks at; all that are fitted, if absent. */
  readonly rankedBy?: readonly Eye[];
  readonly product: CareSupply | null;
}

const ofShape = (family: ShortlistFamily, shape: Shape): boolean =>
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

/**
 * Trial lenses of exactly this kind in the drawer that may still be used.
 * @param variant curve, diameter and add; any, if null
 */
export const countInDrawer = (drawer: readonly DrawerCount[], familyCode: string, power: Refraction, variant: LensVariant | null): number =>
  drawer
    .filter(
      (s) =>
        s.familyCode === familyCode &&
        s.sphereD === power.sphere &&
        s.cylinderD === power.cylinder &&
        (power.cylinder === 0 || s.axisDeg === power.axis) &&
        (variant === null || (s.baseCurveMm === variant.baseCurve && s.diameterMm === variant.diameter && s.addBand === variant.add)),
    )
    .reduce((sum, s) => sum + s.count, 0);

/**
 * The families that can serve, in their order, and those left out with what leaves them out.
 * @source see shortlist, leftOutBy
 */
export function listOf<F extends ListedFamily>(
  room: ListInput<F>,
  choice: ListChoice,
): {
  readonly rows: readonly Placed<F>[];
  readonly leftOut: readonly { readonly family: F; readonly by: Filter }[];
  /** What a sentence must pass for a family of the list. */
  readonly passing: (family: F) => readonly PassableFilter[];
} {
  const { settings, today, lastAxis } = room;
  const { needs, adds, kind, product } = choice;
  const needsFor = choice.needsFor ?? (() => needs);
  const asks = asking(needs);
  const wish: ShortlistWish = {
    today,
    age: room.age,
    kind,
    adds,
    dominant: room.dominant ?? null,
    asks,
    dropped: droppedLenses(room.answers, room.given),
    powers: EYES.flatMap((eye) => needs[eye] ?? []),
    withoutMaterial: choice.withoutMaterial,
    settings,
  };
  const { kept, leftOut } = sift(
    room.families.filter((f) => ofShape(f, choice.shape)),
    wish,
    (choice.anyway ?? '').split(','),
  );
  const prices = pricesOf(settings, product);
  const { days } = daysOf(room.answers);
  const placeOf = (family: F): number | null => {
    const cell = room.houseList.find((h) => h.modality === family.modality && h.geometry === family.geometry);
    const at = cell ? cell.codes.indexOf(family.code) : -1;
    return at < 0 ? null : at + 1;
  };
  const kinds = new Set(room.drawer.map((s) => s.familyCode));
  const inDrawer = (family: F, eye: Eye): boolean => {
    const need = needsFor(family.code)[eye];
    const lens: NearestLens | undefined = need
      ? bestOf(family, need, startLensOf(family, eye, wish, needs), { limit: 1, cylinderCap: settings.cylinderCap, lastAxis: lastAxis[eye] })[0]
      : undefined;
    return lens !== undefined && countInDrawer(room.drawer, family.code, lens.power, null) > 0;
  };
  const seenTurning = kept.filter((f) => EYES.some((e) => needsFor(f.code)[e] !== needs[e]));
  const rows = shortlist(
    kept,
    wish,
    {
      needs,
      lastAxis,
      cylinderCap: settings.cylinderCap,
      tolerance: settings.rankTolerance,
      turned: Object.fromEntries(seenTurning.map((f) => [f.code, needsFor(f.code)])),
      ...(choice.rankedBy ? { rankedBy: choice.rankedBy } : {}),
    },
    (family) => ({
      ofKind: kind !== null && isOfKind(family, kind),
      housePlace: placeOf(family),
      stocked: kinds.has(family.code) && asks.every((e) => inDrawer(family, e)),
      yearlyCost: costOf(family, needs, days, prices).net,
    }),
  );
  return { rows, leftOut, passing: (family) => toBePassed(family, wish) };
}
