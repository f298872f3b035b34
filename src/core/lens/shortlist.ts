import type { Kind } from '../advice/recommend';
import type { Refraction } from '../optics/refraction';
import { addFor, type FamilyAdd } from '../presbyopia/familyAdd';
import type { StartLens } from '../presbyopia/familyTables';
import { startLensOf } from '../presbyopia/startPair';
import { blurBetween, fromPowerVector, subtractVectors, toPowerVector } from '../optics/powerVector';
import type { Degrees, Dioptres, Eye } from '../units';
import { expectedBlur, ROTATION_PRIORS, type RotationPrior } from './expectedBlur';
import type { LensFamily } from './family';
import { nearestLenses, type NearestLens } from './nearestLenses';
import { nearestInEach } from './nearestPowers';
import { blurClass } from './rankOrder';
import { asking, leftOutBy, leftOutForAll, type Filter, type ShortlistFamily, type ShortlistWish } from './shortlistFilters';
import { hasAdd } from './family';

/** One collator for all: making one for each comparison takes longer than the whole search. */
const byName = new Intl.Collator('en').compare;

const residualOf = (need: Refraction, lens: Refraction): Refraction => fromPowerVector(subtractVectors(toPowerVector(need), toPowerVector(lens)));

type Needs = Readonly<Record<Eye, Refraction | null>>;

/** What the ranking takes beside the wish. */
export interface ShortlistOptions {
  readonly needs: Needs;
  /** Axis of the lens last worn, by eye: breaks ties. */
  readonly lastAxis: Readonly<Record<Eye, Degrees | undefined>>;
  /** Never more cylinder than the refraction asks. */
  readonly cylinderCap: boolean;
  /** Blurs of the worse eye within this of a band's best count as equal, D. */
  readonly tolerance: Dioptres;
  /** Eyes the ranking looks at; by default all that ask. Eyes apart are ranked one at a time. */
  readonly rankedBy?: readonly Eye[];
  /** Families that were on an eye are asked for the need with their own turn allowed for; the others know of no turn. */
  readonly turned?: Readonly<Record<string, Needs>>;
}

/** What of practice and purse sets families of equal blur in order. */
export interface TradeMarks {
  /** Of the kind decided or recommended. */
  readonly ofKind: boolean;
  /** Place on the house list, 1 to 3; null when it is not on it. */
  readonly housePlace: number | null;
  readonly stocked: boolean;
  /** Minor units a year; Infinity when it cannot be told. */
  readonly yearlyCost: number;
}

/** One family with the blur of its nearest lens. */
export interface Ranking<F extends ShortlistFamily> {
  readonly family: F;
  /** Blur of the worse eye, D; Infinity when an eye that asks cannot be served. */
  readonly worst: Dioptres;
}
export interface Placed<F extends ShortlistFamily> extends Ranking<F>, TradeMarks {
  /** 1 for the band of the best, 2 for the next. */
  readonly band: number;
  /** Blur beyond the best of all, D. */
  readonly behind: Dioptres;
}

/** The blocks of a family that can serve an eye: those with its add, where the lens has one. */
export function blocksFor(family: LensFamily & { readonly addTable?: readonly FamilyAdd[] }, add: Dioptres | StartLens | null): LensFamily {
  if (!hasAdd(family) || add === null) return family;
  const made = typeof add === 'number' ? addFor(family, add)?.add : add.add;
  return { ...family, blocks: made === undefined ? [] : family.blocks.filter((b) => b.adds.includes(made)).map((b) => ({ ...b, adds: [made] })) };
}

/**
 * What a lens with an add is asked for: distance from the most-plus spherical equivalent, to the step its spheres are made in.
 * @example mostPlus({sphere: -2.4, cylinder: 0, axis: 180}).sphere → -2.25
 * @source maximum plus for presbyopes: common practice
 */
export function mostPlus(need: Refraction): Refraction {
  const m = need.sphere + need.cylinder / 2;
  const plus = Math.ceil(m / 0.25 - 1e-9) * 0.25;
  return { ...need, sphere: need.sphere + (plus - m) };
}

/** The nearest lenses of one family for one eye. @example bestOf(family, need, null, {}).length → 5 */
export const bestOf = (
  family: LensFamily,
  need: Refraction,
  add: Dioptres | StartLens | null,
  options: { readonly limit?: number; readonly lastAxis?: Degrees | undefined; readonly cylinderCap?: boolean },
): NearestLens[] => {
  const { lastAxis, ...rest } = options;
  const far = hasAdd(family) ? mostPlus(need) : need;
  const asked = typeof add === 'object' && add !== null && add.plus !== 0 ? { ...far, sphere: far.sphere + add.plus } : far;
  const found = nearestLenses(asked, blocksFor(family, add), { ...rest, ...(lastAxis === undefined ? {} : { lastAxis }) });
  // What is left is left of the need itself.
  return asked === need ? found : found.map((lens) => ({ ...lens, blur: blurBetween(need, lens.power), residual: residualOf(need, lens.power) }));
};

/**
 * Splits families into those the list may hold and those left out, with what leaves them out.
 * @param anyway codes of families that are wanted although a judgement leaves them out: a sentence is then asked
 */
