import 'server-only';
import type { LinkPurpose } from '../core';
import type { Db } from './client';

export interface WearerLinkRow {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly purpose: LinkPurpose;
  /** The lesson, or the visit of which the paper is. */
  readonly subjectId: string;
  readonly expiresAt: string;
  readonly endedAt: string | null;
}

export async function insertWearerLink(
  sql: Db,
  link: Omit<WearerLinkRow, 'endedAt'> & { readonly tokenHash: string; readonly openedAt: string; readonly openedBy: string },
): Promise<void> {
  await sql`insert into wearer_link ${sql(link)}`;
}

/** @returns false when there is no such link, or it was ended before */
export async function insertWearerLinkEnd(sql: Db, end: { practiceId: string; linkId: string; at: string; by: string }): Promise<boolean> {
  const rows = await sql`
    insert into wearer_link_end (link_id, practice_id, ended_at, ended_by)
    select id, practice_id, ${end.at}, ${end.by} from wearer_link where practice_id = ${end.practiceId} and id = ${end.linkId}
    on conflict do nothing returning link_id`;
  return rows.length === 1;
}

/** The link of a token, ended and run out ones included. */
export async function findWearerLink(sql: Db, tokenHash: string): Promise<WearerLinkRow | null> {
  const [row] = await sql<WearerLinkRow[]>`
    select l.id, l.practice_id, l.wearer_id, l.purpose, l.subject_id, l.expires_at, e.ended_at
    from wearer_link l left join wearer_link_end e on e.link_id = l.id where l.token_hash = ${tokenHash}`;
  return row ?? null;
}
