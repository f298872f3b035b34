import 'server-only';
import type { Role } from '../core';
import type { Db } from './client';

export interface StaffRow {
  readonly personId: string;
  readonly practiceId: string;
  readonly account: string;
  readonly displayName: string;
  readonly title: string;
  readonly registerNumber: string | null;
  /** Where they are registered, if not at the practice. */
  readonly address: string | null;
  readonly roles: Role[];
  readonly endedAt: string | null;
  readonly version: number;
  readonly passwordHash: string;
}

const columns = (sql: Db) => sql`
  p.id as person_id, m.practice_id, p.account, p.display_name, m.title, m.register_number, m.address, m.roles, m.ended_at, m.version,
  p.password_hash`;

export async function findStaffByAccount(sql: Db, account: string): Promise<StaffRow | null> {
  const [row] = await sql<StaffRow[]>`
    select ${columns(sql)} from person p join membership m on m.person_id = p.id
    where p.account = ${account} and m.ended_at is null order by m.started_at limit 1`;
  return row ?? null;
}

export async function findStaff(sql: Db, practiceId: string, personId: string): Promise<StaffRow | null> {
  const [row] = await sql<StaffRow[]>`
    select ${columns(sql)} from person p join membership m on m.person_id = p.id
    where m.practice_id = ${practiceId} and p.id = ${personId}`;
  return row ?? null;
}

export async function listStaff(sql: Db, practiceId: string): Promise<StaffRow[]> {
  return sql<StaffRow[]>`
    select ${columns(sql)} from person p join membership m on m.person_id = p.id
    where m.practice_id = ${practiceId} order by m.ended_at is not null, m.started_at, p.display_name`;
}

export async function insertPerson(sql: Db, person: { id: string; account: string; displayName: string; passwordHash: string; at: string }): Promise<boolean> {
  const rows = await sql`
    insert into person (id, account, display_name, password_hash, password_set_at, created_at)
    values (${person.id}, ${person.account}, ${person.displayName}, ${person.passwordHash}, ${person.at}, ${person.at})
    on conflict (account) do nothing returning id`;
  return rows.length === 1;
}

export async function insertMembership(
  sql: Db,
  m: {
    id: string;
    practiceId: string;
    personId: string;
    title: string;
    registerNumber: string | null;
    address?: string | null;
    roles: readonly Role[];
    at: string;
  },
): Promise<void> {
  await sql`
    insert into membership (id, practice_id, person_id, title, register_number, address, roles, started_at)
    values (${m.id}, ${m.practiceId}, ${m.personId}, ${m.title}, ${m.registerNumber}, ${m.address ?? null}, ${[...m.roles]}, ${m.at})`;
}

/** @returns false when somebody else changed the membership first, or it has ended */
export async function updateMembership(
  sql: Db,
  practiceId: string,
  m: {
    readonly personId: string;
    readonly version: number;
    readonly title: string;
    readonly registerNumber: string | null;
    readonly address: string | null;
    readonly roles: readonly Role[];
  },
): Promise<boolean> {
  const rows = await sql`
    update membership set title = ${m.title}, register_number = ${m.registerNumber}, address = ${m.address}, roles = ${[...m.roles]}, version = version + 1
    where practice_id = ${practiceId} and person_id = ${m.personId} and version = ${m.version} and ended_at is null returning id`;
  return rows.length === 1;
}

/** @returns false when somebody else changed the membership first */
export async function endMembership(sql: Db, practiceId: string, personId: string, version: number, at: string): Promise<boolean> {
  const rows = await sql`
    update membership set ended_at = ${at}, version = version + 1
    where practice_id = ${practiceId} and person_id = ${personId} and version = ${version} and ended_at is null returning id`;
  return rows.length === 1;
}

export async function setPasswordHash(sql: Db, practiceId: string, personId: string, passwordHash: string, at: string): Promise<void> {
  await sql`
    update person set password_hash = ${passwordHash}, password_set_at = ${at}
    where id = ${personId} and exists (
      select from membership where practice_id = ${practiceId} and person_id = ${personId})`;
}

/** Everybody who is or was a prescriber here. */
export function listPrescriberIds(sql: Db, practiceId: string) {
  return sql<{ readonly personId: string }[]>`
    select person_id from membership where practice_id = ${practiceId} and 'prescriber' = any (roles)`;
}
