import 'server-only';
import { listChangedSince } from '../db/changes';
import { insertFact, type FactMeta, type FactTable, type FactValues } from '../db/facts';
import { holdWearer } from '../db/health';
import { advanceVisit, findVisit, type VisitRow } from '../db/visits';
import type { Eye } from '../core';
import { err, notFound, ok, ruleBroken, type Result } from '../lib/outcome';
import type { Context } from './define';
import { readHealth } from './healthRecord';

/** What a change in a visit gives back: enough to undo it, and the version to go on with. */
export interface Changed {
  readonly visitId: string;
  readonly version: number;
  readonly facts: readonly { readonly kind: UndoableKind; readonly id: string }[];
}
export type UndoableKind =
  | 'refraction'
  | 'finding'
  | 'lensOnEye'
  | 'fit'
  | 'rotation'
  | 'overRefraction'
  | 'lensFinding'
  | 'acuityBoth'
  | 'eyeAcuity'
  | 'lessonAttempt'
  | 'lessonTopic'
  | 'handOver';

export const TABLE_OF: Readonly<Record<UndoableKind, FactTable>> = {
  refraction: 'refraction',
  finding: 'eye_finding',
  lensOnEye: 'lens_on_eye',
  fit: 'fit_check',
  rotation: 'rotation_reading',
  overRefraction: 'over_refraction',
  lensFinding: 'lens_finding',
  acuityBoth: 'acuity_both',
  eyeAcuity: 'eye_acuity',
  lessonAttempt: 'lesson_attempt',
  lessonTopic: 'lesson_topic',
  handOver: 'hand_over',
};

/** A visit taken for one change. */
export interface Taken {
  readonly visit: VisitRow;
  readonly version: number;
  readonly facts: { readonly kind: UndoableKind; readonly id: string }[];
  /** Appends one fact and keeps its id for the undo. */
  readonly add: (kind: UndoableKind, eye: Eye | null, values: FactValues, observedAt?: string) => Promise<string>;
  readonly meta: (eye: Eye | null) => FactMeta;
  readonly done: () => Changed;
}

/**
 * What a deed is held up by. `record`: nothing, it only writes down what was said or seen, or takes a lens off.
 * `measure`: an absolute stop. `lens`: also an alert not acknowledged and a stop not passed; it brings a lens nearer.
 */
export type Gate = 'record' | 'measure' | 'lens';

/**
 * Takes the visit for a change. Whoever names no gate is held to the strictest. Somebody who read an older version is refused, and told what differs.
 * The lock on the visit's row lasts to the end of the transaction.
 * @param alone holds the wearer against everybody else, not only against stops: asked for at once, never later
 */
export async function takeVisit(context: Context, visitId: string, version: number, gate: Gate = 'lens', alone = false): Promise<Result<Taken>> {
  const { tx, caller, now } = context;
  const visit = await findVisit(tx, caller.practiceId, visitId);
  if (!visit) return notFound('visit');
  if (visit.closedAt !== null) return ruleBroken('visitClosed');
  const next = await advanceVisit(tx, caller.practiceId, visitId, version);
  if (next === null) {
    const differs = await listChangedSince(tx, caller.practiceId, visitId, version);
    return err({ kind: 'conflict', what: 'visit', differs });
  }
  if (gate !== 'record') {
    await holdWearer(tx, caller.practiceId, visit.wearerId, alone);
    const held = await heldUp(context, visit, gate);
    if (held) return held;
  }
  const facts: Taken['facts'] = [];
  const meta = (eye: Eye | null): FactMeta => ({
    id: context.newId(),
    practiceId: caller.practiceId,
    visitId,
    visitVersion: next,
    eye,
    observedAt: now,
    recordedAt: now,
    recordedBy: caller.personId,
  });
  return ok({
    visit,
    version: next,
    facts,
    meta,
    add: async (kind, eye, values, observedAt) => {
      const row = { ...meta(eye), ...(observedAt ? { observedAt } : {}) };
      await insertFact(tx, TABLE_OF[kind], row, values);
      facts.push({ kind, id: row.id });
      return row.id;
    },
    done: () => ({ visitId, version: next, facts }),
  });
}

/** Why this deed must not be done now; null when nothing holds it up. */
async function heldUp(context: Context, visit: VisitRow, gate: 'measure' | 'lens'): Promise<Result<never> | null> {
  const { state } = await readHealth(context, visit);
  if (state.absolute.length > 0) return ruleBroken('absoluteStop');
  if (gate === 'measure') return null;
  if (state.alert !== null) return ruleBroken('alertWaits');
  const [first] = state.waiting;
  return first ? ruleBroken('stopWaits', { rule: first.rule.id }) : null;
}
