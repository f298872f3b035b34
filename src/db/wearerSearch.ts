import 'server-only';
import type { WearerRow } from '../core';
import type { Db } from './client';
import { wearerColumns } from './wearer';

export interface WearerListRow extends WearerRow {
  readonly openVisitId: string | null;
  readonly lastVisitAt: string | null;
}

/** The last wearer of a page of the list. */
export interface WearerKey {
  readonly name: string;
  readonly id: string;
}

/** Of names that are like a search this much counts. Tried on 100,000 names: a letter wrong, missing or too many is found. */
const LIKE_ENOUGH = 0.4;

const listed = (sql: Db) => sql`
  select ${wearerColumns(sql)},
    (select v.id from visit v where v.practice_id = w.practice_id and v.wearer_id = w.id and v.closed_at is null
      order by v.opened_at desc limit 1) as open_visit_id,
    (select max(v.opened_at) from visit v where v.practice_id = w.practice_id and v.wearer_id = w.id) as last_visit_at`;

/** The records of what was found, `h`: of one that was merged, the record that it is part of now. */
const hitRecords = (sql: Db) => sql`
  from hits h join wearer d on d.id = h.id join wearer w on w.id = coalesce(d.merged_into, d.id) and w.merged_into is null
  join wearer_identity i on i.wearer_id = w.id`;

/** All wearers by name, a page at a time. @param after the last one of the page before; null for the first page */
export async function listWearers(sql: Db, practiceId: string, after: WearerKey | null, most: number): Promise<WearerListRow[]> {
  return sql<WearerListRow[]>`
    ${listed(sql)} from wearer_identity i join wearer w on w.practice_id = i.practice_id and w.id = i.wearer_id
    where i.practice_id = ${practiceId} and w.merged_into is null ${after ? sql`and (i.name, i.wearer_id) > (${after.name} collate names, ${after.id}::uuid)` : sql``}
    order by i.name, i.wearer_id limit ${most}`;
}

/** A search as names are looked for: its words without accents, case and punctuation. */
export async function wordsOf(sql: Db, search: string): Promise<readonly string[]> {
  const [row] = await sql<{ plain: string }[]>`select plain_name(${search}) as plain`;
  return (row?.plain ?? '').split(' ').filter((word) => word !== '');
}

/** The wearer of a record number. */
export async function findByNumber(sql: Db, practiceId: string, number: number): Promise<WearerListRow[]> {
  return sql<WearerListRow[]>`
    with hits as (select id from wearer where practice_id = ${practiceId} and record_number = ${number})
    ${listed(sql)} ${hitRecords(sql)}`;
}

/** Wearers whose name begins so, in order. @param words of the search, at least one */
export async function findByBeginning(sql: Db, practiceId: string, words: readonly string[], most: number): Promise<WearerListRow[]> {
  const from = ` ${words.join(' ')}`;
  return sql<WearerListRow[]>`
    with hits as (
      select i.wearer_id as id from wearer_identity i
      where i.practice_id = ${practiceId} and i.plain >= ${from} and i.plain < ${from} || chr(1114109)
      order by i.plain limit ${most})
    ${listed(sql)} ${hitRecords(sql)}
    order by i.plain, i.birth_date, w.id`;
}

/** Wearers of whom every word begins a part of the name. @param words of the search, at least one */
export async function findByParts(sql: Db, practiceId: string, words: readonly string[], most: number): Promise<WearerListRow[]> {
  const each = words.map((word) => sql` and i.plain like ${`% ${word}%`}`);
  return sql<WearerListRow[]>`
    with hits as (
      select i.wearer_id as id from wearer_identity i where i.practice_id = ${practiceId}${each}
      order by i.plain, i.wearer_id limit ${most})
    ${listed(sql)} ${hitRecords(sql)}
    order by i.plain, i.birth_date, w.id`;
}

/** Wearers whose name is like what is searched for: a slip of the hand still finds them. Most alike first. @param words of the search, at least one */
export async function findAlike(sql: Db, practiceId: string, words: readonly string[], most: number): Promise<WearerListRow[]> {
  const text = words.join(' ');
  await sql`select set_config('pg_trgm.word_similarity_threshold', ${String(LIKE_ENOUGH)}, true)`;
  return sql<WearerListRow[]>`
    with hits as (
      select i.wearer_id as id, word_similarity(${text}, i.plain) as alike from wearer_identity i
      where i.practice_id = ${practiceId} and ${text} <% i.plain
      order by alike desc, i.plain limit ${most})
    ${listed(sql)} ${hitRecords(sql)}
    order by h.alike desc, i.plain, w.id`;
}
