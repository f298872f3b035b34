import 'server-only';
import {
  EYES,
  FACT_KINDS,
  lastSeries,
  latest,
  newColumns,
  newValueProblem,
  secondsBetween,
  UNDONE,
  type Eye,
  type Fact,
  type FactChain,
  type FactKind,
  type FactRows,
  type HandOverFact,
  type OnEyeFact,
} from '../../core';
import { findFact, findFactValues, insertCorrection, type FactValues } from '../../db/fact';
import { returnGivenHome, returnTrial } from '../../db/trialStock';
import { err, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { correctForm, swapForm, undoForm } from '../../schema/correction';
import { isOfSupply, lockVisit, slicesOf, type Changed, type LockedVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand, type Context } from '../define';
import { openAbsoluteStops } from '../stop/openAbsoluteStops';

/** Seconds within which a press of Undo counts; the screen offers ten, the way here takes some. */
const UNDO_SECONDS = 20;

/** Facts that can only be told apart by the visit's lock; a second correction of one is a conflict. */
async function append(
  context: Context,
  taken: LockedVisit,
  kind: FactKind,
  fact: Fact,
  change: { readonly values: FactValues; readonly reason: string; readonly voided: boolean; readonly eye?: Eye },
): Promise<Result<null>> {
  const meta = { ...taken.meta(change.eye ?? null), observedAt: fact.observedAt };
  const done = await insertCorrection(context.tx, kind, meta, { correctsId: fact.id, reason: change.reason, voided: change.voided }, change.values);
  if (!done) return err({ kind: 'conflict', what: kind, differs: [] });
  taken.facts.push({ kind, id: meta.id });
  taken.changed(...slicesOf(kind));
  if (isOfSupply(kind)) context.supplyOf.add(taken.visit.wearerId);
  return ok(null);
}

/** A fact of the visit. */
async function factOfVisit<K extends FactKind>(context: Context, kind: K, visitId: string, id: string): Promise<Result<FactRows[K] & Fact>> {
  const row = await findFact(context.tx, kind, context.caller.practiceId, id);
  return row?.visitId === visitId ? ok(row as FactRows[K] & Fact) : notFound('fact');
}

/** A lens that was never on the eye goes back to the drawer, if it can still be used. */
async function backToDrawer(context: Context, taken: LockedVisit, fact: Fact): Promise<void> {
  const row = fact as OnEyeFact;
  taken.changed('drawer');
  if (row.trialStockId) {
    await returnTrial(context.tx, context.caller.practiceId, row.trialStockId, { at: context.now, by: context.caller.personId, visitId: row.visitId });
  }
}

/** Trial lenses that did not go home after all lie in the drawer again, beside the one that was on the eye. */
async function handOverTakenBack(context: Context, taken: LockedVisit, fact: Fact): Promise<void> {
  const { lensOnEyeId, lensCount, visitId } = fact as HandOverFact;
  if (lensOnEyeId === null || lensCount < 2) return;
  const { onEye } = await readingOf(context, taken.visit).facts();
  const trialStockId = onEye.find((c) => c.rootId === lensOnEyeId)?.current?.trialStockId ?? null;
  if (trialStockId === null) return;
  taken.changed('drawer');
  const gone = { trialStockId, visitId, count: lensCount - 1 };
  await returnGivenHome(context.tx, context.caller.practiceId, gone, { at: context.now, by: context.caller.personId });
}

export const correct = defineCommand({
  name: 'correct',
  right: 'clinicalWrite',
  input: correctForm,
  about: (form) => ({ subjectKind: form.kind, subjectId: form.factId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: form.kind }] });
    if (!taken.ok) return taken;
    const fact = await factOfVisit(context, form.kind, form.visitId, form.factId);
    if (!fact.ok) return fact;
    if (form.value !== null) {
      const problem = newValueProblem(form.kind, fact.value, form.value);
      if (problem) return err({ kind: 'invalid', fields: [{ ...problem, path: ['value', ...problem.path] }] });
    }
    const values = form.value === null ? {} : newColumns(form.kind, form.value);
    const done = await append(context, taken.value, form.kind, fact.value, { values, reason: form.reason, voided: form.value === null });
    if (!done.ok) return done;
    if (form.kind === 'lensOnEye' && form.backInDrawer) await backToDrawer(context, taken.value, fact.value);
    if (form.kind === 'handOver' && form.value === null) await handOverTakenBack(context, taken.value, fact.value);
    if (FACT_KINDS[form.kind].opensStops) await openAbsoluteStops(context, taken.value);
    return ok(taken.value.done());
  },
});

