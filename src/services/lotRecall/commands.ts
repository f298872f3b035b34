import 'server-only';
import { findRecall, insertRecall, insertRecallCall, liftRecall as lift, listRecalls } from '../../db/lotRecall';
import { newestVersion } from '../../db/family';
import { findWearer } from '../../db/wearer';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { liftRecallForm, recallCallForm, recallForm } from '../../schema/lotRecall';
import { defineCommand } from '../define';

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** A lot is called back: nothing of it goes on an eye or home from now on, and whoever had it is to be called. */
export const openRecall = defineCommand({
  name: 'openRecall',
  right: 'handOver',
  input: recallForm,
  about: (_form, out: { readonly recallId: string }) => ({ subjectKind: 'lotRecall', subjectId: out.recallId }),
  run: async ({ tx, caller, now, newId }, form): Promise<Result<{ readonly recallId: string }>> => {
    if (form.familyCode !== null && (await newestVersion(tx, caller.practiceId, form.familyCode)) === 0) return notFound('family');
    const open = (await listRecalls(tx, caller.practiceId)).filter((r) => r.liftedAt === null);
    if (open.some((r) => same(r.lot, form.lot) && r.familyCode === form.familyCode)) return invalid('lot', 'recalledAlready', { lot: form.lot });
    const recallId = newId();
    await insertRecall(tx, { id: recallId, practiceId: caller.practiceId, ...form, openedAt: now, openedBy: caller.personId });
    return ok({ recallId });
  },
});

/** Somebody who had lenses of it was called: what came of that. */
export const recordRecallCall = defineCommand({
  name: 'recordRecallCall',
  right: 'handOver',
  input: recallCallForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller, now, newId }, form): Promise<Result<null>> => {
    if (!(await findRecall(tx, caller.practiceId, form.recallId))) return notFound('lotRecall');
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    await insertRecallCall(tx, { id: newId(), practiceId: caller.practiceId, ...form, calledAt: now, calledBy: caller.personId });
    return ok(null);
  },
});

/** The maker gives a lot free again, or it was named in error. */
export const liftRecall = defineCommand({
  name: 'liftRecall',
  right: 'sign',
  input: liftRecallForm,
  about: (form) => ({ subjectKind: 'lotRecall', subjectId: form.recallId }),
  run: async ({ tx, caller, now }, form): Promise<Result<null>> => {
    const recall = await findRecall(tx, caller.practiceId, form.recallId);
    if (!recall) return notFound('lotRecall');
    if (recall.liftedAt !== null) return ruleBroken('recallLifted');
    await lift(tx, { recallId: form.recallId, practiceId: caller.practiceId, reason: form.reason, liftedAt: now, liftedBy: caller.personId });
    return ok(null);
  },
});
