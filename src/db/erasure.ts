import 'server-only';
import type { IsoDate, IsoInstant } from '../core';
import type { Db } from './client';
import { listOwned } from './personRows';

export interface Erasure {
  readonly pseudonym: string;
  readonly erasedAt: IsoInstant;
  readonly keptUntil: IsoDate;
}

/** That a wearer's identity was erased; at most one row. */
export const erasureRow = (sql: Db, practiceId: string, wearerId: string) => sql<Erasure[]>`
  select pseudonym, erased_at, kept_until from wearer_erasure where practice_id = ${practiceId} and erased_wearer_id = ${wearerId}`;

/** What still stands in the way of erasing somebody: an open visit, lenses on their way, an absolute stop. */
export async function whatHoldsErasure(sql: Db, practiceId: string, wearerId: string): Promise<'visitOpen' | 'orderOnItsWay' | 'stopOpen' | null> {
  const [row] = await sql<{ visit: boolean; orders: boolean; stop: boolean }[]>`
    select
      exists (select 1 from visit where practice_id = ${practiceId} and wearer_id = ${wearerId} and closed_at is null) as visit,
      exists (select 1 from lens_order o where o.practice_id = ${practiceId} and o.wearer_id = ${wearerId}
        and not exists (select 1 from order_event e where e.practice_id = o.practice_id and e.order_id = o.id and e.state in ('refused', 'cancelled', 'received'))) as orders,
      exists (select 1 from safety_stop s join visit v on v.practice_id = s.practice_id and v.id = s.visit_id
        where s.practice_id = ${practiceId} and v.wearer_id = ${wearerId}
          and not exists (select 1 from safety_stop_end e where e.practice_id = s.practice_id and e.stop_id = s.id)) as stop`;
  return row?.visit ? 'visitOpen' : row?.orders ? 'orderOnItsWay' : row?.stop ? 'stopOpen' : null;
}

/** Words that stand for somebody, and what stands in their place. */
type Replaced = readonly (readonly [pattern: string, by: string])[];
const quoted = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/-]/g, '\\$&');

/** The patterns of a name, whole in any writing and each part as it is written, of the telephone, of the day of birth. */
export function patternsOf(
  who: { readonly name: string; readonly telephone: string | null; readonly guardian: string | null; readonly birthDate: string },
  pseudonym: string,
): Replaced {
  const names = [who.name, who.guardian].flatMap((n) => (n ? [n] : []));
  const parts = names.flatMap((n) => n.split(/[\s-]+/)).filter((part) => part.length > 2);
  return [
    ...names.map((n) => [`(?i)${quoted(n)}`, pseudonym] as const),
    ...[...new Set(parts)].map((part) => [`\\m${quoted(part)}\\M`, pseudonym] as const),
    ...(who.telephone ? [[quoted(who.telephone), ''] as const] : []),
    [who.birthDate, `${who.birthDate.slice(0, 4)}-01-01`],
  ];
}

const TEXTS = ['text', 'jsonb', 'text[]', 'character varying'];

/** Replaces words in whatever text the rows of a wearer hold. */
async function scrub(sql: Db, practiceId: string, wearerId: string, replaced: Replaced): Promise<void> {
  for (const { table, key, rows } of await listOwned(sql, practiceId, wearerId)) {
    const columns = await sql<{ name: string; type: string }[]>`
      select a.attname::text as name, format_type(a.atttypid, a.atttypmod) as type from pg_attribute a
      where a.attrelid = ${table}::regclass and a.attnum > 0 and not a.attisdropped and a.attgenerated = ''`;
    const keys = rows.map((row) => Object.fromEntries(key.map((k) => [k, row[k]])));
    const same = key.map((k, i) => sql`${i === 0 ? sql`` : sql` and `}t.${sql(k)} = k.${sql(k)}`);
    for (const { name, type } of columns.filter((c) => TEXTS.includes(c.type) && !key.includes(c.name))) {
      for (const [pattern, by] of replaced) {
        await sql`
          update ${sql(table)} t set ${sql(name)} = regexp_replace(t.${sql(name)}::text collate "C", ${pattern}, ${by}, 'g')::${sql.unsafe(type)}
          from jsonb_populate_recordset(null::${sql(table)}, ${sql.json(keys as never)}) k
          where ${same} and t.${sql(name)}::text collate "C" ~ ${pattern}`;
      }
    }
  }
}

