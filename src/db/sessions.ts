import 'server-only';
import type { Role } from '../core';
import type { Db } from './client';

export interface SessionRow {
  readonly practiceId: string;
  readonly personId: string;
  readonly account: string;
  readonly displayName: string;
  readonly title: string;
  readonly roles: Role[];
  readonly createdAt: string;
  readonly seenAt: string;
  readonly endedAt: string | null;
  readonly membershipEndedAt: string | null;
}

export async function insertSession(sql: Db, s: { tokenHash: string; practiceId: string; personId: string; at: string }): Promise<void> {
  await sql`
    insert into session (token_hash, practice_id, person_id, created_at, seen_at)
    values (${s.tokenHash}, ${s.practiceId}, ${s.personId}, ${s.at}, ${s.at})`;
}

export async function findSession(sql: Db, tokenHash: string): Promise<SessionRow | null> {
  const [row] = await sql<SessionRow[]>`
    select s.practice_id, s.person_id, p.account, p.display_name, m.title, m.roles, s.created_at, s.seen_at, s.ended_at,
      m.ended_at as membership_ended_at
    from session s
    join person p on p.id = s.person_id
    join membership m on m.practice_id = s.practice_id and m.person_id = s.person_id
    where s.token_hash = ${tokenHash}`;
  return row ?? null;
}

export async function touchSession(sql: Db, tokenHash: string, at: string): Promise<void> {
  await sql`update session set seen_at = ${at} where token_hash = ${tokenHash} and ended_at is null`;
}

export async function endSession(sql: Db, tokenHash: string, at: string): Promise<void> {
  await sql`update session set ended_at = ${at} where token_hash = ${tokenHash} and ended_at is null`;
}

export async function endSessionsOf(sql: Db, practiceId: string, personId: string, at: string): Promise<void> {
  await sql`
    update session set ended_at = ${at}
    where practice_id = ${practiceId} and person_id = ${personId} and ended_at is null`;
}

export async function insertSignInAttempt(sql: Db, attempt: { id: string; account: string; address: string; at: string; succeeded: boolean }): Promise<void> {
  await sql`
    insert into sign_in_attempt (id, account, address, at, succeeded)
    values (${attempt.id}, ${attempt.account}, ${attempt.address}, ${attempt.at}, ${attempt.succeeded})`;
}

/** Failures since the last success of the account, and of the address, after `since`. */
export async function countFailures(sql: Db, account: string, address: string, since: string): Promise<{ byAccount: number; byAddress: number }> {
  const [row] = await sql<{ byAccount: number; byAddress: number }[]>`
    select
      count(*) filter (where account = ${account} and at > coalesce(
        (select max(at) from sign_in_attempt where account = ${account} and succeeded), '-infinity')) as by_account,
      count(*) filter (where address = ${address}) as by_address
    from sign_in_attempt
    where not succeeded and at > ${since} and (account = ${account} or address = ${address})`;
  return row ?? { byAccount: 0, byAddress: 0 };
}
