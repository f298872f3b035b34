import 'server-only';
import { drivingGate, farOfBoth } from '../../core';
import { ok, ruleBroken, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import type { VisitReading } from '../visit/reading';

/** May lenses go home, as far as driving with them goes? @param firstPair worn for the first time, and no further boxes */
export async function drivingAsked({ settings }: Context, reading: VisitReading, firstPair: boolean): Promise<Result<null>> {
  const gate = drivingGate({
    nearFindings: (await reading.supply()).nearFindings,
    visitId: reading.visit.id,
    far: farOfBoth(await reading.facts()),
    needs: -Math.log10(settings.drivingDecimal),
    firstPair,
  });
  return gate === null ? ok(null) : ruleBroken(gate);
}
