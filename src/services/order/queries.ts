import 'server-only';
import { countOrderEvents } from '../../db/order';
import { notFound, ok, type Result } from '../../lib/outcome';
import { orderEventsForm } from '../../schema/order';
import { defineQuery } from '../define';

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
