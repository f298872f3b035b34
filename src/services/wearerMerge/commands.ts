import 'server-only';
import { findMerge, lockMergeRecords, mergeWearer, unmergeWearer, type MergeRecord } from '../../db/wearerMerge';
import { err, invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { mergeWearersForm, undoMergeForm } from '../../schema/wearerMerge';
import { defineCommand, type Context } from '../define';

/** Two records, held; none where a visit of either is under way: whoever records there must see whose it is. */
async function held({ tx, caller }: Context, ids: readonly [string, string]): Promise<Result<readonly [MergeRecord, MergeRecord]>> {
  const found = await lockMergeRecords(tx, caller.practiceId, ids);
  const [first, second] = ids.map((id) => found.find((r) => r.id === id));
  if (!first || !second) return notFound('wearer');
  const busy = [first, second].find((r) => r.openVisit);
  return busy ? ruleBroken('mergeVisitOpen', { record: busy.recordNumber }) : ok([first, second]);
}

/** Two records of one person become one. Nothing is lost: it can be taken apart again. */
export const mergeWearers = defineCommand({
  name: 'mergeWearers',
  right: 'merge',
  input: mergeWearersForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.keepId }),
  run: async (context, form): Promise<Result<{ mergeId: string }>> => {
    const { tx, caller, now, newId } = context;
    if (form.keepId === form.otherId) return ruleBroken('mergeSame');
    const two = await held(context, [form.keepId, form.otherId]);
    if (!two.ok) return two;
    const [keep, other] = two.value;
    const merged = two.value.find((r) => r.mergedInto !== null);
    if (merged) return ruleBroken('mergedAlready', { record: merged.recordNumber, into: merged.mergedInto ?? 0 });
    if (keep.version !== form.keepVersion || other.version !== form.otherVersion) return err({ kind: 'conflict', what: 'wearer', differs: [] });
    const differ = keep.birthDate !== other.birthDate;
    if (differ && form.birthDatesReason === null) return invalid('birthDatesReason', 'mergeBirthDates', { keep: keep.birthDate, other: other.birthDate });
    const mergeId = newId();
    const { practiceId, personId } = caller;
    const why = { reason: form.reason, birthDatesReason: differ ? form.birthDatesReason : null };
    await mergeWearer(tx, { id: mergeId, practiceId, fromId: other.id, intoId: keep.id, ...why, mergedAt: now, mergedBy: personId });
    for (const id of [keep.id, other.id]) context.supplyOf.add(id);
    return ok({ mergeId });
  },
});

/** Two records are two again: each has what it had, and what was recorded since stays with its visit. */
export const undoMerge = defineCommand({
  name: 'undoMerge',
  right: 'merge',
  input: undoMergeForm,
  about: (form) => ({ subjectKind: 'wearerMerge', subjectId: form.mergeId }),
  run: async (context, form): Promise<Result<null>> => {
    const { tx, caller, now } = context;
    const merge = await findMerge(tx, caller.practiceId, form.mergeId);
    if (!merge) return notFound('wearerMerge');
    const two = await held(context, [merge.intoId, merge.fromId]);
    if (!two.ok) return two;
    const [into] = two.value;
    // Undone meanwhile by somebody who held them first.
    if (!(await findMerge(tx, caller.practiceId, form.mergeId))) return notFound('wearerMerge');
    if (into.mergedInto !== null) return ruleBroken('mergeLater', { record: into.recordNumber, into: into.mergedInto });
    const undone = { mergeId: merge.id, practiceId: caller.practiceId, reason: form.reason, undoneAt: now, undoneBy: caller.personId };
    if (!(await unmergeWearer(tx, undone))) return ruleBroken('mergeGrown');
    for (const id of [merge.intoId, merge.fromId]) context.supplyOf.add(id);
    return ok(null);
  },
});
