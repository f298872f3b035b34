import { isAdvised, isOrderable, type AdvisedModality } from '../lens/catalogueFamily';
import type { Geometry, Modality } from '../lens/family';
import { TORIC_FROM } from '../lens/toricFrom';
import type { Refraction } from '../optics/refraction';
import type { Aims } from '../presbyopia/aims';
import type { NearWay } from '../presbyopia/nearFindings';
import { EYES, type Eye, type IsoDate } from '../units';
import { bearsOut, type Evidence } from './conditions';
import type { AdviceFacts } from './facts';
import { holds } from './evaluate';
import { KIND_RULES, NIGHT_BARS, NIGHT_NEEDS, NIGHT_REASON, type KindRule, type MaterialClass, type Target, type Wear } from './kindRules';
import { dktAt, DKT_LIMITS } from './oxygen';

export interface Kind {
  readonly modality: AdvisedModality;
  readonly wear: Wear;
  readonly geometry: Geometry;
  readonly material: MaterialClass;
}

/** A rule that speaks for or against a kind, and what it rests on. */
export interface Reason {
  readonly rule: string;
  readonly version: number;
  readonly target: Target;
  readonly points: number;
  readonly evidence: readonly Evidence[];
}
export interface KindChoice {
  readonly kind: Kind;
  /** 1 where safety asks for it. */
  readonly safety: number;
  readonly score: number;
  readonly reasons: readonly Reason[];
}
/** A kind that is not on offer, why, and what that rests on. */
export interface NotOffered {
  readonly modality: AdvisedModality | null;
  readonly wear: Wear;
  readonly why: string;
  readonly evidence: readonly Evidence[];
}

/** What of a lens family decides whether a kind can be had at all. */
export interface OnOffer {
  readonly modality: AdvisedModality;
  readonly geometry: Geometry;
  readonly material: MaterialClass;
  readonly overnightApproved: boolean;
  readonly dktCentre: number | null;
  /** Dk/t at the thickest zone worn; null when the maker does not say. */
  readonly dktThickest: number | null;
}

/** What of the lens library the advice looks at: what can still be ordered, for a regular cornea. A material that is not called hydrogel is a silicone hydrogel. */
export const onOffer = (
  families: readonly {
    readonly listed: boolean;
    readonly modality: Modality;
    readonly geometry: Geometry;
    readonly material: string;
    readonly overnightApproved: boolean;
    readonly dktCentre: number | null;
    readonly dktThickest: number | null;
    readonly lastOrderOn: IsoDate | null;
    readonly irregular: boolean;
  }[],
  today: IsoDate,
): OnOffer[] =>
  families
    .filter((f) => f.listed && !f.irregular && isOrderable(f, today))
    .flatMap((f) => (isAdvised(f.modality) ? [{ ...f, modality: f.modality }] : []))
    .map((f) => ({
      modality: f.modality,
      geometry: f.geometry,
      material: f.material === 'hydrogel' ? 'hydrogel' : 'siliconeHydrogel',
      overnightApproved: f.overnightApproved,
      dktCentre: f.dktCentre,
      dktThickest: f.dktThickest,
    }));

export interface Recommendation {
  readonly recommended: KindChoice | null;
  readonly second: KindChoice | null;
  readonly others: readonly KindChoice[];
  readonly notOffered: readonly NotOffered[];
  readonly geometry: { readonly geometry: Geometry; readonly why: readonly GeometryWhy[] };
}

/** Ties go to the kind that needs least care, then to what is prescribed for real months; by day before overnight. */
const ORDER: readonly AdvisedModality[] = ['daily', 'monthly', 'twoWeekly'];

/** Why a sphere, a toric or a multifocal is asked for. */
export type GeometryWhy = 'powerUnknown' | 'cylinder' | 'littleCylinder' | 'nearAge' | 'wayDecided' | 'nearOtherwise';
/** Ways in which no lens has an addition. */
const NEAR_BY_OTHER_MEANS: readonly NearWay[] = ['monovision', 'partialMonovision', 'readers'];

/**
 * Sphere, toric or multifocal, from the powers at the cornea and age. Half a dioptre of cylinder or less is left to
 * a sphere, 0.75 and more asks a toric, between them the predicted blur decides later. Common practice.
 * @example geometryAsked({right: {sphere: -3, cylinder: -1.25, axis: 20}, left: null}, 30, 45).geometry → 'toric'
 */
