import 'server-only';
import { boxesOf, isAwaited, isEnded, type Eye, type Order } from '../../core';
import { insertCancel, withdrawDispatch } from '../../db/cancelDispatch';
import { insertClaim, insertClaimStep, findClaim } from '../../db/orderClaim';
import { lockOrder } from '../../db/order';
import { insertOrderEvent } from '../../db/supplierMessage';
import { findSupplier } from '../../db/supplier';
import { err, invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { arrivedForm, cancelOrderForm, claimForm, claimStepForm, telephonedForm } from '../../schema/supplier';
import { defineCommand, type Context } from '../define';

type Held = Order & { readonly wearerId: string };

const held = async ({ tx, caller }: Context, orderId: string): Promise<Result<Held>> => {
  const order = await lockOrder(tx, caller.practiceId, orderId);
  return order ? ok(order) : notFound('order');
};
const eventOf = ({ caller, now, newId }: Context, order: Held) => ({
  id: newId(),
  practiceId: caller.practiceId,
  orderId: order.id,
  at: now,
  toldBy: caller.personId,
});

/**
 * Gives up what of an order has not come. One that was not sent is given up at once; of one that was, the supplier is asked: it may
 * be on the road. What lies here stays.
 */
export const cancelOrder = defineCommand({
  name: 'cancelOrder',
  right: 'orders',
  input: cancelOrderForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form): Promise<Result<{ readonly cancelled: boolean }>> => {
    const { tx, caller, now, supplyOf } = context;
    const order = await held(context, form.orderId);
    if (!order.ok) return order;
    if (!isAwaited(order.value)) return ruleBroken('orderNotAwaited');
    const supplier = order.value.supplierId === null ? null : await findSupplier(tx, caller.practiceId, order.value.supplierId);
    const byTelephone = supplier !== null && supplier.endpoint === null;
    const detail = { reason: form.reason };
    const atOnce = byTelephone || (await withdrawDispatch(tx, caller.practiceId, form.orderId, now));
    await insertOrderEvent(tx, { ...eventOf(context, order.value), state: atOnce ? 'cancelled' : 'cancelAsked', detail });
    if (!atOnce) await insertCancel(tx, caller.practiceId, form.orderId, now);
    supplyOf.add(order.value.wearerId);
    return ok({ cancelled: atOnce });
  },
});

/** An order that was placed by telephone: the supplier's name for it, and the day it promised. */
export const recordTelephoned = defineCommand({
  name: 'recordTelephoned',
  right: 'orders',
  input: telephonedForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form): Promise<Result<null>> => {
    const { tx, today, supplyOf } = context;
    const order = await held(context, form.orderId);
    if (!order.ok) return order;
    if (isEnded(order.value)) return ruleBroken('orderNotAwaited');
    if (form.dueOn < today) return invalid('dueOn', 'dayPast', { day: form.dueOn });
    const said = { supplierReference: form.reference, dueOn: form.dueOn };
    // Said again, it is a later day.
    const first = !order.value.events.some((e) => e.state === 'acknowledged' || e.state === 'backordered');
    await insertOrderEvent(tx, { ...eventOf(context, order.value), ...said, state: first ? 'acknowledged' : 'delayed' });
    supplyOf.add(order.value.wearerId);
    return ok(null);
  },
});

/** A parcel that was sent straight to the wearer: what they say of it. Nobody here has seen a box of it. */
export const recordArrived = defineCommand({
  name: 'recordArrived',
  right: 'orders',
  input: arrivedForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form): Promise<Result<null>> => {
    const order = await held(context, form.orderId);
    if (!order.ok) return order;
    if (order.value.deliverTo !== 'wearer') return ruleBroken('notSentToWearer');
    if (isEnded(order.value)) return ruleBroken('orderNotAwaited');
    await insertOrderEvent(context.tx, { ...eventOf(context, order.value), state: form.arrived ? 'arrived' : 'notArrived' });
    context.supplyOf.add(order.value.wearerId);
    return ok(null);
  },
});

/** Something is wrong with boxes of a line: kept until the supplier has made it good. */
export const openClaim = defineCommand({
  name: 'openClaim',
  right: 'handOver',
  input: claimForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form): Promise<Result<{ readonly claimId: string }>> => {
    const { tx, caller, now, newId } = context;
    const order = await held(context, form.orderId);
    if (!order.ok) return order;
    const line = order.value.lines.find((l) => l.id === form.orderLineId);
    if (!line) return notFound('orderLine');
    const most = claimable(order.value, line.eye);
    if (form.packs > most) return invalid('packs', 'claimTooMany', { most });
    const claimId = newId();
    const { orderLineId, kind, packs, note } = form;
    await insertClaim(tx, { id: claimId, practiceId: caller.practiceId, orderLineId, kind, packs, note, openedAt: now, openedBy: caller.personId });
    return ok({ claimId });
  },
});

/** Boxes of an eye about which nothing was claimed yet. */
function claimable(order: Order, eye: Eye): number {
  const line = order.lines.find((l) => l.eye === eye);
  const claimed = order.claims.reduce((n, c) => (c.orderLineId === line?.id && c.step !== 'withdrawn' ? n + c.packs : n), 0);
  return (boxesOf(order, eye)?.ordered ?? 0) - claimed;
}

/** How far a claim is: the supplier was told, or what came of it. */
export const stepClaim = defineCommand({
  name: 'stepClaim',
  right: 'handOver',
  input: claimStepForm,
  about: (form) => ({ subjectKind: 'orderClaim', subjectId: form.claimId }),
  run: async ({ tx, caller, now, newId }, form): Promise<Result<null>> => {
    const claim = await findClaim(tx, caller.practiceId, form.claimId);
    if (!claim) return notFound('orderClaim');
    if (claim.ended) return ruleBroken('claimEnded');
    const done = await insertClaimStep(tx, { id: newId(), practiceId: caller.practiceId, ...form, at: now, by: caller.personId });
    return done ? ok(null) : err({ kind: 'conflict', what: 'orderClaim', differs: [] });
  },
});
