import {
  EYES,
  isOrderable,
  nearestPowers,
  question,
  QUESTIONS,
  type Evidence,
  type Eye,
  type Fired,
  type Kind,
  type KindChoice,
  type Reason,
  type Recommendation,
  type Refraction,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';

/** View logic of the recommendation, without React. */

export interface ReasonRow {
  readonly rule: string;
  readonly evidence: readonly Evidence[];
  readonly recommended: Reason | null;
  readonly second: Reason | null;
}

/** Reasons of both choices side by side, most weight at the top, in the order of the rules where weights are equal. */
export function reasonRows({ recommended, second }: Pick<Recommendation, 'recommended' | 'second'>): ReasonRow[] {
  const rows = new Map<string, ReasonRow>();
  const key = (r: Reason): string =>
    r.target === 'siliconeHydrogel' || r.target === 'hydrogel' || r.target === 'overnight' ? `${r.rule}:${r.target}` : r.rule;
  const add = (choice: KindChoice | null, side: 'recommended' | 'second'): void => {
    for (const r of choice?.reasons ?? []) {
      const row = rows.get(key(r)) ?? { rule: r.rule, evidence: r.evidence, recommended: null, second: null };
      rows.set(key(r), { ...row, [side]: r });
    }
  };
  add(recommended, 'recommended');
  add(second, 'second');
  const weight = (row: ReasonRow): number => Math.max(Math.abs(row.recommended?.points ?? 0), Math.abs(row.second?.points ?? 0));
  return [...rows.values()].sort((a, b) => weight(b) - weight(a));
}

/** Where an answer or finding stands: the page and the place on it. */
export function placeOf(e: Evidence, visitId: string): { readonly href: string; readonly number: number | null } {
  const base = `/visits/${visitId}`;
  if (e.from === 'eye') return { href: `${base}/eye-health#sign-${e.key}`, number: null };
  if (e.from === 'power') return { href: `${base}/refraction`, number: null };
  if (e.from === 'library') return { href: `${base}/lens`, number: null };
  if (e.from === 'person') return { href: `${base}/history`, number: null };
  const id = e.key === 'medicineGroups' ? 'medicines' : e.key;
  const at = QUESTIONS.findIndex((q) => q.id === id);
  return { href: `${base}/history#q-${id}`, number: question(id) ? at + 1 : null };
}

/** Stops that hold count against any change: a kind is never advised by bringing one about. */
export const stopCount = (fired: readonly Fired[]): number => fired.filter((f) => f.rule.strength !== 'caution' && f.rule.strength !== 'overwear').length;

export type Needs = Readonly<Record<Eye, Refraction | null>>;
type Family = VisitRecord['families'][number];

/** The family of a kind to try first: listed, of its material, the least blur in the worse eye; by name where equal. */
export function firstFamily(record: VisitRecord, kind: Kind, needs: Needs): Family | null {
  const fits = record.families.filter(
    (f) =>
      f.listed &&
      isOrderable(f, record.session.today) &&
      f.modality === kind.modality &&
      f.geometry === kind.geometry &&
      (kind.wear === 'day' || f.overnightApproved) &&
      (f.material === 'hydrogel') === (kind.material === 'hydrogel'),
  );
  const worst = (f: Family): number => Math.max(0, ...EYES.map((e) => (needs[e] ? (nearestPowers(needs[e], f.blocks, { limit: 1 })[0]?.blur ?? Infinity) : 0)));
  const ranked = fits.map((family) => ({ family, blur: worst(family) }));
  return ranked.sort((a, b) => a.blur - b.blur || a.family.name.localeCompare(b.family.name))[0]?.family ?? null;
}