export function geometryAsked(
  needs: Readonly<Record<Eye, Refraction | null>>,
  age: number,
  presbyopiaAge: number,
  way: NearWay | null = null,
): { readonly geometry: Geometry; readonly why: readonly GeometryWhy[] } {
  const cylinders = EYES.flatMap((eye) => (needs[eye] ? [Math.abs(needs[eye].cylinder)] : []));
  const toric = cylinders.some((c) => c >= TORIC_FROM);
  // Near may be served otherwise than by the lens.
  const byLens = way === null || !NEAR_BY_OTHER_MEANS.includes(way);
  const near = (age >= presbyopiaAge || way !== null) && byLens;
  const why: GeometryWhy[] = [cylinders.length === 0 ? 'powerUnknown' : toric ? 'cylinder' : 'littleCylinder'];
  if (way !== null) why.push(byLens ? 'wayDecided' : 'nearOtherwise');
  else if (near) why.push('nearAge');
  const geometry = near ? (toric ? 'toricMultifocal' : 'multifocal') : toric ? 'toric' : 'sphere';
  return { geometry, why };
}

/** Ways in which the two eyes may need lenses of different kinds. */
const APART: readonly NearWay[] = ['modified', 'toricOneEye'];
/** Does a way of serving near ask each eye for a kind of lens of its own? @example setsApart('modified') → true */
export const setsApart = (way: NearWay | null): boolean => way !== null && APART.includes(way);

/**
 * The kind of lens of each eye, where a way of serving near asks them for different ones: an eye that sees far only needs no
 * addition, and cylinder is each eye's own.
 * @example geometryOfEyes({right: {sphere: -2, cylinder: 0, axis: 180}, left: null}, {right: {sees: 'far', plus: 0}, left: {sees: 'both', plus: 0}}).right → 'sphere'
 * @source see geometryAsked
 */
export function geometryOfEyes(needs: Readonly<Record<Eye, Refraction | null>>, aims: Aims): Readonly<Record<Eye, Geometry>> {
  const of = (eye: Eye): Geometry => {
    const toric = Math.abs(needs[eye]?.cylinder ?? 0) >= TORIC_FROM;
    if (aims[eye].sees !== 'both') return toric ? 'toric' : 'sphere';
    return toric ? 'toricMultifocal' : 'multifocal';
  };
  return { right: of('right'), left: of('left') };
}

const weights = (facts: AdviceFacts, rules: readonly KindRule[]): Reason[] =>
  rules.flatMap((r): Reason[] => {
    const found = holds(r.when, facts);
    if (!found) return [];
    return (Object.entries(r.weigh) as [Target, number][]).map(([target, points]) => ({
      rule: r.id,
      version: r.version,
      target,
      points,
      evidence: found.evidence,
    }));
  });

/**
 * Why sleeping in lenses is not offered; null when it may be. Every eye that is fitted must have been looked at, and be clear.
 * @param fitted eyes that will wear a lens; both while no power is known
 */
export function nightBar(facts: AdviceFacts, fitted: readonly Eye[]): { readonly why: string; readonly evidence: readonly Evidence[] } | null {
  if (!bearsOut(NIGHT_REASON, facts, 'right')) return { why: 'noNightReason', evidence: [] };
  for (const bar of NIGHT_BARS) {
    const found = holds(bar.when, facts);
    if (found) return { why: bar.id, evidence: found.evidence };
  }
  const graded = (fitted.length === 0 ? EYES : fitted).every((eye) => NIGHT_NEEDS.every((s) => facts.eyes[eye][s] !== undefined));
  return graded ? null : { why: 'corneaNotGraded', evidence: [] };
}

/**
 * What the best lens of a kind lets through at its thickest worn zone, against what the practice's school asks by
 * day; long days weigh double. Unknown figures weigh nothing by day (and bar a lens from nights).
 * @source Holden and Mertz 1984; Harvitt and Bonanno 1999, from memory; weights our own
 */
function oxygenReason(facts: AdviceFacts, made: readonly OnOffer[], modality: AdvisedModality, least: (f: OnOffer) => number | null): Reason | null {
  const known = made.flatMap((f) => least(f) ?? []);
  if (known.length === 0) return null;
  const best = Math.max(...known);
  const long = Number(facts.person.hoursPerDay ?? 0) >= facts.settings.longHours;
  const points = best >= DKT_LIMITS[facts.settings.oxygenSchool].day ? 1 : long ? -4 : -2;
  return { rule: 'oxygenLimit', version: 1, target: modality, points, evidence: [{ from: 'library', key: 'dktThickest', eye: null, value: best }] };
}

