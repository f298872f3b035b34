import 'server-only';
import { EYES, eyeState, type Eye, type EyeState, type LensOfEye, type VisitFacts } from '../core';
import { findFamilyInForce, listLenses, type FamilyWithBlocks, type LensRow } from '../db/lenses';
import type { Context } from './define';
import { readVisitFacts } from './visitRecord';

/** What a lens is and what else its family makes: the version in force today, which is what can be ordered. */
export async function lensesOf(context: Context, ids: readonly string[]): Promise<ReadonlyMap<string, LensOfEye & { readonly row: LensRow }>> {
  const rows = await listLenses(context.tx, context.caller.practiceId, [...ids]);
  const families = new Map<string, FamilyWithBlocks | null>();
  const out = new Map<string, LensOfEye & { readonly row: LensRow }>();
  for (const row of rows) {
    let family = families.get(row.familyCode);
    if (family === undefined) {
      family = row.listed ? await findFamilyInForce(context.tx, context.caller.practiceId, row.familyCode, context.today) : null;
      families.set(row.familyCode, family);
    }
    out.set(row.id, {
      row,
      power: { sphere: row.sphereD, cylinder: row.cylinderD, axis: row.axisDeg },
      tried: family && { family, baseCurve: row.baseCurveMm, diameter: row.diameterMm },
    });
  }
  return out;
}

/** Lenses named by the facts of a visit. */
export const lensIdsOf = (facts: VisitFacts): string[] => facts.onEye.flatMap((c) => (c.current?.lensId ? [c.current.lensId] : []));

/** Both eyes of a visit as they stand. */
export async function eyesOf(context: Context, visitId: string): Promise<Record<Eye, EyeState>> {
  const facts = await readVisitFacts(context, visitId);
  const lenses = await lensesOf(context, lensIdsOf(facts));
  const [right, left] = EYES.map((eye) => eyeState(facts, eye, (id) => lenses.get(id), context.settings));
  if (!right || !left) throw new Error('two eyes');
  return { right, left };
}
