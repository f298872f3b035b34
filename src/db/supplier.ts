import 'server-only';
import type { Supplier } from '../core';
import type { Db } from './client';

const columns = (sql: Db) => sql`
  s.id, s.version, s.name, s.makers, s.endpoint, s.telephone, s.cut_off_minute, s.minimum_minor, s.to_wearers, s.learned_lead_days, s.ended`;

/** A practice's suppliers, in the order in which it prefers them; ended ones last. */
export const listSuppliers = (sql: Db, practiceId: string) => sql<Supplier[]>`
  select ${columns(sql)} from supplier s where s.practice_id = ${practiceId} order by s.ended, s.sort_order, s.name`;

export async function findSupplier(sql: Db, practiceId: string, id: string): Promise<Supplier | null> {
  const [row] = await sql<Supplier[]>`select ${columns(sql)} from supplier s where s.practice_id = ${practiceId} and s.id = ${id}`;
  return row ?? null;
}

export type SupplierDetails = Omit<Supplier, 'id' | 'version' | 'learnedLeadDays'>;

/** A new supplier, the last in the practice's order; false where another has its name. */
export async function insertSupplier(sql: Db, practiceId: string, id: string, details: SupplierDetails): Promise<boolean> {
  const { count } = await sql`
    insert into supplier (id, practice_id, name, makers, endpoint, telephone, cut_off_minute, minimum_minor, to_wearers, ended, sort_order)
    select ${id}, ${practiceId}, ${details.name}, ${[...details.makers]}::text[], ${details.endpoint}, ${details.telephone}, ${details.cutOffMinute}::int,
      ${details.minimumMinor}::int, ${details.toWearers}::boolean, ${details.ended}::boolean,
      coalesce((select max(sort_order) from supplier where practice_id = ${practiceId}), 0) + 1
    on conflict (practice_id, lower(name)) do nothing`;
  return count === 1;
}

/** Is another supplier called so already? */
export async function isNameTaken(sql: Db, practiceId: string, id: string, name: string): Promise<boolean> {
  const [row] = await sql`select 1 from supplier where practice_id = ${practiceId} and lower(name) = lower(${name}) and id <> ${id}`;
  return row !== undefined;
}

/** Changes a supplier that is still as it was read; keeps what it was. False where somebody was quicker. */
export async function changeSupplier(
  sql: Db,
  practiceId: string,
  of: { readonly id: string; readonly version: number; readonly changeId: string; readonly at: string; readonly by: string },
  d: SupplierDetails,
): Promise<boolean> {
  const { count } = await sql`
    with was as (select * from supplier where practice_id = ${practiceId} and id = ${of.id} and version = ${of.version} for update),
    kept as (insert into supplier_change (id, practice_id, supplier_id, was, changed_at, changed_by)
      select ${of.changeId}::uuid, practice_id, id, to_jsonb(was), ${of.at}::timestamptz, ${of.by}::uuid from was)
    update supplier s set version = s.version + 1, name = ${d.name}, makers = ${[...d.makers]}, endpoint = ${d.endpoint}, telephone = ${d.telephone},
      cut_off_minute = ${d.cutOffMinute}, minimum_minor = ${d.minimumMinor}, to_wearers = ${d.toWearers}, ended = ${d.ended}
    from was where s.id = was.id`;
  return count === 1;
}

/** A new secret in the place of the one before. */
export async function setSupplierSecret(sql: Db, practiceId: string, supplierId: string, secret: string, at: string): Promise<void> {
  await sql`
    insert into supplier_secret (supplier_id, practice_id, secret, made_at) values (${supplierId}, ${practiceId}, ${secret}, ${at})
    on conflict (supplier_id) do update set secret = excluded.secret, made_at = excluded.made_at`;
}

/** What signs a supplier's messages, and whose supplier it is; null for none such. */
export async function findSupplierSecret(sql: Db, supplierId: string): Promise<{ readonly practiceId: string; readonly secret: string } | null> {
  const [row] = await sql<{ practiceId: string; secret: string }[]>`select practice_id, secret from supplier_secret where supplier_id = ${supplierId}`;
  return row ?? null;
}

/** Suppliers of every practice that are asked for messages, and how far each was. */
export const listPolled = (sql: Db) => sql<{ readonly id: string; readonly practiceId: string; readonly endpoint: string; readonly cursor: string | null }[]>`
  select s.id, s.practice_id, s.endpoint, c.cursor from supplier s left join supplier_cursor c on c.supplier_id = s.id
  where not s.ended and s.endpoint is not null order by s.id`;

export async function setSupplierCursor(sql: Db, practiceId: string, supplierId: string, cursor: string): Promise<void> {
  await sql`
    insert into supplier_cursor (supplier_id, practice_id, cursor) values (${supplierId}, ${practiceId}, ${cursor})
    on conflict (supplier_id) do update set cursor = excluded.cursor`;
}

/** Days from placed to the first box of a supplier's last orders. */
export const listLeads = (sql: Db, practiceId: string, supplierId: string, timeZone: string, most: number) => sql<{ readonly days: number }[]>`
  select (min(r.received_at) at time zone ${timeZone})::date - (o.placed_at at time zone ${timeZone})::date as days
  from lens_order o join order_line l on l.practice_id = o.practice_id and l.order_id = o.id
  join order_receipt r on r.practice_id = l.practice_id and r.order_line_id = l.id
  where o.practice_id = ${practiceId} and o.supplier_id = ${supplierId}
  group by o.id order by o.placed_at desc limit ${most}`;

export async function setLearnedLead(sql: Db, practiceId: string, supplierId: string, days: number | null): Promise<void> {
  await sql`
    update supplier set learned_lead_days = ${days} where practice_id = ${practiceId} and id = ${supplierId} and learned_lead_days is distinct from ${days}`;
}
