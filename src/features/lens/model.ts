import {
  blurClass,
  EYES,
  nearestLenses,
  sphericalEquivalent,
  type AddBand,
  type Eye,
  type EyeState,
  type Kind,
  type LensVariant,
  type NearestLens,
  type Refraction,
} from '@/core';
import type { VisitRecord } from '@/services/visitRecord';

type Family = VisitRecord['families'][number];

/** One family with what it can do for each eye. */
export interface Candidate {
  readonly family: Family;
  readonly best: Readonly<Record<Eye, readonly NearestLens[]>>;
  /** Blur of the worse eye, D; Infinity when an eye that asks cannot be served. */
  readonly worst: number;
  /** Every eye that asks could have its lens from the drawer today. */
  readonly stocked: boolean;
  /** Single vision: a lens with an add needs an add measured first. */
  readonly single: boolean;
}

/** How many powers of a family are looked at. */
const DEPTH = 5;

/** What each eye asks for at the cornea: from the over-refraction where there is one, else from the refraction. */
export function needsOf(eye: (eye: Eye) => EyeState): Record<Eye, Refraction | null> {
  return { right: eye('right').verdict.order, left: eye('left').verdict.order };
}

/** The axis the lens on the eye carries: breaks ties between equal lenses. */
function lastAxisOf(state: EyeState, lensPower: (id: string) => Refraction | undefined): number | undefined {
  const power = state.onEye?.current.lensId ? lensPower(state.onEye.current.lensId) : undefined;
  return power && power.cylinder !== 0 ? power.axis : undefined;
}

/**
 * All families for the eyes that ask. Those of the kind decided first, then single vision; then bands of equal blur (the worse eye's, counted from
 * the best by the practice's tolerance); within a band what is in the drawer, then less blur, then the name.
 */
export function candidates(
  record: VisitRecord,
  needs: Readonly<Record<Eye, Refraction | null>>,
  eye: (eye: Eye) => EyeState,
  lensPower: (id: string) => Refraction | undefined,
  decided: Kind | null = null,
): Candidate[] {
  const cylinderCap = record.house.settings.cylinderCap;
  const rows = record.families.map((family): Candidate => {
    const bestOf = (e: Eye): readonly NearestLens[] => {
      const need = needs[e];
      if (!need) return [];
      const lastAxis = lastAxisOf(eye(e), lensPower);
      return nearestLenses(need, family, { limit: DEPTH, cylinderCap, ...(lastAxis === undefined ? {} : { lastAxis }) });
    };
    const best = { right: bestOf('right'), left: bestOf('left') };
    const asking = EYES.filter((e) => needs[e] !== null);
    const stocked = asking.every((e) => {
      const lens = best[e][0];
      return lens !== undefined && inDrawer(record, family.id, lens, lens.variants[0] ?? null) > 0;
    });
    const single = family.geometry === 'sphere' || family.geometry === 'toric';
    return { family, best, worst: Math.max(0, ...asking.map((e) => best[e][0]?.blur ?? Infinity)), stocked, single };
  });
  const order = (a: Candidate, b: Candidate): number => blurClass(a.worst) - blurClass(b.worst) || a.family.name.localeCompare(b.family.name);
  const group = (r: Candidate): number => (decided && ofKind(r.family, decided) ? 0 : r.single ? 1 : 2);
  return [0, 1, 2].flatMap((g) => banded(rows.filter((r) => group(r) === g).sort(order), record.house.settings.rankTolerance));
}

/** Is a family of the kind decided: kept as long, of the same geometry, approved for nights where nights are meant? */
export const ofKind = (family: Family, kind: Kind): boolean =>
  family.modality === kind.modality && family.geometry === kind.geometry && (kind.wear === 'day' || family.overnightApproved);

/** Re-orders rows that are sorted by blur: within each band those in the drawer stand first. */
function banded(rows: readonly Candidate[], tolerance: number): Candidate[] {
  const bands: Candidate[][] = [];
  for (const row of rows) {
    const band = bands.at(-1);
    const start = band?.[0]?.worst;
    if (band && start !== undefined && (row.worst - start <= tolerance + 1e-9 || row.worst === start)) band.push(row);
    else bands.push([row]);
  }
  return bands.flatMap((band) => [...band.filter((r) => r.stocked), ...band.filter((r) => !r.stocked)]);
}

/** What is chosen for one eye. */
export interface Chosen {
  readonly family: Family;
  readonly lens: NearestLens;
  readonly variant: LensVariant;
}

const variantKey = (v: LensVariant): string => `${v.baseCurve}|${v.diameter}|${v.add ?? ''}`;

/** The choice a draft holds for one eye, checked against what is made; falls back to the family's best. */
export function chosenOf(body: Readonly<Record<string, string>>, eye: Eye, rows: readonly Candidate[]): Chosen | null {
  const code = body[`${eye}Family`] ?? body.family ?? rows[0]?.family.code;
  if (code === undefined || code === 'none') return null;
  const row = rows.find((r) => r.family.code === code);
  const index = Number(body[`${eye}Power:${code}`] ?? 0);
  const lens = row?.best[eye][index] ?? row?.best[eye][0];
  if (!row || !lens) return null;
  const variant = lens.variants.find((v) => variantKey(v) === body[`${eye}Variant:${code}`]) ?? lens.variants[0];
  return variant ? { family: row.family, lens, variant } : null;
}
export { variantKey };

/** Trial lenses of exactly this kind in the drawer that may still be used. */
export function inDrawer(record: VisitRecord, familyId: string, lens: NearestLens, variant: LensVariant | null): number {
  return record.stock
    .filter(
      (s) =>
        s.familyVersionId === familyId &&
        s.sphereD === lens.power.sphere &&
        s.cylinderD === lens.power.cylinder &&
        (lens.power.cylinder === 0 || s.axisDeg === lens.power.axis) &&
        s.expiresOn >= record.house.today &&
        (variant === null || (s.baseCurveMm === variant.baseCurve && s.diameterMm === variant.diameter && s.addBand === variant.add)),
    )
    .reduce((sum, s) => sum + s.count, 0);
}

/** The form's lens as the service takes it. */
export function specOf(chosen: Chosen): {
  familyId: string;
  sphere: number;
  cylinder: number;
  axis: number;
  add: AddBand | null;
  baseCurve: number;
  diameter: number;
} {
  const { power } = chosen.lens;
  return {
    familyId: chosen.family.id,
    sphere: power.sphere,
    cylinder: power.cylinder,
    axis: power.axis,
    add: chosen.variant.add,
    baseCurve: chosen.variant.baseCurve,
    diameter: chosen.variant.diameter,
  };
}

/** Half a dioptre of cylinder or less at the cornea is usually left to a sphere; 0.75 and more asks a toric. Common practice. */
export function kindAsked(need: Refraction): 'sphere' | 'either' | 'toric' {
  const cylinder = Math.abs(need.cylinder);
  if (cylinder <= 0.5) return 'sphere';
  if (cylinder >= 0.75) return Math.abs(need.sphere) >= 4 * cylinder && Math.abs(sphericalEquivalent(need)) > 0 ? 'either' : 'toric';
  return 'either';
}
