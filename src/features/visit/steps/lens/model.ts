import { formatRefraction, type LensAdd, type Eye, type LensVariant, type NearestLens, type Refraction } from '@/core';
import { curveFor, type Candidate, type Family } from '../../shell/candidates';
import type { DraftOf } from '../../shell/draftKeys';

/** View logic of the Lens step, without React. */
type PerEye<T> = Readonly<Record<Eye, T>>;
type Body = DraftOf<'lens'>;

/** One family of the list with its nearest lenses for each eye. */
export interface Row extends Candidate {
  /** What this family is asked for: the turn is allowed for where it was seen to turn. */
  readonly needs: PerEye<Refraction | null>;
  readonly best: PerEye<readonly NearestLens[]>;
}

/** What is chosen for one eye. */
export interface Chosen {
  readonly family: Family;
  readonly lens: NearestLens;
  readonly variant: LensVariant;
}

export const variantKey = (v: LensVariant): string => `${v.baseCurve}|${v.diameter}|${v.add ?? ''}`;

/** The family chosen to begin with: the first of the kind decided that serves, else the first. */
export const firstChoice = (rows: readonly Candidate[]): Candidate | undefined => rows.find((r) => r.ofKind && Number.isFinite(r.worst)) ?? rows[0];

/** The choice a draft holds for one eye, checked against what is made; falls back to the family's best. */
export function chosenOf(body: Body, eye: Eye, rows: readonly Row[], first: Candidate | undefined, meanK: number | null): Chosen | null {
  const code = body[`${eye}Family`] || body.family || first?.family.code;
  if (code === undefined || code === 'none') return null;
  const row = rows.find((r) => r.family.code === code);
  const index = Number(body[`${eye}Power:${code}`] ?? 0);
  const lens = row?.best[eye][index] ?? row?.best[eye][0];
  if (!row || !lens) return null;
  const variant = lens.variants.find((v) => variantKey(v) === body[`${eye}Variant:${code}`]) ?? curveFor(lens, meanK)?.curve;
  return variant ? { family: row.family, lens, variant } : null;
}

/** How many families may stand side by side. */
export const SIDE_BY_SIDE = 3;

/** The families put side by side, in the order chosen. */
export const comparedOf = (body: Body): readonly string[] => (body.compare ?? '').split(',').filter((c) => c !== '');

/** Puts a family beside the others, or takes it away; a fourth changes nothing. */
export function toggled(compared: readonly string[], code: string): readonly string[] {
  if (compared.includes(code)) return compared.filter((c) => c !== code);
  return compared.length >= SIDE_BY_SIDE ? compared : [...compared, code];
}

/** Why a row stands where it does: codes with the figures that make words of them, the deciding one first. */
export type Why = { readonly code: 'best' | 'band' | 'behind' | 'unreached' | 'ofKind' | 'stocked' } | { readonly code: 'house'; readonly place: number };
export function whyOf(row: Candidate): readonly Why[] {
  const first: Why = !Number.isFinite(row.worst)
    ? { code: 'unreached' }
    : row.behind < 0.005
      ? { code: 'best' }
      : row.band === 1
        ? { code: 'band' }
        : { code: 'behind' };
  return [
    first,
    ...(row.ofKind ? [{ code: 'ofKind' } as const] : []),
    ...(row.housePlace === null ? [] : [{ code: 'house', place: row.housePlace } as const]),
    ...(row.stocked ? [{ code: 'stocked' } as const] : []),
  ];
}

/** Under which key the blister of a lens in the hand is typed: another lens has another blister. */
export const handKey = (eye: Eye, part: 'Lot' | 'Expires', { family, lens, variant }: Chosen) =>
  `${eye}${part}:${family.code} ${formatRefraction(lens.power)} ${variant.baseCurve} ${variant.diameter} ${variant.add ?? ''}` as const;

/** The form's lens as the service takes it. */
export function specOf(chosen: Chosen): {
  familyId: string;
  sphere: number;
  cylinder: number;
  axis: number;
  add: LensAdd | null;
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

/** Is each eye chosen for by itself? As pressed; unpressed, where the way of serving near asks each for a kind of its own. */
export const isApart = (pressed: string | undefined, setApart: boolean): boolean => (pressed === undefined || pressed === '' ? setApart : pressed === 'yes');