/** Erases who a wearer is: name, day and month of birth, telephone, work, guardian, pictures, letters and links; facts stay as they are. */
export async function eraseIdentity(
  sql: Db,
  practiceId: string,
  wearer: { readonly id: string; readonly name: string; readonly telephone: string | null; readonly guardian: string | null; readonly birthDate: string },
  erasure: Erasure & { readonly id: string; readonly reason: string; readonly erasedBy: string },
): Promise<void> {
  const { id } = wearer;
  const { pseudonym } = erasure;
  const born = `${wearer.birthDate.slice(0, 4)}-01-01`;
  const earlier = await sql<{ was: { name: string | null; telephone: string | null; guardian: string | null; birthDate: string | null } }[]>`
    select was from wearer_identity_change where practice_id = ${practiceId} and wearer_id = ${id}`;
  const all = [wearer, ...earlier.map((e) => ({ ...wearer, ...e.was, name: e.was.name ?? wearer.name, birthDate: e.was.birthDate ?? wearer.birthDate }))];
  await sql`delete from picture where practice_id = ${practiceId} and visit_id in (select v.id from visit v where v.practice_id = ${practiceId} and v.wearer_id = ${id})`;
  await sql`delete from message where practice_id = ${practiceId} and wearer_id = ${id}`;
  await sql`delete from contact_choice where practice_id = ${practiceId} and wearer_id = ${id}`;
  await sql`
    update lens_order set delivery_address = 'erased' where practice_id = ${practiceId} and wearer_id = ${id} and delivery_address is not null`;
  await sql`delete from draft where practice_id = ${practiceId} and visit_id in (select v.id from visit v where v.practice_id = ${practiceId} and v.wearer_id = ${id})`;
  await sql`delete from wearer_link_end where link_id in (select l.id from wearer_link l where l.practice_id = ${practiceId} and l.wearer_id = ${id})`;
  await sql`delete from wearer_link where practice_id = ${practiceId} and wearer_id = ${id}`;
  await sql`
    update request set wearer_name = ${pseudonym}, wearer_address = '' where practice_id = ${practiceId}
      and id in (select w.request_id from request_wearer w where w.practice_id = ${practiceId} and w.wearer_id = ${id})`;
  // Nobody has said whose these are: a name alone is enough here.
  for (const { name } of all)
    await sql`update request set wearer_name = ${pseudonym}, wearer_address = '' where practice_id = ${practiceId} and wearer_name ilike ${name}`;
  const nobody = { name: pseudonym, birthDate: born };
  await sql`
    update outside_prescription set file_name = 'erased', document = jsonb_set(document, '{person}', ${sql.json(nobody)}), left_aside = '[]'
    where practice_id = ${practiceId} and wearer_id = ${id}`;
  await sql`
    update wearer_identity_change set was = ${sql.json({ name: pseudonym, birthDate: born, telephone: null, occupation: null, guardian: null })}
    where practice_id = ${practiceId} and wearer_id = ${id}`;
  await sql`
    update wearer_identity set name = ${pseudonym}, birth_date = ${born}, telephone = null, occupation = null, guardian = null, handler = null
    where practice_id = ${practiceId} and wearer_id = ${id}`;
  for (const who of all) await scrub(sql, practiceId, id, patternsOf(who, pseudonym));
  for (const who of all) {
    const pattern = `(?i)${quoted(who.name)}`;
    await sql`
      update audit_log set detail = regexp_replace(detail::text, ${pattern}, ${pseudonym}, 'g')::jsonb where practice_id = ${practiceId} and detail::text ~ ${pattern}`;
    await sql`delete from request_done where practice_id = ${practiceId} and output::text ~ ${pattern}`;
  }
  await sql`
    insert into wearer_erasure (id, practice_id, erased_wearer_id, pseudonym, reason, erased_at, erased_by, kept_until)
    values (${erasure.id}, ${practiceId}, ${id}, ${pseudonym}, ${erasure.reason}, ${erasure.erasedAt}, ${erasure.erasedBy}, ${erasure.keptUntil})`;
}
