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
  readonly lockedAt: string | null;
  readonly membershipEndedAt: string | null;
  readonly registerNumber: string | null;
  /** What the practice has set; null: the default holds. */
  readonly idleMinutes: number | null;
}

export async function insertSession(sql: Db, s: { tokenHash: string; practiceId: string; personId: string; at: string }): Promise<void> {
  await sql`
    insert into session (token_hash, practice_id, person_id, created_at, seen_at)
    values (${s.tokenHash}, ${s.practiceId}, ${s.personId}, ${s.at}, ${s.at})`;
}

export async function findSession(sql: Db, tokenHash: string): Promise<SessionRow | null> {
  const [row] = await sql<SessionRow[]>`
    select s.practice_id, s.person_id, p.account, p.display_name, m.title, m.roles, s.created_at, s.seen_at, s.ended_at, s.locked_at,
      m.ended_at as membership_ended_at, m.register_number,
      (select value from practice_setting where practice_id = s.practice_id and key = 'idleMinutes' order by sequence desc limit 1) as idle_minutes
    from session s
    join person p on p.id = s.person_id
    join membership m on m.practice_id = s.practice_id and m.person_id = s.person_id
    where s.token_hash = ${tokenHash}`;
  return row ?? null;
}

export async function touchSession(sql: Db, tokenHash: string, at: string): Promise<void> {
  await sql`update session set seen_at = ${at} where token_hash = ${tokenHash} and ended_at is null`;
}

/** @returns whose it was; null when it had ended before */
export async function endSession(sql: Db, tokenHash: string, at: string): Promise<{ readonly practiceId: string; readonly personId: string } | null> {
  const [row] = await sql<{ practiceId: string; personId: string }[]>`
    update session set ended_at = ${at} where token_hash = ${tokenHash} and ended_at is null returning practice_id, person_id`;
  return row ?? null;
}

export async function endSessionsOf(sql: Db, practiceId: string, personId: string, at: string): Promise<void> {
  await sql`
    update session set ended_at = ${at}
    where practice_id = ${practiceId} and person_id = ${personId} and ended_at is null`;
}

/** Locks a session: until its person signs in again it stands for nobody. */
export async function lockSession(sql: Db, tokenHash: string, at: string): Promise<void> {
  await sql`update session set locked_at = ${at} where token_hash = ${tokenHash} and locked_at is null and ended_at is null`;
}

export async function isDeviceKnown(sql: Db, tokenHash: string, personId: string): Promise<boolean> {
  const rows = await sql`select 1 from known_device where token_hash = ${tokenHash} and person_id = ${personId}`;
  return rows.length > 0;
}

export async function insertKnownDevice(sql: Db, d: { tokenHash: string; personId: string; at: string }): Promise<void> {
  await sql`insert into known_device (token_hash, person_id, known_at) values (${d.tokenHash}, ${d.personId}, ${d.at}) on conflict do nothing`;
}
