import 'server-only';
import { ageOn, eyeAtRisk, eyeState, type Eye, type EyeContext, type EyeState, type LensOfEye, type Picked, type VisitFacts } from '../core';
import { findBestAcuities } from '../db/acuities';
import { findFamilyInForce, listLenses, type FamilyWithBlocks, type LensRow } from '../db/lenses';
import { listVisits, type VisitRow } from '../db/visits';
import { findWearer } from '../db/wearers';
import { must } from '../lib/assert';
import type { Context } from './define';
import { readHealth } from './healthRecord';
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

/** What a prescriber picked where refraction and over-refraction do not agree, by eye. */
export type Picks = Readonly<Partial<Record<Eye, Picked | null>>>;

/** What of the wearer bears on each eye beside what was measured in this visit. */
export async function eyeContexts(context: Context, visit: VisitRow, picks: Picks = {}): Promise<Record<Eye, EyeContext>> {
  const { tx, caller, today } = context;
  const wearer = must(await findWearer(tx, caller.practiceId, visit.wearerId), 'wearer of the visit');
  const earlier = (await listVisits(tx, caller.practiceId, visit.wearerId)).filter((v) => v.openedAt < visit.openedAt).map((v) => v.id);
  const best = await findBestAcuities(tx, caller.practiceId, earlier);
  const { state } = await readHealth(context, visit);
  const of = (eye: Eye): EyeContext => ({
    age: ageOn(wearer.birthDate, today),
    bestBefore: best[eye],
    oneLineAsks: eyeAtRisk(state, eye),
    picked: picks[eye] ?? null,
  });
  return { right: of('right'), left: of('left') };
}

/** Both eyes of a visit as they stand. */
export async function eyesOf(context: Context, visit: VisitRow, picks: Picks = {}): Promise<Record<Eye, EyeState>> {
  const facts = await readVisitFacts(context, visit.id);
  const lenses = await lensesOf(context, lensIdsOf(facts));
  const contexts = await eyeContexts(context, visit, picks);
  const of = (eye: Eye): EyeState => eyeState(facts, eye, (id) => lenses.get(id), context.settings, contexts[eye]);
  return { right: of('right'), left: of('left') };
}
