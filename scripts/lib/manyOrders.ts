import { randomUUID } from 'node:crypto';
import type { Sql } from '../../src/db/client';
import { perform } from '../../src/services/perform';
import { SERVICES, type ServiceName } from '../../src/services';
import type { Deps } from '../../src/services/define';
import { toOrder } from '../../tests/support/toOrder';
import { prescriberOf } from './tenYears';

/** Orders of each wearer, of a line an eye. */
export const ORDERS_EACH = 6;

/** One wearer with an order that was received and handed over, made by the use cases: what the many are copied from. */
async function template(owner: Sql, appUrl: string, deps: Deps): Promise<string> {
  const [made] = await toOrder(owner, appUrl, 1);
  if (!made) throw new Error('nobody to copy');
  const caller = await prescriberOf(owner);
  const does = async (name: ServiceName, input: object): Promise<Record<string, string & number>> => {
    const done = await perform<never, Record<string, string & number>, never>(SERVICES[name] as never, deps, caller, input);
    if (!done.ok) throw new Error(`${name}: ${JSON.stringify(done.error)}`);
    return done.value;
  };
  const { visitId, prescriptionId } = made;
  const ordered = await does('placeOrder', { visitId, version: made.version, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 1 });
  const box = (lot: string) => ({ lot, expiresOn: '2029-01-31', packs: 1, codes: [] });
  await does('recordReceipt', { orderId: ordered.orderId, right: box('R1'), left: box('L1') });
  const receipts = await owner<{ id: string }[]>`
    select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${ordered.orderId ?? ''}`;
  const of = { orderId: ordered.orderId, visitId, version: ordered.version, receiptIds: receipts.map((r) => r.id) };
  await does('handOverBoxes', { ...of, identityAsked: true, experienceNote: 'for years' });
  return String(ordered.orderId);
}

/**
 * Gives every wearer from a record number on a prescription and some years of orders, all but the last handed over; the last is on
 * its way for one in twenty. Copied from one that the use cases made, without the triggers, which would keep a mark for each.
 */
export async function addOrders(owner: Sql, appUrl: string, deps: Deps, of: { readonly from: number; readonly today: string }): Promise<void> {
  const orderId = await template(owner, appUrl, deps);
  // One day in the past for each order of each wearer: half a year apart, spread over the days.
  const placed = `(date '${of.today}' - 180 * (${ORDERS_EACH} - k) - (w.record_number % 175)::int)`;
  const id = (what: string): string => `md5(w.id::text || k || '${what}')::uuid`;
  const overrides: readonly (readonly [table: string, where: string, each: boolean, change: string])[] = [
    ['visit', `t.id = (select visit_id from lens_order where id = '${orderId}')`, false, `'id', ${id('v')}, 'wearer_id', w.id, 'closed_at', t.opened_at`],
    [
      'prescription',
      `t.id = (select prescription_id from lens_order where id = '${orderId}')`,
      false,
      `'id', ${id('p')}, 'visit_id', ${id('v')}, 'wearer_id', w.id, 'signed_for', w.id, 'number', 1000000 + w.record_number,
       'issued_on', date '${of.today}' - 200, 'expires_on', date '${of.today}' + 165 - (w.record_number % 160)::int`,
    ],
    ['prescription_eye', `t.prescription_id = (select prescription_id from lens_order where id = '${orderId}')`, false, `'prescription_id', ${id('p')}`],
    [
      'lens_order',
      `t.id = '${orderId}'`,
      true,
      `'id', ${id('o')}, 'visit_id', ${id('v').replace('k ||', "'1' ||")}, 'prescription_id', ${id('p').replace('k ||', "'1' ||")}, 'wearer_id', w.id,
       'number', 1000000 + w.record_number * 10 + k, 'request_key', ${id('q')}, 'placed_at', ${placed}`,
    ],
    [
      'order_line',
      `t.order_id = '${orderId}'`,
      true,
      `'id', ${id("l' || t.eye || '")}, 'order_id', ${id('o')}, 'prescription_id', ${id('p').replace('k ||', "'1' ||")}`,
    ],
    ['order_event', `t.order_id = '${orderId}' and t.state = 'placed'`, true, `'id', ${id('e')}, 'order_id', ${id('o')}, 'at', ${placed}`],
    [
      'order_receipt',
      `t.order_line_id in (select id from order_line where order_id = '${orderId}')`,
      true,
      `'id', md5(w.id::text || k || 'r' || t.order_line_id)::uuid,
       'order_line_id', md5(w.id::text || k || 'l' || (select eye from order_line x where x.id = t.order_line_id))::uuid, 'received_at', ${placed} + 5`,
    ],
    [
      'hand_over',
      `t.order_line_id in (select id from order_line where order_id = '${orderId}')`,
      true,
      `'id', md5(w.id::text || k || 'h' || t.eye)::uuid, 'root_id', md5(w.id::text || k || 'h' || t.eye)::uuid, 'wearer_id', w.id,
       'visit_id', ${id('v').replace('k ||', "'1' ||")}, 'order_line_id', ${id("l' || t.eye || '")},
       'order_receipt_id', md5(w.id::text || k || 'r' || t.order_line_id)::uuid, 'handed_on', ${placed} + 6, 'recorded_at', ${placed} + 6, 'observed_at', ${placed} + 6`,
    ],
  ];
  await owner.unsafe(`set session_replication_role = replica`);
  try {
    for (const [table, where, each, change] of overrides) {
      const late = table === 'order_receipt' || table === 'hand_over' ? `and k < ${ORDERS_EACH}` : `and (k < ${ORDERS_EACH} or w.record_number % 20 = 0)`;
      const columns = await owner<{ name: string }[]>`
        select column_name as name from information_schema.columns where table_schema = 'public' and table_name = ${table} and is_identity = 'NO' and is_generated = 'NEVER' order by ordinal_position`;
      const list = columns.map((c) => `"${c.name}"`).join(', ');
      // The offset keeps each row from being made anew for every column of it.
      await owner.unsafe(`
        insert into ${table} (${list}) select ${columns.map((c) => `(made.r)."${c.name}"`).join(', ')} from (
          select jsonb_populate_record(null::${table}, to_jsonb(t) || jsonb_build_object(${change})) as r
          from wearer w cross join generate_series(1, ${each ? ORDERS_EACH : 1}) k cross join ${table} t
          where w.record_number >= ${of.from} and ${where} ${each ? late : ''} offset 0) made`);
    }
    await owner.unsafe(`
      insert into order_open (practice_id, order_id) select o.practice_id, o.id from lens_order o join wearer w on w.id = o.wearer_id
      where w.record_number >= ${of.from} and not exists (select 1 from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = o.id) on conflict do nothing`);
    await owner.unsafe(`
      insert into contact_choice (id, practice_id, wearer_id, way, recipient, chosen_at, recorded_by)
      select gen_random_uuid(), w.practice_id, w.id, 'text', '555 0100', now(), (select person_id from membership m where m.practice_id = w.practice_id limit 1)
      from wearer w where w.record_number >= ${of.from}`);
    await owner.unsafe(`insert into runway_stale (practice_id, of_wearer_id) select practice_id, id from wearer w where w.record_number >= ${of.from}`);
  } finally {
    await owner.unsafe(`set session_replication_role = origin`);
  }
  await owner.unsafe('analyze');
}
