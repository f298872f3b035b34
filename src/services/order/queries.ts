import 'server-only';
import { countOrderEvents, findOrder } from '../../db/order';
import { ageOn, type Eye, type LensRow, type Order, type Supplier, type WearerRow } from '../../core';
import { isHeld } from '../../db/dispatch';
import { listLenses } from '../../db/lens';
import { listAwaitedOrders, MOST_AWAITED, listOrdersAwaiting, type AwaitedOrder } from '../../db/orderDesk';
import { listPackageCodes } from '../../db/packageCode';
import { findSupplier } from '../../db/supplier';
import { wearerRow } from '../../db/wearer';
import { notFound, ok, type Result } from '../../lib/outcome';
import { boxForm, orderEventsForm } from '../../schema/order';
import { emptyForm } from '../../schema/fields';
import { orderPageForm } from '../../schema/supplier';
import { defineQuery } from '../define';
import { eyesOfLens } from './boxCodes';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** How much has happened to some orders: asked while a supplier's answer is awaited, it reads nothing of any record. */
export const readOrderEvents = defineQuery({
  name: 'readOrderEvents',
  right: 'clinicalRead',
  audited: false,
  input: orderEventsForm,
  about: () => null,
  run: async ({ tx, caller }, form): Promise<Result<{ readonly events: number }>> => {
    const counted = await countOrderEvents(tx, caller.practiceId, form.orderIds);
    return counted === null ? notFound('order') : ok({ events: counted });
  },
});

/** What is on its way to the practice: boxes, and trial lenses for the drawer. */
export const readOrders = defineQuery({
  name: 'readOrders',
  right: 'handOver',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<{ readonly session: SessionContext; readonly orders: readonly AwaitedOrder[]; readonly more: boolean }>> => {
    const orders = await listAwaitedOrders(context.tx, context.caller.practiceId);
    return ok({ session: sessionContextOf(context), orders: orders.slice(0, MOST_AWAITED), more: orders.length > MOST_AWAITED });
  },
});

/** One order with everything that became of it. */
export interface OrderPage {
  readonly session: SessionContext;
  readonly order: Order & { readonly wearerId: string };
  readonly wearer: WearerRow & { readonly age: number };
  readonly supplier: Supplier | null;
  readonly lenses: Readonly<Record<string, LensRow>>;
  /** Lens wear is stopped: nothing is sent meanwhile. */
  readonly held: boolean;
}

export const readOrder = defineQuery({
  name: 'readOrder',
  right: 'handOver',
  input: orderPageForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, { orderId }): Promise<Result<OrderPage>> => {
    const { tx, caller, today } = context;
    const order = await findOrder(tx, caller.practiceId, orderId);
    const [wearer] = order ? await wearerRow(tx, caller.practiceId, order.wearerId) : [];
    if (!order || !wearer) return notFound('order');
    const ids = [...order.lines, ...order.receipts].flatMap((l) => l.lensId ?? []);
    const lenses = ids.length > 0 ? await listLenses(tx, caller.practiceId, ids) : [];
    return ok({
      session: sessionContextOf(context),
      order,
      wearer: { ...wearer, age: ageOn(wearer.birthDate, today) },
      supplier: order.supplierId === null ? null : await findSupplier(tx, caller.practiceId, order.supplierId),
      lenses: Object.fromEntries(lenses.map((l) => [l.id, l])),
      held: await isHeld(tx, caller.practiceId, orderId),
    });
  },
});

/** What the code of a scanned box names, and whose line of an order that is. */
export interface BoxNamed {
  /** Null where the code was never met. */
  readonly lens: LensRow | null;
  readonly eyes: readonly Eye[];
  /** Other orders that wait for this lens: the box may be theirs. */
  readonly others: readonly { readonly number: number; readonly wearerName: string }[];
}

export const readBox = defineQuery({
  name: 'readBox',
  right: 'handOver',
  audited: false,
  input: boxForm,
  about: () => null,
  run: async (context, form): Promise<Result<BoxNamed>> => {
    const { tx, caller } = context;
    const order = await findOrder(tx, caller.practiceId, form.orderId);
    if (!order) return notFound('order');
    const [known] = await listPackageCodes(tx, caller.practiceId, [form.gtin]);
    if (!known) return ok({ lens: null, eyes: [], others: [] });
    const { gtin: _gtin, ...lens } = known;
    const ordered = await listLenses(
      tx,
      caller.practiceId,
      order.lines.flatMap((l) => l.lensId ?? []),
    );
    const eyes = eyesOfLens(order, lens, Object.fromEntries(ordered.map((l) => [l.id, l])));
    const others = eyes.length > 0 ? [] : await listOrdersAwaiting(tx, caller.practiceId, lens);
    return ok({ lens, eyes, others });
  },
});
