import 'server-only';
import type { Db, Sql } from './client';

/** Tries of one account from one place. */
export interface TryRow {
  readonly id: string;
  readonly account: string;
  /** An address, or the device, session or signature that has tries of its own. */
  readonly place: string;
  readonly at: string;
}

/**
 * Counts a try as failed before it is made, so that many at once count one by one; a success noted after it clears the count.
 * @returns the moment of the oldest failure that counts, when there are `most` already and this try must not be made; else null
 */
export async function reserveTry(sql: Sql, t: TryRow, most: number, since: string): Promise<string | null> {
  return sql.begin(async (tx): Promise<string | null> => {
    await tx`select pg_advisory_xact_lock(hashtextextended(${`${t.account}|${t.place}`}, 1))`;
    const failures = await tx<{ at: string }[]>`
      select at from sign_in_attempt where account = ${t.account} and address = ${t.place} and not succeeded and at > ${since}
        and at > coalesce((select max(at) from sign_in_attempt where account = ${t.account} and address = ${t.place} and succeeded), '-infinity')
      order by at desc limit ${most}`;
    if (failures.length >= most) return failures.at(-1)?.at ?? t.at;
    await insertTry(tx, t, false);
    return null;
  });
}

export const noteSuccess = (sql: Db, t: TryRow): Promise<void> => insertTry(sql, t, true);

async function insertTry(sql: Db, t: TryRow, succeeded: boolean): Promise<void> {
  await sql`
    insert into sign_in_attempt (id, account, address, at, succeeded) values (${t.id}, ${t.account}, ${t.place}, ${t.at}, ${succeeded})`;
}
