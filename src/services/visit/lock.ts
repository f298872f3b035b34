import 'server-only';
import { FACT_KINDS, type Eye, type FactKind, type SliceName, type StepId, type VisitRow } from '../../core';
import { listChangedSince } from '../../db/change';
import type { FactMeta, FactValues } from '../../db/fact';
import type { Hung } from '../../db/pending';
import { advanceVisit, findVisit } from '../../db/visit';
import { err, notFound, ok, ruleBroken, type ChangedFact, type Result } from '../../lib/outcome';
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

/** Kinds of fact on which rests how far lenses reach. */
export const isOfSupply = (kind: FactKind): boolean => kind === 'handOver' || kind === 'wornAnswer';

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
  /** Hangs something on a lens on an eye. */
  readonly hang: (hung: Hung) => void;
  /** What was being typed is recorded now. */
  readonly forgetDraft: (step: StepId) => void;
  readonly done: () => Changed;
}

/**
 * What a command is held up by. `record`: nothing, it only writes down what was said or seen, or takes a lens off.
 * `measure`: an absolute stop. `lens`: also an alert not acknowledged and a stop not overridden; it brings a lens nearer.
 */
export type Gate = 'record' | 'measure' | 'lens';

/**
 * What a command builds on: a kind of fact, or another thing that is recorded in a visit (`db/change` lists them), of one eye
 * or of any. Two people who record different things in one visit do not stand in each other's way.
 */
export interface Touch {
  readonly what: FactKind | 'choice' | 'decision' | 'history' | 'picture' | 'referral' | 'stop';
  readonly eye?: Eye;
}
/** Kinds of fact of some eyes. */
export const touching = (kinds: readonly Touch['what'][], eyes: readonly Eye[]): readonly Touch[] =>
  kinds.flatMap((what) => eyes.map((eye) => ({ what, eye })));

export interface Locking {
  /** Whoever names none is held to the strictest. */
  readonly gate?: Gate;
  /** Holds the wearer against everybody else, not only against stops: asked for at once, never later. */
  readonly alone?: boolean;
  /** What this command builds on; left out: on the whole visit, as signing, overriding, handing over and ordering do. */
  readonly touches?: readonly Touch[];
}

const touchesOne = (touches: readonly Touch[], changed: ChangedFact): boolean =>
  touches.some((t) => t.what === changed.what && (t.eye === undefined || changed.eye === null || t.eye === changed.eye));

/** Why a visit could not be locked at a version. */
async function refusal(context: Context, visitId: string, version: number): Promise<Result<never>> {
  const { tx, caller } = context;
  const visit = await findVisit(tx, caller.practiceId, visitId);
  if (!visit) return notFound('visit');
  if (visit.closedAt !== null) return ruleBroken('visitClosed');
  return err({ kind: 'conflict', what: 'visit', differs: await listChangedSince(tx, caller.practiceId, visitId, version) });
}

/**
 * Locks the visit for a change, to the end of the transaction. Somebody who read an older version is refused where what the
 * command builds on was changed since, and told what differs; else the answer brings their page up to date.
 */
export async function lockVisit(
  context: Context,
  { visitId, version }: { readonly visitId: string; readonly version: number },
  { gate = 'lens', alone = false, touches }: Locking = {},
): Promise<Result<LockedVisit>> {
  const { tx, caller, now } = context;
  const at = { practiceId: caller.practiceId, id: visitId, version, exactly: touches === undefined };
  const visit = await advanceVisit(tx, at, gate === 'record' ? 'none' : alone ? 'alone' : 'shared');
  if (!visit) return refusal(context, visitId, version);
  context.answer.visit = visit;
  if (touches && visit.version - 1 > version) {
    const differs = await listChangedSince(tx, caller.practiceId, visitId, version);
    if (differs.some((d) => touchesOne(touches, d))) return err({ kind: 'conflict', what: 'visit', differs });
    context.answer.behind = true;
  }
  if (gate !== 'record') {
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
      context.pending.facts.push({ kind, meta: row, values });
      facts.push({ kind, id: row.id });
      changed(...slicesOf(kind));
      if (isOfSupply(kind)) context.supplyOf.add(visit.wearerId);
      return row.id;
    },
    hang: (hung) => {
      context.pending.hung.push(hung);
      changed('measures');
    },
    forgetDraft: (step) => {
      context.pending.drafts.push({ practiceId: caller.practiceId, visitId, step, authorId: caller.personId });
      readingOf(context, visit).forgetDraft(step, caller.personId);
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
