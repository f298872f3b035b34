import 'server-only';
import type { Db, Tx } from './client';

export interface RequestDone {
  readonly personId: string | null;
  readonly linkId: string | null;
  readonly action: string;
  readonly output: unknown;
}

/**
 * What a press came to before; null the first time. Its key is held by `findPractice` to the end of the transaction, so that
 * the same press sent twice is done one after the other.
 */
export async function findRequestDone(tx: Tx, practiceId: string, requestKey: string): Promise<RequestDone | null> {
  const [row] = await tx<RequestDone[]>`
    select person_id, link_id, action, output from request_done where practice_id = ${practiceId} and request_key = ${requestKey}`;
  return row ?? null;
}

/** A press that was done, to be answered again when it is sent again; an answer of nothing is JSON's null, not a missing one. */
export const requestDoneInsert = (
  sql: Db,
  r: { practiceId: string; requestKey: string; personId: string | null; linkId: string | null; action: string; output: unknown; at: string },
) => sql`
  insert into request_done (practice_id, request_key, person_id, link_id, action, output, done_at)
  values (${r.practiceId}, ${r.requestKey}, ${r.personId}, ${r.linkId}, ${r.action}, ${JSON.stringify(r.output ?? null)}::text::jsonb, ${r.at})`;

/** Presses done before `before` are forgotten: nobody sends them again. */
export async function deleteOldRequests(sql: Db, before: string): Promise<void> {
  await sql`delete from request_done where done_at < ${before}`;
}
