import 'server-only';
import { eyeState, type Eye, type EyeState, type Refraction } from '../core';
import { listLenses } from '../db/lenses';
import type { Context } from './define';
import { readVisitFacts } from './visitRecord';

/** Both eyes of a visit as they stand. */
export async function eyesOf(context: Context, visitId: string): Promise<Record<Eye, EyeState>> {
  const facts = await readVisitFacts(context, visitId);
  const ids = facts.onEye.flatMap((c) => (c.current?.lensId ? [c.current.lensId] : []));
  const lenses = new Map((await listLenses(context.tx, context.caller.practiceId, ids)).map((l) => [l.id, l]));
  const power = (id: string): Refraction | undefined => {
    const lens = lenses.get(id);
    return lens && { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg };
  };
  const noise = context.settings.readerNoiseDegrees;
  return { right: eyeState(facts, 'right', power, noise), left: eyeState(facts, 'left', power, noise) };
}
