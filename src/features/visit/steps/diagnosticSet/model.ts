import {
  IRREGULAR_KINDS,
  proposeOfSet,
  type Eye,
  type EyeState,
  type Findings,
  type IrregularCornea,
  type SetLens,
  type SetProposal,
  type SetTried,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';

type PerEye<T> = Readonly<Record<Eye, T>>;
type Family = VisitRecord['families'][number];
/** A lens of a set as the ladder looks at it. */
export type SetLensOf = SetLens & { readonly baseCurve: number; readonly diameter: number };
/** One set of the practice, its lenses from the steepest. */
export interface SetOf {
  readonly code: string;
  readonly name: string;
  readonly family: Family;
  readonly lenses: readonly SetLensOf[];
  readonly proposed: Readonly<Record<Eye, SetProposal<SetLensOf> | null>>;
}

const withCurve = (lens: SetLens): SetLensOf[] =>
  lens.baseCurveMm === null || lens.diameterMm === null || lens.endedAt !== null ? [] : [{ ...lens, baseCurve: lens.baseCurveMm, diameter: lens.diameterMm }];

/** What eye health says of an irregular cornea. */
export function corneaOf({ cornea, coneStage, hvid }: Findings): IrregularCornea {
  return {
    kind: IRREGULAR_KINDS.find((k) => k === cornea) ?? null,
    stage: typeof coneStage === 'number' ? coneStage : null,
    hvidMm: typeof hvid === 'number' ? hvid : null,
  };
}

/** The lens of a set that is on an eye, and how it fits by the fitter's word, else by what was seen; null where it is none. */
export function triedOf({ sets }: Pick<VisitRecord, 'sets'>, { onEye, fit, fitVerdict }: EyeState): SetTried | null {
  const lens = sets.find((l) => l.id === onEye?.current.diagnosticLensId);
  if (!lens || lens.baseCurveMm === null || lens.diameterMm === null) return null;
  const seen = fit?.current.verdict ?? (fitVerdict.verdict === 'mixed' ? null : fitVerdict.verdict);
  return { setCode: lens.setCode, baseCurve: lens.baseCurveMm, diameter: lens.diameterMm, fit: seen };
}

/** The practice's sets that have a lens, with what is proposed of each for either eye. */
export function setsOf({ families, sets }: Pick<VisitRecord, 'families' | 'sets'>, cornea: PerEye<IrregularCornea>, tried: PerEye<SetTried | null>): SetOf[] {
  return families
    .filter((f) => f.irregular)
    .flatMap((family): SetOf[] => {
      const lenses = sets.filter((l) => l.setCode === family.code).flatMap(withCurve);
      if (lenses.length === 0) return [];
      const of = (e: Eye) => (cornea[e].kind === null && tried[e] === null ? null : proposeOfSet(family.code, lenses, family.setTable, cornea[e], tried[e]));
      return [{ code: family.code, name: family.name, family, lenses, proposed: { right: of('right'), left: of('left') } }];
    });
}

/** Of all that is proposed for an eye the lens to begin with: the next of the set that is on it, else one whose own table names this cornea. */
export function firstOf(sets: readonly SetOf[], e: Eye, tried: SetTried | null): SetLensOf | null {
  const all = sets.flatMap((s) => s.proposed[e] ?? []);
  const next = all.find((p) => p.why === 'steeper' || p.why === 'flatter');
  if (tried !== null) return next?.lens ?? null;
  return (all.find((p) => p.why === 'table') ?? all[0])?.lens ?? null;
}
