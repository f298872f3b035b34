import 'server-only';
import { insertAnswers } from '../../db/history';
import { findLoss, insertLoss, withdrawLoss as withdraw } from '../../db/lensLoss';
import { insertReorderCall } from '../../db/reorderCall';
import { insertVisit, setVisitClosed } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import { lossForm, lossWithdrawalForm, reorderCallForm, reorderForm } from '../../schema/reorder';
import { defineCommand } from '../define';
import { orderOfKey } from '../order/newOrder';
import { orderUnder } from '../order/orderUnder';
import { decideVisit } from '../visit/kindAndFee';
import { lockVisit } from '../visit/lock';
import { metaOf } from '../visit/meta';

/**
 * Lenses ordered on the telephone under a prescription in force. What was asked and said is kept as a visit of its own, which is
 * over when the telephone is put down, so that alerts, stops and gates are those of any visit.
 */
export const reorderLenses = defineCommand({
  name: 'reorderLenses',
  right: 'orders',
  input: reorderForm,
  about: (_form, out: { readonly orderId: string }) => ({ subjectKind: 'order', subjectId: out.orderId }),
  run: async (context, form): Promise<Result<{ readonly orderId: string }>> => {
    const { tx, caller, now, newId } = context;
    const { wearerId } = form;
    const there = await orderOfKey(context, form.requestKey);
    if (there !== null) return ok({ orderId: there });
    if (!(await findWearer(tx, caller.practiceId, wearerId))) return notFound('wearer');
    const visitId = newId();
    await insertVisit(tx, { id: visitId, practiceId: caller.practiceId, wearerId, kind: 'reorder', appointmentId: null, at: now, by: caller.personId });
    await decideVisit(context, { visitId, wearerId, kind: 'reorder' }, 0);
    const taken = await lockVisit(context, { visitId, version: 1 });
    if (!taken.ok) return taken;
    await insertAnswers(tx, metaOf(context, taken.value), [{ id: newId(), question: 'danger', value: ['none'], note: null }]);
    taken.value.changed('health');
    const ordered = await orderUnder(context, taken.value, form);
    if (!ordered.ok) return ordered;
    const { orderId } = ordered.value;
    const call = { id: newId(), practiceId: caller.practiceId, wearerId, outcome: 'ordered', orderId, laterOn: null, note: form.note } as const;
    await insertReorderCall(tx, { ...call, calledAt: now, calledBy: caller.personId });
    context.supplyOf.add(wearerId);
    await setVisitClosed(tx, caller.practiceId, visitId, now);
    return ok({ orderId });
  },
});

/** A call after which nothing is ordered: why, and when to call again. */
export const recordReorderCall = defineCommand({
  name: 'recordReorderCall',
  right: 'orders',
  input: reorderCallForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller, now, today, newId, supplyOf }, form): Promise<Result<null>> => {
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    if (form.laterOn !== null && form.laterOn <= today) return invalid('laterOn', 'dayPast', { day: form.laterOn });
    await insertReorderCall(tx, { id: newId(), practiceId: caller.practiceId, orderId: null, ...form, calledAt: now, calledBy: caller.personId });
    supplyOf.add(form.wearerId);
    return ok(null);
  },
});

/** A lens at home is gone before its time: torn, lost, in the sink. The days it would have lasted are gone with it. */
export const recordLoss = defineCommand({
  name: 'recordLoss',
  right: 'orders',
  input: lossForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller, now, today, newId, supplyOf }, form): Promise<Result<{ readonly lossId: string }>> => {
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    if (form.lostOn > today) return invalid('lostOn', 'dayFuture', { day: form.lostOn });
    const lossId = newId();
    await insertLoss(tx, { id: lossId, practiceId: caller.practiceId, ...form, toldAt: now, toldTo: caller.personId });
    supplyOf.add(form.wearerId);
    return ok({ lossId });
  },
});

/** A loss that was told in error. */
export const withdrawLoss = defineCommand({
  name: 'withdrawLoss',
  right: 'orders',
  input: lossWithdrawalForm,
  about: (form) => ({ subjectKind: 'lensLoss', subjectId: form.lossId }),
  run: async ({ tx, caller, now, supplyOf }, form): Promise<Result<null>> => {
    const loss = await findLoss(tx, caller.practiceId, form.lossId);
    if (!loss) return notFound('lensLoss');
    await withdraw(tx, { id: form.lossId, practiceId: caller.practiceId, at: now, by: caller.personId });
    supplyOf.add(loss.wearerId);
    return ok(null);
  },
});
