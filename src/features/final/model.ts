import {
  NO_ORDER_RULES,
  nearestLenses,
  sightGate,
  type CurveDiameter,
  type Eye,
  type EyeState,
  type LensVariant,
  type NearestLens,
  type NoOrder,
} from '@/core';
import type { VisitRecord } from '@/services/visitRecord';

type Family = VisitRecord['families'][number];
type Body = Readonly<Record<string, string>>;

/** What one eye would be prescribed, and why not where it cannot. */
export interface ToPrescribe {
  readonly family: Family | null;
  readonly offers: readonly NearestLens[];
  readonly lens: NearestLens | null;
  readonly variant: LensVariant | null;
  readonly blocked: (typeof NO_ORDER_RULES)[NoOrder] | 'noFamily' | 'sightUnrestored' | 'sightCauseFirst' | null;
  /** Curves the family is made in; the one to order is apart from the one tried. */
  readonly curves: readonly CurveDiameter[];
  /** Lens worn, over-refraction and turn are all there for a laboratory to work from. */
  readonly rawReady: boolean;
  /** The turn was read on this very family. */
  readonly turnCounts: boolean;
  readonly leftOut: boolean;
  /** True when exactly this lens was tried last. */
  readonly sameAsTried: boolean;
}

export const curveKey = (c: CurveDiameter): string => `${c.baseCurve}|${c.diameter}`;

export function toPrescribe(record: VisitRecord, state: EyeState, eye: Eye, body: Body): ToPrescribe {
  const tried = state.onEye?.current.lensId ? record.lenses[state.onEye.current.lensId] : undefined;
  const family = record.families.find((f) => (body[`${eye}Family`] ? f.code === body[`${eye}Family`] : f.code === tried?.familyCode)) ?? null;
  const { verdict } = state;
  const curves = family ? [...new Map(family.blocks.flatMap((b) => b.curves).map((c) => [curveKey(c), c])).values()] : [];
  const rawReady = tried !== undefined && tried.familyCode === family?.code && state.confirmed !== null && state.overRefraction !== null && state.turn !== null;
  const turnCounts = family !== null && tried?.familyCode === family.code;
  const nothing = { turnCounts, family, offers: [], lens: null, variant: null, leftOut: body[`${eye}Out`] === 'yes', sameAsTried: false, curves, rawReady };
  if (verdict.noOrder !== null) return { ...nothing, blocked: NO_ORDER_RULES[verdict.noOrder] };
  const sight = sightGate(state.acuities, state.findings);
  if (sight !== null) return { ...nothing, blocked: sight };
  // The turn belongs to the family it was read on: another family is asked for the need itself.
  const asked = turnCounts ? verdict.order : verdict.need;
  if (!asked) return { ...nothing, blocked: 'nothingMeasured' };
  if (!family) return { ...nothing, blocked: 'noFamily' };
  // The fit was judged in one curve: the power is looked for in the curve to be ordered.
  const triedCurve = curves.find((c) => tried !== undefined && c.baseCurve === tried.baseCurveMm && c.diameter === tried.diameterMm);
  const curve = curves.find((c) => curveKey(c) === body[`${eye}Curve`]) ?? (tried?.familyCode === family.code ? triedCurve : undefined);
  const offers = nearestLenses(asked, family, { limit: 5, cylinderCap: record.house.settings.cylinderCap, ...curve });
  const lens = offers[Number(body[`${eye}Power`] ?? 0)] ?? offers[0] ?? null;
  const wantedAdd = body[`${eye}Add`] ?? tried?.addBand ?? null;
  const preferred = lens?.variants.find((v) => v.add === wantedAdd);
  const variant = preferred ?? lens?.variants[0] ?? null;
  const sameAsTried =
    tried !== undefined &&
    lens !== null &&
    tried.familyCode === family.code &&
    tried.sphereD === lens.power.sphere &&
    tried.cylinderD === lens.power.cylinder &&
    tried.axisDeg === lens.power.axis &&
    tried.baseCurveMm === variant?.baseCurve &&
    tried.diameterMm === variant.diameter;
  return { ...nothing, offers, lens, variant, blocked: lens ? null : 'noFamily', sameAsTried };
}

export interface Check {
  readonly code:
    'leftOut' | 'notSteadyYet' | 'refit' | 'changeDesign' | 'sight' | 'few' | 'disagree' | 'untried' | 'unread' | 'provisional' | 'same' | 'changed';
  readonly state: 'ok' | 'watch' | 'stop';
}

/** What is to be said of one eye before it is signed, the gravest first. */
export function checkOf(plan: ToPrescribe, state: EyeState): Check {
  if (plan.leftOut || plan.blocked === 'nothingMeasured') return { code: 'leftOut', state: 'watch' };
  if (plan.blocked === 'measureAgain') return { code: 'disagree', state: 'stop' };
  if (plan.blocked === 'notSteadyYet') return { code: 'notSteadyYet', state: 'stop' };
  if (plan.blocked === 'refitFirst') return { code: 'refit', state: 'stop' };
  if (plan.blocked === 'changeDesign') return { code: 'changeDesign', state: 'stop' };
  if (plan.blocked === 'sightUnrestored' || plan.blocked === 'sightCauseFirst') return { code: 'sight', state: 'stop' };
  if (!state.onEye) return { code: 'untried', state: 'watch' };
  if (state.turn === null && plan.lens && plan.lens.power.cylinder !== 0) return { code: 'unread', state: 'watch' };
  if (state.series.some((c) => c.current.provisional) || state.overRefraction?.current.provisional) return { code: 'provisional', state: 'watch' };
  if (state.verdict.rotation?.why === 'few' && plan.lens && plan.lens.power.cylinder !== 0) return { code: 'few', state: 'watch' };
  return { code: plan.sameAsTried ? 'same' : 'changed', state: 'ok' };
}
