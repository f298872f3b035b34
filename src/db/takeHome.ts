import 'server-only';
import type { TakeHomePage, TakeHomeWay } from '../core';
import type { Db } from './client';

/** A page as it was given. */
export interface SheetRow {
  readonly id: string;
  readonly visitId: string;
  readonly number: number;
  readonly language: string;
  readonly way: TakeHomeWay;
  readonly page: TakeHomePage;
  readonly givenAt: string;
  readonly givenByName: string;
}

const sheets = (sql: Db) => sql`
  select s.id, s.visit_id, s.number, s.language, s.way, s.page, s.given_at, p.display_name as given_by_name
  from take_home_sheet s join person p on p.id = s.given_by`;

/** Pages given at a visit, oldest first. */
export const listSheets = (sql: Db, practiceId: string, visitId: string) =>
  sql<SheetRow[]>`${sheets(sql)} where s.practice_id = ${practiceId} and s.visit_id = ${visitId} order by s.number`;

export async function findSheet(sql: Db, practiceId: string, id: string): Promise<SheetRow | null> {
  const [row] = await sql<SheetRow[]>`${sheets(sql)} where s.practice_id = ${practiceId} and s.id = ${id}`;
  return row ?? null;
}

/**
 * Appends a page under the wearer's next number.
 * @returns the number; the wearer's row is held, so that two at once get two
 */
export async function insertSheet(
  sql: Db,
  s: Omit<SheetRow, 'number' | 'givenByName'> & { readonly practiceId: string; readonly wearerId: string; readonly givenBy: string },
): Promise<number> {
  await sql`select id from wearer where practice_id = ${s.practiceId} and id = ${s.wearerId} for update`;
  const [row] = await sql<{ number: number }[]>`
    insert into take_home_sheet (id, practice_id, wearer_id, visit_id, number, language, way, page, given_at, given_by)
    select ${s.id}, ${s.practiceId}, ${s.wearerId}, ${s.visitId},
      coalesce((select max(number) from take_home_sheet where practice_id = ${s.practiceId} and wearer_id = ${s.wearerId}), 0) + 1,
      ${s.language}, ${s.way}, ${sql.json(s.page as never)}, ${s.givenAt}, ${s.givenBy}
    returning number`;
  return row?.number ?? 0;
}

/** That a speaker looked at the words of a language. */
export interface LanguageCheck {
  readonly language: string;
  /** Which words: they are no longer checked when they change. */
  readonly words: string;
  readonly speaker: string;
  readonly checkedOn: string;
  readonly recordedByName: string;
}

/** The newest check of each language. */
export const listLanguageChecks = (sql: Db, practiceId: string) =>
  sql<LanguageCheck[]>`
    select distinct on (c.language) c.language, c.words, c.speaker, c.checked_on, p.display_name as recorded_by_name
    from language_check c join person p on p.id = c.recorded_by
    where c.practice_id = ${practiceId} order by c.language, c.sequence desc`;

export async function insertLanguageCheck(
  sql: Db,
  c: Omit<LanguageCheck, 'recordedByName'> & { readonly id: string; readonly practiceId: string; readonly recordedAt: string; readonly recordedBy: string },
): Promise<void> {
  await sql`insert into language_check ${sql(c)}`;
}

/** Links of a visit's page that still open something. */
export interface OpenLink {
  readonly linkId: string;
  readonly openedAt: string;
  readonly expiresAt: string;
}
export const listOpenLinks = (sql: Db, practiceId: string, visitId: string, now: string) =>
  sql<OpenLink[]>`
    select l.id as link_id, l.opened_at, l.expires_at from wearer_link l
    where l.practice_id = ${practiceId} and l.purpose = 'takeHome' and l.subject_id = ${visitId} and l.expires_at > ${now}
      and not exists (select 1 from wearer_link_end e where e.practice_id = l.practice_id and e.link_id = l.id)
    order by l.opened_at`;
