import 'server-only';
import { eyesOfVisit, type Eye, type EyeState, type LensOfEye, type LensRow, type Picks, type VisitFacts, type VisitRow } from '../../core';
import { bundle } from '../../db/bundle';
import { asFamily, familiesOfLenses, type FamilyWithBlocks } from '../../db/family';
import { listLenses } from '../../db/lens';
import type { Context } from '../define';
import { readingOf } from './reading';

/** Lenses by their id, and the families of which they are, in the version in force today: which is what can be ordered. */
export interface Named {
  readonly lenses: Readonly<Record<string, LensRow>>;
  readonly ofLenses: readonly FamilyWithBlocks[];
}

/** What the library says of some lenses, in one statement. */
export async function namedLenses(context: Context, ids: readonly string[]): Promise<Named> {
  const unique = [...new Set(ids)].sort();
  if (unique.length === 0) return { lenses: {}, ofLenses: [] };
  const key = unique.join(' ');
  const known = context.named.get(key);
  if (known) return known;
  const rows = await bundle(context.tx, {
    lenses: listLenses(context.tx, context.caller.practiceId, unique),
    families: familiesOfLenses(context.tx, context.caller.practiceId, unique, context.today),
  });
  const named: Named = { lenses: Object.fromEntries(rows.lenses.map((l) => [l.id, l])), ofLenses: rows.families.map(asFamily) };
  context.named.set(key, named);
  return named;
}

/** A lens as the verdicts look at it, and its row. */
export type LensWithRow = LensOfEye & { readonly row: LensRow };

/** What a lens is and what else its family makes. */
export function lensIn({ lenses, ofLenses }: Named): (id: string) => LensWithRow | undefined {
  return (id) => {
    const row = lenses[id];
    if (!row) return undefined;
    const family = row.listed ? ofLenses.find((f) => f.code === row.familyCode) : undefined;
    return {
      row,
      power: { sphere: row.sphereD, cylinder: row.cylinderD, axis: row.axisDeg },
      tried: family ? { family, baseCurve: row.baseCurveMm, diameter: row.diameterMm } : null,
    };
  };
}

/** Lenses named by the facts of a visit. */
export const lensIdsOf = (facts: VisitFacts): string[] => facts.onEye.flatMap((c) => (c.current?.lensId ? [c.current.lensId] : []));

/** Both eyes of a visit as they stand. */
export async function eyesOf(context: Context, visit: VisitRow, picks: Picks = {}): Promise<Readonly<Record<Eye, EyeState>>> {
  const reading = readingOf(context, visit);
  const facts = await reading.facts();
  const named = await namedLenses(context, lensIdsOf(facts));
  const past = await reading.past();
  return eyesOfVisit(facts, lensIn(named), context.settings, {
    age: (await reading.wearer()).age,
    bestBefore: past.bestBefore,
    knownTurns: past.knownTurns,
    addsBefore: past.addsBefore,
    health: await reading.state(),
    nearFindings: (await reading.supply()).nearFindings,
    picks,
  });
}
