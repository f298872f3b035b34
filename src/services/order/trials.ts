import 'server-only';
import { findOrderByKey, insertOrder } from '../../db/order';
import { nextNumber } from '../../db/practice';
import { ok } from '../../lib/outcome';
import { orderTrialsForm } from '../../schema/order';
import { defineCommand } from '../define';
import { lensesToPutOn } from '../lensOnEye/commands';
import { lockVisit } from '../visit/lock';

/** Orders one trial lens an eye that the drawer lacks. Whatever bars a lens from this eye bars it here; none under an absolute stop. */
export const orderTrials = defineCommand({
  name: 'orderTrials',
  right: 'clinicalWrite',
  input: orderTrialsForm,
  about: (_form, out: { orderId: string; visitId: string; version: number | null }) => ({ subjectKind: 'order', subjectId: out.orderId }),
  run: async (context, form) => {
    const { tx, caller, now, newId } = context;
    const there = await findOrderByKey(tx, caller.practiceId, form.requestKey);
    if (there) return ok({ orderId: there, visitId: form.visitId, version: null });
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const ofDrawer = { right: form.right && { ...form.right, inHand: null }, left: form.left && { ...form.left, inHand: null } };
    const lenses = await lensesToPutOn(context, taken.value, { ...form, ...ofDrawer });
    if (!lenses.ok) return lenses;
    const id = newId();
    await insertOrder(
      tx,
      {
        id,
        practiceId: caller.practiceId,
        number: await nextNumber(tx, caller.practiceId, 'order'),
        requestKey: form.requestKey,
        visitId: form.visitId,
        visitVersion: taken.value.version,
        wearerId: taken.value.visit.wearerId,
        kind: 'trial',
        prescriptionId: null,
        placedAt: now,
        placedBy: caller.personId,
        pastExpiryNote: null,
      },
      lenses.value.map(({ eye, lensId }) => ({ id: newId(), eye, mode: 'final', lensId, raw: null, packs: 1, packSize: 1, packPriceMinor: 0 })),
      newId(),
    );
    return ok({ orderId: id, visitId: form.visitId, version: taken.value.version });
  },
});
