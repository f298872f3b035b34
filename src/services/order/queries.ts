import 'server-only';
import { countOrderEvents } from '../../db/order';
import { listAwaitedOrders, type AwaitedOrder } from '../../db/orderDesk';
import { notFound, ok, type Result } from '../../lib/outcome';
import { orderEventsForm } from '../../schema/order';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
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
  run: async (context): Promise<Result<{ readonly session: SessionContext; readonly orders: readonly AwaitedOrder[] }>> =>
    ok({ session: sessionContextOf(context), orders: await listAwaitedOrders(context.tx, context.caller.practiceId) }),
});
