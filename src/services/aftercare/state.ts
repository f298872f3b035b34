import 'server-only';
import { aftercareOfVisit, formatRefraction, inForce, pointedNames, type AftercareState, type NamedLens } from '../../core';
import { listCarePairs } from '../../db/carePair';
import type { Context } from '../define';
import { eyesOf, lensIn, lensIdsOf, namedLenses } from '../visit/lenses';
import { provenanceOf } from '../visit/provenance';
import type { VisitReading } from '../visit/reading';

/** Aftercare of a visit as it stands, reckoned again on the server. */
export async function aftercareNow(context: Context, reading: VisitReading): Promise<AftercareState> {
  const facts = await reading.facts();
  const supply = await reading.supply();
  const ids = [
    ...lensIdsOf(facts),
    ...supply.handOvers.flatMap((c) => c.current?.lensId ?? []),
    ...supply.orders.flatMap((o) => o.lines.flatMap((l) => l.lensId ?? [])),
    ...supply.broughtAlong.map((b) => b.lensId),
    ...supply.sellerVerified.map((v) => v.lensId),
    ...supply.wornAnswers.flatMap((c) => c.current?.lensId ?? []),
  ];
  const named = await namedLenses(context, ids);
  const one = lensIn(named);
  const lensOf = (id: string): NamedLens | undefined => {
    const lens = one(id);
    return lens && { ...lens, name: formatRefraction(lens.power) };
  };
  return aftercareOfVisit({
    visitId: reading.visit.id,
    today: context.today,
    settings: context.settings,
    file: await reading.health(),
    health: await reading.state(),
    eyes: await eyesOf(context, reading.visit),
    facts,
    provenance: await provenanceOf(reading),
    handOvers: supply.handOvers,
    lenses: named.lenses,
    materials: named.ofLenses,
    carePairs: await listCarePairs(context.tx, context.caller.practiceId),
    lensOf,
    daysPerWeek: inForce(supply.prescriptions)[0]?.daysPerWeek ?? 7,
  });
}

/** What it points to, as it is kept with a decision. */
export const pointedNow = (state: AftercareState): readonly string[] => pointedNames(state.pointed);
