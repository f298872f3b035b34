import 'server-only';
import { hastenDispatch, isHeld } from '../../db/dispatch';
import { notFound, ok, ruleBroken } from '../../lib/outcome';
import { hastenForm, orderForm } from '../../schema/order';
import { lockVisit } from '../visit/lock';
import { defineCommand } from '../define';
import { orderOfPress, type Ordered } from './newOrder';
import { orderUnder } from './orderUnder';

export const placeOrder = defineCommand({
  name: 'placeOrder',
  right: 'orders',
  input: orderForm,
  about: (_form, out: Ordered) => ({ subjectKind: 'order', subjectId: out.orderId }),
  run: async (context, form) => {
    const there = await orderOfPress(context, form);
    if (there) return ok(there);
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const ordered = await orderUnder(context, taken.value, form);
    if (!ordered.ok) return ordered;
    taken.value.forgetDraft('supply');
    return ordered;
  },
});

/** Try a waiting order again now. */
export const hastenOrder = defineCommand({
  name: 'hastenOrder',
  right: 'orders',
  input: hastenForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form) => {
    if (await isHeld(context.tx, context.caller.practiceId, form.orderId)) return ruleBroken('absoluteStop');
    const done = await hastenDispatch(context.tx, context.caller.practiceId, form.orderId, context.now);
    return done ? ok({ orderId: form.orderId }) : notFound('order');
  },
});