export function sift<F extends ShortlistFamily>(
  families: readonly F[],
  wish: ShortlistWish,
  anyway: readonly string[] = [],
): { readonly kept: readonly F[]; readonly leftOut: readonly { readonly family: F; readonly by: Filter }[] } {
  const kept: F[] = [];
  const leftOut: { family: F; by: Filter }[] = [];
  for (const family of families) {
    const by = anyway.includes(family.code) ? leftOutForAll(family, wish) : leftOutBy(family, wish);
    if (by) leftOut.push({ family, by });
    else kept.push(family);
  }
  return { kept, leftOut };
}

/** How the marks of a family are taken to sit; null for a lens that has none. */
export const priorOf = (family: Pick<ShortlistFamily, 'stabilisation' | 'rotationPrior'>): RotationPrior | null =>
  family.rotationPrior ?? (family.stabilisation ? ROTATION_PRIORS[family.stabilisation] : null);

/**
 * Blur to expect from a lens on an eye where no lens of the family was yet.
 * @example expectedOf({stabilisation: null, rotationPrior: null}, {sphere: -3, cylinder: 0, axis: 180}, {power: {sphere: -3, cylinder: 0, axis: 180}, blur: 0}) → 0
 */
export function expectedOf(
  family: Pick<ShortlistFamily, 'stabilisation' | 'rotationPrior'>,
  need: Refraction,
  lens: { readonly power: Refraction; readonly blur: Dioptres },
): Dioptres {
  const prior = priorOf(family);
  return prior && lens.power.cylinder !== 0 ? expectedBlur(need, lens.power, prior) : lens.blur;
}

/**
 * Families in the order they stand in: by the blur of the worse eye, in bands counted from the best; within a band
 * the kind decided, then the house list, then what is in the drawer, then the yearly cost, then less blur, then the
 * name. Nothing is weighed against anything.
 * @param marks practice and purse, by family
 * @source least blur strength: Thibos et al. 1997; the order within a band: our own, the practice's tolerance
 */
export function shortlist<F extends ShortlistFamily>(
  families: readonly F[],
  wish: ShortlistWish,
  options: ShortlistOptions,
  marks: (family: F) => TradeMarks,
): Placed<F>[] {
  const eyes = options.rankedBy ?? asking(options.needs);
  const blurs = eyes.flatMap((eye) => {
    const need = options.needs[eye];
    if (!need) return [];
    const asked = families.map((family) => blocksFor(family, startLensOf(family, eye, wish, options.needs)));
    const search = { limit: 1, lastAxis: options.lastAxis[eye], cylinderCap: options.cylinderCap };
    const plain = nearestInEach(need, asked, search);
    const withAdd = asked.some(hasAdd) ? nearestInEach(mostPlus(need), asked, search) : plain;
    const found = asked.map((family, i) =>
      hasAdd(family) ? (withAdd[i] ?? []).map((lens) => ({ ...lens, blur: blurBetween(need, lens.power) })) : (plain[i] ?? []),
    );
    return [
      families.map((family, i) => {
        const own = options.turned?.[family.code]?.[eye];
        const [best] = own
          ? nearestInEach(own, [blocksFor(family, startLensOf(family, eye, wish, options.needs))], {
              limit: 1,
              lastAxis: options.lastAxis[eye],
              cylinderCap: options.cylinderCap,
            }).flat()
          : (found[i] ?? []);
        return best?.blur ?? Infinity;
      }),
    ];
  });
  const ranked = families.map((family, i): Ranking<F> => ({ family, worst: Math.max(0, ...blurs.map((of) => of[i] ?? Infinity)) }));
  const byBlur = (a: Ranking<F>, b: Ranking<F>): number => blurClass(a.worst) - blurClass(b.worst) || byName(a.family.name, b.family.name);
  // Infinity less Infinity is no number: families that cannot serve stand last, by name.
  const served = ranked.filter((r) => Number.isFinite(r.worst)).sort(byBlur);
  const unserved = ranked.filter((r) => !Number.isFinite(r.worst)).sort((a, b) => byName(a.family.name, b.family.name));
  // Within a class of equal blur the first by name need not be the least.
  const best = Math.min(...served.map((r) => r.worst));
  let band = 0;
  let start = -Infinity;
  const placed = [...served, ...unserved].map((row): Placed<F> => {
    if (row.worst !== start && row.worst - start > options.tolerance + 1e-9) {
      band++;
      start = row.worst;
    }
    return { ...row, ...marks(row.family), band, behind: Number.isFinite(row.worst) ? row.worst - best : Infinity };
  });
  return placed.sort(inBand);
}

function inBand<F extends ShortlistFamily>(a: Placed<F>, b: Placed<F>): number {
  if (a.band !== b.band) return a.band - b.band;
  if (a.ofKind !== b.ofKind) return a.ofKind ? -1 : 1;
  const byHouse = (a.housePlace ?? 9) - (b.housePlace ?? 9);
  if (byHouse !== 0) return byHouse;
  if (a.stocked !== b.stocked) return a.stocked ? -1 : 1;
  if (a.yearlyCost !== b.yearlyCost) return a.yearlyCost < b.yearlyCost ? -1 : 1;
  return a.worst === b.worst ? byName(a.family.name, b.family.name) : a.worst - b.worst;
}

/** Is a family of a kind: kept as long, of the same geometry and material, approved for nights where nights are meant? */
export const isOfKind = (family: Pick<ShortlistFamily, 'modality' | 'geometry' | 'overnightApproved' | 'material'>, kind: Kind): boolean =>
  family.modality === kind.modality &&
  family.geometry === kind.geometry &&
  (family.material === 'hydrogel') === (kind.material === 'hydrogel') &&
  (kind.wear === 'day' || family.overnightApproved);
