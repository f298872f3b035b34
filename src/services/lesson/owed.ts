import 'server-only';
import { taughtFor, topicsOwed, type CareTopic, type LensRow } from '../../core';
import { listCareProducts } from '../../db/careProduct';
import { ok, ruleBroken, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import type { VisitReading } from '../visit/reading';

/** What the lenses are that are taught or go home; see `taughtFor`. */
export async function taughtNow(context: Context, reading: VisitReading, singleUse: boolean) {
  const careProducts = await listCareProducts(context.tx, context.caller.practiceId);
  return taughtFor({ visitId: reading.visit.id, supply: await reading.supply(), health: await reading.health(), careProducts }, singleUse);
}

/** Topics that a change since the last sign-off asks for. */
export async function owedTopics(context: Context, reading: VisitReading, singleUse: boolean): Promise<readonly CareTopic[]> {
  const { lessons } = await reading.supply();
  const { now, system } = await taughtNow(context, reading, singleUse);
  return topicsOwed(lessons, now, system);
}

/** How somebody came to handle lenses: signed off here, or for years already. */
export interface Teaching {
  readonly teaching: 'signedOff' | 'experienced';
  readonly signOffId: string | null;
  readonly experienceNote: string | null;
}

/**
 * May these lenses go home with the wearer? A new wearer is signed off first; who handles lenses already is noted instead; and after a
 * change of solution, reuse or nights its topics are said back anew.
 */
export async function teachingOf(
  context: Context,
  reading: VisitReading,
  lenses: readonly Pick<LensRow, 'modality'>[],
  experienceNote: string | null,
): Promise<Result<Teaching>> {
  const { lessons } = await reading.supply();
  const signOffId = lessons.findLast((l) => l.signOffId !== null)?.signOffId ?? null;
  if (experienceNote !== null && signOffId === null) return ok({ teaching: 'experienced', signOffId: null, experienceNote });
  if (signOffId === null) return ruleBroken('signOffNeeded');
  const owed = await owedTopics(
    context,
    reading,
    lenses.every((l) => l.modality === 'daily'),
  );
  if (owed.length > 0 && (experienceNote === null || !context.caller.roles.includes('prescriber'))) return ruleBroken('topicsOwed', { count: owed.length });
  return ok({ teaching: 'signedOff', signOffId, experienceNote: owed.length > 0 ? experienceNote : null });
}
