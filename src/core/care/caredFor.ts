import type { FactChain } from '../record/chains';
import type { LensRow } from '../record/lens';
import { inForce } from '../supply/purpose';
import type { Prescription } from '../record/prescription';
import type { OnEyeFact } from '../record/visitFacts';

/** What a care system is for. */
export interface CaredFor {
  /** Materials of the lenses that are kept overnight, as families name them. */
  readonly materials: readonly string[];
  /** Is any of the lenses kept overnight? Null while no lens is known. */
  readonly reusable: boolean | null;
}

/** What is known of a wearer's lenses, in the browser and on the server. */
export interface LensesOfVisit {
  readonly lenses: Readonly<Record<string, LensRow>>;
  readonly families: readonly { readonly code: string; readonly material: string }[];
  readonly onEye: readonly FactChain<OnEyeFact>[];
  readonly prescriptions: readonly Prescription[];
}

/**
 * The lenses that a care system of a visit is for: those prescribed and in force, and those on the eyes in this visit. Single-use lenses are
 * kept nowhere.
 */
export function caredFor({ lenses, families, onEye, prescriptions }: LensesOfVisit): CaredFor {
  const prescribed = inForce(prescriptions).flatMap((p) => p.eyes.flatMap((e) => e.lensId ?? []));
  const worn = onEye.flatMap((c) => c.current?.lensId ?? []);
  const known = [...new Set([...prescribed, ...worn])].flatMap((id) => lenses[id] ?? []);
  const kept = known.filter((l) => l.modality !== 'daily');
  const materials = kept.flatMap((l) => families.find((f) => f.code === l.familyCode)?.material ?? []);
  return { materials: [...new Set(materials)], reusable: known.length === 0 ? null : kept.length > 0 };
}
