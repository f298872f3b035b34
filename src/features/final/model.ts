import { nearestLenses, type Eye, type EyeState, type LensVariant, type NearestLens } from '@/core';
import type { VisitRecord } from '@/services/visitRecord';

type Family = VisitRecord['families'][number];
type Body = Readonly<Record<string, string>>;

/** What one eye would be prescribed, and why not where it cannot. */
export interface ToPrescribe {
  readonly family: Family | null;
  readonly offers: readonly NearestLens[];
  readonly lens: NearestLens | null;
  readonly variant: LensVariant | null;
  readonly blocked: 'measureAgain' | 'nothingMeasured' | 'noFamily' | null;
  readonly leftOut: boolean;
  /** True when exactly this lens was tried last. */
  readonly sameAsTried: boolean;
}

export const variantKey = (v: LensVariant): string => `${v.baseCurve}|${v.diameter}|${v.add ?? ''}`;

export function toPrescribe(record: VisitRecord, state: EyeState, eye: Eye, body: Body): ToPrescribe {
  const tried = state.onEye?.current.lensId ? record.lenses[state.onEye.current.lensId] : undefined;
  const family = record.families.find((f) => (body[`${eye}Family`] ? f.code === body[`${eye}Family`] : f.code === tried?.familyCode)) ?? null;
  const { verdict } = state;
  const nothing = { family, offers: [], lens: null, variant: null, leftOut: body[`${eye}Out`] === 'yes', sameAsTried: false };
  if (verdict.routes && !verdict.routes.agree) return { ...nothing, blocked: 'measureAgain' };
  if (!verdict.order) return { ...nothing, blocked: 'nothingMeasured' };
  if (!family) return { ...nothing, blocked: 'noFamily' };
  const offers = nearestLenses(verdict.order, family, { limit: 5, cylinderCap: record.house.settings.cylinderCap });
  const lens = offers[Number(body[`${eye}Power`] ?? 0)] ?? offers[0] ?? null;
  const preferred = lens?.variants.find((v) =>
    body[`${eye}Variant`]
      ? variantKey(v) === body[`${eye}Variant`]
      : v.baseCurve === tried?.baseCurveMm && v.diameter === tried.diameterMm && v.add === tried.addBand,
  );
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
  readonly code: 'leftOut' | 'disagree' | 'untried' | 'unread' | 'provisional' | 'same' | 'changed';
  readonly state: 'ok' | 'watch' | 'stop';
}

/** What is to be said of one eye before it is signed, the gravest first. */
export function checkOf(plan: ToPrescribe, state: EyeState): Check {
  if (plan.leftOut || plan.blocked === 'nothingMeasured') return { code: 'leftOut', state: 'watch' };
  if (plan.blocked === 'measureAgain') return { code: 'disagree', state: 'stop' };
  if (!state.onEye) return { code: 'untried', state: 'watch' };
  if (!state.rotation && plan.lens && plan.lens.power.cylinder !== 0) return { code: 'unread', state: 'watch' };
  if (state.rotation?.current.provisional || state.overRefraction?.current.provisional) return { code: 'provisional', state: 'watch' };
  return { code: plan.sameAsTried ? 'same' : 'changed', state: 'ok' };
}