/** Where a kind that can be swapped value by value is listed. */
const LIST_OF = { refraction: 'refractions', overRefraction: 'overRefractions', lensOnEye: 'onEye' } as const;

/** Right and left were mixed up: the values change places as one correction; readings stay with the lens of their eye. */
export const swapEyes = defineCommand({
  name: 'swapEyes',
  right: 'clinicalWrite',
  input: swapForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: form.kind }] });
    if (!taken.ok) return taken;
    if (form.kind === 'rotation') return swapSeries(context, taken.value, form.reason);
    const facts = await readingOf(context, taken.value.visit).facts();
    const all: readonly FactChain<Fact & { readonly lensId?: string | null }>[] = facts[LIST_OF[form.kind]];
    const newest = (eye: Eye) => latest(all, (row) => row.eye === eye)?.current ?? null;
    const right = newest('right');
    const left = newest('left');
    if (!right || !left) return ruleBroken('bothEyesNeeded');
    // An unknown lens cannot take the place of a confirmed one: over-refractions hang on the confirmation.
    if (form.kind === 'lensOnEye' && (right.lensId === null) !== (left.lensId === null)) return ruleBroken('unknownLensSwap');
    for (const eye of EYES) {
      const [to, from] = eye === 'right' ? [right, left] : [left, right];
      const { lensOnEyeId: _stays, ...values } = await findFactValues(context.tx, form.kind, context.caller.practiceId, from.id);
      const done = await append(context, taken.value, form.kind, to, { values, reason: form.reason, voided: false });
      if (!done.ok) return done;
    }
    return ok(taken.value.done());
  },
});

/** The mark was read on the other eye: whole series change places, however many blinks each has. */
async function swapSeries(context: Context, taken: LockedVisit, reason: string): Promise<Result<Changed>> {
  const { onEye: lenses, rotations } = await readingOf(context, taken.visit).facts();
  const lensOf = (eye: Eye) => latest(lenses, (r) => r.eye === eye)?.rootId ?? '';
  const of = { right: lastSeries(rotations, lensOf('right')), left: lastSeries(rotations, lensOf('left')) };
  if (of.right.length === 0 || of.left.length === 0) return ruleBroken('bothEyesNeeded');
  const numbers = { right: of.right[0]?.current.seriesNo ?? 1, left: of.left[0]?.current.seriesNo ?? 1 };
  for (const eye of EYES) {
    const other: Eye = eye === 'right' ? 'left' : 'right';
    for (const { current } of of[eye]) {
      const values = { lensOnEyeId: lensOf(other), seriesNo: numbers[other] };
      const done = await append(context, taken, 'rotation', current, { values, reason, voided: false, eye: other });
      if (!done.ok) return done;
    }
  }
  return ok(taken.done());
}

/** Takes back what was recorded a moment ago: still an appended correction, with its reason. */
export const undo = defineCommand({
  name: 'undo',
  right: 'clinicalWrite',
  input: undoForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: form.facts.map(({ kind }) => ({ what: kind })) });
    if (!taken.ok) return taken;
    for (const { kind, id } of form.facts) {
      const fact = await factOfVisit(context, kind, form.visitId, id);
      if (!fact.ok) return fact;
      if (fact.value.recordedBy !== context.caller.personId || secondsBetween(fact.value.recordedAt, context.now) > UNDO_SECONDS) {
        return ruleBroken('tooLateToUndo');
      }
      // Undoing a correction restores what it replaced; undoing a first record takes it back.
      const before = fact.value.correctsId;
      const old = before ? await factOfVisit(context, kind, form.visitId, before) : null;
      const restored = old?.ok ? await findFactValues(context.tx, kind, context.caller.practiceId, old.value.id) : {};
      const done = await append(context, taken.value, kind, fact.value, { values: restored, reason: UNDONE, voided: old === null });
      if (!done.ok) return done;
      if (kind === 'lensOnEye' && before === null) await backToDrawer(context, taken.value, fact.value);
      if (kind === 'handOver' && before === null) await handOverTakenBack(context, taken.value, fact.value);
    }
    if (form.facts.some((f) => FACT_KINDS[f.kind].opensStops)) await openAbsoluteStops(context, taken.value);
    return ok(taken.value.done());
  },
});