/**
 * One recommendation with its reasons, and a second choice of another kind; what is not offered, and why.
 * Order: what safety asks for, sum of points, then daily, monthly, two-weekly, then by day before overnight.
 */
export function recommend(
  facts: AdviceFacts,
  needs: Readonly<Record<Eye, Refraction | null>>,
  library: readonly OnOffer[],
  way: NearWay | null = null,
  rules: readonly KindRule[] = KIND_RULES,
): Recommendation {
  const age = Number(facts.person.age ?? 0);
  const geometry = geometryAsked(needs, age, facts.settings.presbyopiaAge, way);
  const all = weights(facts, rules);
  const points = (target: Target): number => all.filter((r) => r.target === target).reduce((sum, r) => sum + r.points, 0);
  const outranks = new Set(rules.filter((r) => r.safety).map((r) => r.id));
  const safety = (target: Target): number => Math.max(0, ...all.filter((r) => r.target === target && outranks.has(r.rule)).map((r) => Math.sign(r.points)));
  const oxygen = DKT_LIMITS[facts.settings.oxygenSchool];
  const fitted = EYES.filter((eye) => needs[eye] !== null);
  const powers = fitted.map((eye) => needs[eye]);
  /** The least oxygen of the powers asked; null: unknown for one of them. */
  const leastDkt = (f: OnOffer): number | null => {
    const each = (powers.length === 0 ? [null] : powers).map((p) => dktAt(f, p));
    return each.some((d) => d === null) ? null : Math.min(...each.filter((d) => d !== null));
  };
  const bar = nightBar(facts, fitted);
  const notOffered: NotOffered[] = [];
  const choices: KindChoice[] = [];
  for (const wear of ['day', 'overnight'] as const) {
    if (wear === 'overnight' && bar) {
      notOffered.push({ modality: null, wear, ...bar });
      continue;
    }
    for (const modality of ORDER) {
      if (wear === 'overnight' && modality === 'daily') continue;
      const made = library.filter((f) => f.modality === modality && f.geometry === geometry.geometry);
      const enough = (f: OnOffer): boolean => (leastDkt(f) ?? 0) >= oxygen[wear];
      const byDay = (f: OnOffer): boolean => facts.settings.oxygenByDay === 'warn' || enough(f);
      const fit = made.filter((f) => (wear === 'day' ? byDay(f) : f.overnightApproved && enough(f)));
      if (fit.length === 0) {
        const why = made.length === 0 ? 'notMade' : wear === 'day' || made.some((f) => f.overnightApproved) ? 'tooLittleOxygen' : 'notApproved';
        notOffered.push({ modality, wear, why, evidence: [] });
        continue;
      }
      const wanted: MaterialClass = points('hydrogel') > points('siliconeHydrogel') ? 'hydrogel' : 'siliconeHydrogel';
      const material = fit.some((f) => f.material === wanted) ? wanted : (fit[0]?.material ?? wanted);
      const oxygenHere = oxygenReason(facts, fit, modality, leastDkt);
      const targets: readonly Target[] = [modality, material, ...(wear === 'overnight' ? (['overnight'] as const) : [])];
      const reasons = [...all.filter((r) => targets.includes(r.target)), ...(oxygenHere ? [oxygenHere] : [])].sort(
        (a, b) => Math.abs(b.points) - Math.abs(a.points),
      );
      const score = points(modality) + (wear === 'overnight' ? points('overnight') : 0) + (oxygenHere?.points ?? 0);
      choices.push({ kind: { modality, wear, geometry: geometry.geometry, material }, safety: safety(modality), score, reasons });
    }
  }
  // Stable: choices stand in the order of ties already.
  // Safety outranks habit and money: what it asks for stands first, whatever else speaks for another kind.
  const ranked = [...choices].sort((a, b) => b.safety - a.safety || b.score - a.score);
  const [recommended = null, ...rest] = ranked;
  // A second choice differs in how long a lens is kept, or is the same by day: never a second way to sleep in them.
  const second = rest.find((c) => c.kind.wear === 'day') ?? null;
  return { recommended, second, others: rest.filter((c) => c !== second), notOffered, geometry };
}
