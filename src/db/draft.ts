import 'server-only';
import type { DraftRow } from '../core';
import type { Db } from './client';

export function listDrafts(sql: Db, practiceId: string, visitId: string) {
  return sql<DraftRow[]>`
    select d.step, d.author_id, p.display_name as author, d.body, d.sequence, d.saved_at
    from draft d join person p on p.id = d.author_id
    where d.practice_id = ${practiceId} and d.visit_id = ${visitId}`;
}

/** Keeps a draft unless a later one of the same author is kept already. */
export async function putDraft(
  sql: Db,
  d: { practiceId: string; visitId: string; step: string; authorId: string; body: Readonly<Record<string, string>>; sequence: number; at: string },
): Promise<boolean> {
  const rows = await sql`
    insert into draft (practice_id, visit_id, step, author_id, body, sequence, saved_at)
    values (${d.practiceId}, ${d.visitId}, ${d.step}, ${d.authorId}, ${sql.json({ ...d.body })}, ${d.sequence}, ${d.at})
    on conflict (visit_id, step, author_id) do update
    set body = excluded.body, sequence = excluded.sequence, saved_at = excluded.saved_at
    where draft.sequence <= excluded.sequence and draft.practice_id = excluded.practice_id
    returning visit_id`;
  return rows.length === 1;
}

export async function deleteDraft(sql: Db, practiceId: string, visitId: string, step: string, authorId: string): Promise<void> {
  await sql`
    delete from draft where practice_id = ${practiceId} and visit_id = ${visitId} and step = ${step} and author_id = ${authorId}`;
}
