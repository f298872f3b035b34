import 'server-only';
import { evidenceKey, evidenceKeyOf, type StopRow } from '../../core';
import { holdWearerAlone, insertStop } from '../../db/stop';
import type { Context } from '../define';
import { readingOf } from '../visit/reading';
import type { LockedVisit } from '../visit/lock';

/**
 * Opens every absolute stop that holds now and is not open yet. Called in the same transaction as whatever brought
 * it about: a stop and a new lens cannot pass each other unseen.
 */
export async function openAbsoluteStops(context: Context, taken: LockedVisit): Promise<void> {
  const { visit } = taken;
  const { tx, caller, now } = context;
  if (!taken.alone) await holdWearerAlone(tx, caller.practiceId, visit.wearerId);
  const reading = readingOf(context, visit);
  // What others recorded until the wearer was held counts too.
  if (!taken.alone) reading.forgetOthers();
  const state = await reading.state();
  const { stops } = await reading.health();
  const open = stops.filter((s) => s.endedAt === null);
  for (const fired of state.fired) {
    if (fired.rule.strength !== 'absolute') continue;
    const covers = (s: StopRow): boolean => s.rule === fired.rule.id && fired.eyes.every((eye) => s.eyes.includes(eye));
    // A prescriber has looked at this very evidence in this visit, and ended it.
    const lookedAt = stops.some(
      (s) =>
        s.visitId === visit.id &&
        (s.endedHow === 'looked' || s.endedHow === 'secondLook') &&
        evidenceKeyOf({ id: s.rule, version: fired.rule.version }, s.evidence) === evidenceKey(fired),
    );
    const known = open.some(covers) || lookedAt;
    if (known) continue;
    taken.changed('health');
    await insertStop(
      tx,
      {
        id: context.newId(),
        practiceId: caller.practiceId,
        wearerId: visit.wearerId,
        visitId: visit.id,
        visitVersion: taken.version,
        at: now,
        by: caller.personId,
      },
      { rule: fired.rule.id, ruleVersion: fired.rule.version, eyes: fired.eyes, evidence: fired.evidence },
    );
  }
}
