import {
  hasAdd,
  mostPlus,
  NO_ORDER_RULES,
  blurBetween,
  nearestLenses,
  powerOnEye,
  type CurveDiameter,
  type Eye,
  type EyeState,
  type LensVariant,
  type NearestLens,
  type NoOrder,
  addFor,
  parseLensAdd,
  addsKnown,
  addWanted,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';
import type { DraftOf } from '../../shell/draftKeys';

type Family = VisitRecord['families'][number];
type Body = DraftOf<'prescription'>;

/** What one eye would be prescribed, and why not where it cannot. */
export interface ToPrescribe {
  readonly family: Family | null;
  readonly offers: readonly NearestLens[];
  readonly lens: NearestLens | null;
  readonly variant: LensVariant | null;
  readonly blocked: (typeof NO_ORDER_RULES)[NoOrder] | 'noFamily' | null;
  /** A prescriber may order it all the same, and has not said so yet. */
  readonly overridable: boolean;
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

/** Can a laboratory work from what was measured? It would set an eye for far that is to see near. */
const rawMeasured = ({ confirmed, overRefraction, turn, aim }: EyeState): boolean =>
  confirmed !== null && overRefraction !== null && turn !== null && aim.plus === 0;

export function toPrescribe(record: VisitRecord, state: EyeState, eye: Eye, body: Body): ToPrescribe {
  const tried = state.onEye?.current.lensId ? record.lenses[state.onEye.current.lensId] : undefined;
  const family = record.families.find((f) => (body[`${eye}Family`] ? f.code === body[`${eye}Family`] : f.code === tried?.familyCode)) ?? null;
  const { verdict } = state;
  const curves = family ? [...new Map(family.blocks.flatMap((b) => b.curves).map((c) => [curveKey(c), c])).values()] : [];
  const turnCounts = family !== null && tried?.familyCode === family.code;
  const rawReady = turnCounts && rawMeasured(state);
  const despite = body[`${eye}Despite`] === 'yes';
  const nothing = {
    overridable: false,
    turnCounts,
    family,
    offers: [],
    lens: null,
    variant: null,
    leftOut: body[`${eye}Out`] === 'yes',
    sameAsTried: false,
    curves,
    rawReady,
  };
  const refused = verdict.noOrder !== null && !(despite && verdict.orderDespite !== null);
  if (verdict.noOrder !== null && refused) return { ...nothing, blocked: NO_ORDER_RULES[verdict.noOrder], overridable: verdict.orderDespite !== null };
  // The turn belongs to the family it was read on: another family is asked for the need itself.
  const asked = turnCounts ? (verdict.order ?? verdict.orderDespite) : verdict.need;
  if (!asked) return { ...nothing, blocked: 'nothingMeasured' };
  if (!family) return { ...nothing, blocked: 'noFamily' };
  // The fit was judged in one curve: the power is looked for in the curve to be ordered.
  const triedCurve = curves.find((c) => tried !== undefined && c.baseCurve === tried.baseCurveMm && c.diameter === tried.diameterMm);
  const curve = curves.find((c) => curveKey(c) === body[`${eye}Curve`]) ?? (tried?.familyCode === family.code ? triedCurve : undefined);
  const measured = addWanted(state.aim, addsKnown(record.facts.refractions, record.addsBefore)[eye]?.addD ?? null);
  const wantedAdd = hasAdd(family)
    ? (parseLensAdd(body[`${eye}Add`] ?? '') ?? tried?.addBand ?? (measured === null ? null : (addFor(family, measured)?.add ?? null)))
    : null;
  // A lens with an add is looked for where that add is made; its distance is the most plus.
  const withAdd = wantedAdd === null ? [] : family.blocks.filter((b) => b.adds.includes(wantedAdd));
  const from = withAdd.length > 0 ? { ...family, blocks: withAdd } : family;
  const found = nearestLenses(hasAdd(family) ? mostPlus(asked) : asked, from, { limit: 5, cylinderCap: record.session.settings.cylinderCap, ...curve }).map(
    (o) => (hasAdd(family) ? { ...o, blur: blurBetween(asked, o.power) } : o),
  );
  // A turn that is left alone still costs: the blur shown is that of the lens as it will sit.
  const left = turnCounts && verdict.rotation?.code === 'leave' && verdict.need !== null ? { need: verdict.need, turn: state.turn?.mean ?? 0 } : null;
  const offers = left ? found.map((o) => ({ ...o, blur: blurBetween(left.need, powerOnEye(o.power, left.turn)) })) : found;
  const lens = offers[Number(body[`${eye}Power`] ?? 0)] ?? offers[0] ?? null;
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
  readonly code: 'leftOut' | 'blocked' | 'same' | 'changed';
  readonly state: 'ok' | 'watch' | 'stop';
}

/** What is to be said of one eye before it is signed, in a sentence; the last look has the rest. */
export function checkOf(plan: ToPrescribe): Check {
  if (plan.leftOut || plan.blocked === 'nothingMeasured') return { code: 'leftOut', state: 'watch' };
  if (plan.blocked !== null) return { code: 'blocked', state: 'stop' };
  return { code: plan.sameAsTried ? 'same' : 'changed', state: 'ok' };
}

/** The key under which a draft keeps the sentence for what is overridden. */
export const sentenceKey = (eye: Eye | null, code: string) => `why:${eye ?? 'wearer'}:${code}` as const;
