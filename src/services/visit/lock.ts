import 'server-only';
import { FACT_KINDS, type Eye, type FactKind, type SliceName, type StepId, type VisitRow } from '../../core';
import { deleteDraft } from '../../db/draft';
import { listChangedSince } from '../../db/change';
import type { FactMeta, FactValues } from '../../db/fact';
import { holdWearer } from '../../db/stop';
import { advanceVisit, findVisit } from '../../db/visit';
import { err, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import { readingOf } from './reading';

/** What a change in a visit gives back: enough to undo it, and the version to go on with. */
export interface Changed {
  readonly visitId: string;
  readonly version: number;
  readonly facts: readonly { readonly kind: FactKind; readonly id: string }[];
}

/** What of a visit a kind of fact changes: with a lens also which lenses were on before. */
export const slicesOf = (kind: FactKind): readonly SliceName[] => (kind === 'lensOnEye' ? [FACT_KINDS[kind].slice, 'lenses'] : [FACT_KINDS[kind].slice]);

/** A visit locked for one change. */
export interface LockedVisit {
  readonly visit: VisitRow;
  readonly version: number;
  /** Is the wearer held against everybody else already? */
  readonly alone: boolean;
  readonly facts: { readonly kind: FactKind; readonly id: string }[];
  /** Appends one fact and keeps its id for the undo. Facts are sent together, before anything is read or hung on them. */
  readonly add: (kind: FactKind, eye: Eye | null, values: FactValues, observedAt?: string) => string;
  readonly meta: (eye: Eye | null) => FactMeta;
  /** To be said of whatever else was changed: it is read again, and answered. */
  readonly changed: (...slices: readonly SliceName[]) => void;
  /** What was being typed is recorded now. */
  readonly forgetDraft: (step: StepId) => Promise<void>;
  readonly done: () => Changed;
}

/**
 * What a command is held up by. `record`: nothing, it only writes down what was said or seen, or takes a lens off.
 * `measure`: an absolute stop. `lens`: also an alert not acknowledged and a stop not overridden; it brings a lens nearer.
 */
export type Gate = 'record' | 'measure' | 'lens';

/** Why a visit could not be locked at a version. */
async function refusal(context: Context, visitId: string, version: number): Promise<Result<never>> {
  const { tx, caller } = context;
  const visit = await findVisit(tx, caller.practiceId, visitId);
  if (!visit) return notFound('visit');
  if (visit.closedAt !== null) return ruleBroken('visitClosed');
  return err({ kind: 'conflict', what: 'visit', differs: await listChangedSince(tx, caller.practiceId, visitId, version) });
}

/**
 * Locks the visit for a change, to the end of the transaction. Whoever names no gate is held to the strictest. Somebody who
 * read an older version is refused, and told what differs.
 * @param alone holds the wearer against everybody else, not only against stops: asked for at once, never later
 */
export async function lockVisit(context: Context, visitId: string, version: number, gate: Gate = 'lens', alone = false): Promise<Result<LockedVisit>> {
  const { tx, caller, now } = context;
  const visit = await advanceVisit(tx, caller.practiceId, visitId, version);
  if (!visit) return refusal(context, visitId, version);
  context.answer.visit = visit;
  if (gate !== 'record') {
    await holdWearer(tx, caller.practiceId, visit.wearerId, alone);
    const held = await heldUp(context, visit, gate);
    if (held) return held;
  }
  const facts: LockedVisit['facts'] = [];
  const changed = (...slices: readonly SliceName[]): void => {
    for (const slice of slices) context.answer.changed.add(slice);
    readingOf(context, visit).forget(...slices);
  };
  const meta = (eye: Eye | null): FactMeta => ({
    id: context.newId(),
    practiceId: caller.practiceId,
    visitId,
    visitVersion: visit.version,
    eye,
    observedAt: now,
    recordedAt: now,
    recordedBy: caller.personId,
  });
  return ok({
    visit,
    version: visit.version,
    alone: alone && gate !== 'record',
    facts,
    meta,
    changed,
    add: (kind, eye, values, observedAt) => {
      const row = { ...meta(eye), ...(observedAt ? { observedAt } : {}) };
      context.pending.push({ kind, meta: row, values });
      facts.push({ kind, id: row.id });
      changed(...slicesOf(kind));
      return row.id;
    },
    forgetDraft: async (step) => {
      await deleteDraft(tx, caller.practiceId, visitId, step, caller.personId);
      readingOf(context, visit).forgetDrafts();
    },
    done: () => ({ visitId, version: visit.version, facts }),
  });
}

/** Why this command must not be done now; null when nothing holds it up. */
async function heldUp(context: Context, visit: VisitRow, gate: 'measure' | 'lens'): Promise<Result<never> | null> {
  const state = await readingOf(context, visit).state();
  if (state.absolute.length > 0) return ruleBroken('absoluteStop');
  if (gate === 'measure') return null;
  if (state.alert !== null) return ruleBroken('alertWaits');
  const [first] = state.waiting;
  return first ? ruleBroken('stopWaits', { rule: first.rule.id }) : null;
}
