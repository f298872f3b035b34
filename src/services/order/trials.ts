import 'server-only';
import { listLenses } from '../../db/lens';
import { must } from '../../lib/assert';
import { ok } from '../../lib/outcome';
import { orderTrialsForm } from '../../schema/order';
import { defineCommand } from '../define';
import { lensesToPutOn } from '../lensOnEye/commands';
import { lockVisit } from '../visit/lock';
import { keepOrder, orderOfPress, type Ordered } from './newOrder';

/** Orders one trial lens an eye that the drawer lacks. Whatever bars a lens from this eye bars it here; none under an absolute stop. */
export const orderTrials = defineCommand({
  name: 'orderTrials',
  right: 'clinicalWrite',
  input: orderTrialsForm,
  about: (_form, out: Ordered) => ({ subjectKind: 'order', subjectId: out.orderId }),
  run: async (context, form) => {
    const there = await orderOfPress(context, form);
    if (there) return ok(there);
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const ofDrawer = { right: form.right && { ...form.right, inHand: null }, left: form.left && { ...form.left, inHand: null } };
    const lenses = await lensesToPutOn(context, taken.value, { ...form, ...ofDrawer });
    if (!lenses.ok) return lenses;
    const of = { requestKey: form.requestKey, kind: 'trial', prescriptionId: null, pastExpiryNote: null } as const;
    const one = { mode: 'final', raw: null, packs: 1, packSize: 1, packPriceMinor: 0 } as const;
    const known = await listLenses(
      context.tx,
      context.caller.practiceId,
      lenses.value.map((l) => l.lensId),
    );
    const lines = lenses.value.map(({ eye, lensId }) => ({
      line: { id: context.newId(), eye, lensId, ...one },
      maker: must(
        known.find((l) => l.id === lensId),
        'lens',
      ).maker,
    }));
    return ok(await keepOrder(context, taken.value, of, lines));
  },
});
