import 'server-only';
import type { Eye, LessonRow } from '../core';
import type { Db } from './client';

/** Lessons of a wearer, oldest first, with their sign-off. */
export function listLessons(sql: Db, practiceId: string, wearerId: string) {
  return sql<LessonRow[]>`
    select l.id, l.visit_id, l.wearer_id, l.eyes, l.on_at_start, l.single_use, l.only_topics, l.handler, l.started_at, b.display_name as started_by_name,
      s.id as sign_off_id, s.signed_at, p.display_name as signed_by_name, s.overnight, s.product_id, s.overridden, s.override_note
    from lesson l join person b on b.id = l.started_by
    left join lesson_sign_off s on s.lesson_id = l.id
    left join person p on p.id = s.signed_by
    where l.practice_id = ${practiceId} and l.wearer_id = ${wearerId} order by l.started_at`;
}

/** Lessons at once in one practice: more than a day of teaching has. */
const MOST_AT_ONCE = 24;

/** Lessons begun between two moments that nobody signed off, of visits that are open; in the order in which they began. */
export const listRunningLessons = (sql: Db, practiceId: string, of: { readonly from: string; readonly to: string }) =>
  sql<{ readonly id: string; readonly visitId: string; readonly wearerName: string; readonly birthDate: string }[]>`
    select l.id, l.visit_id, i.name as wearer_name, i.birth_date
    from lesson l join visit v on v.practice_id = l.practice_id and v.id = l.visit_id and v.closed_at is null
    join wearer_identity i on i.wearer_id = l.wearer_id
    where l.practice_id = ${practiceId} and l.started_at >= ${of.from} and l.started_at < ${of.to} and cardinality(l.eyes) > 0
      and not exists (select 1 from lesson_sign_off s where s.practice_id = l.practice_id and s.lesson_id = l.id)
      and not exists (select 1 from lesson n where n.practice_id = l.practice_id and n.wearer_id = l.wearer_id and n.started_at > l.started_at)
    order by l.started_at limit ${MOST_AT_ONCE}`;

export async function insertLesson(
  sql: Db,
  l: {
    id: string;
    practiceId: string;
    visitId: string;
    visitVersion: number;
    wearerId: string;
    eyes: readonly Eye[];
    onAtStart: readonly Eye[];
    singleUse: boolean;
    onlyTopics: readonly string[] | null;
    handler: string | null;
    startedAt: string;
    startedBy: string;
  },
): Promise<void> {
  await sql`insert into lesson ${sql({ ...l, eyes: [...l.eyes], onAtStart: [...l.onAtStart], onlyTopics: l.onlyTopics === null ? null : [...l.onlyTopics] })}`;
}

export async function insertSignOff(
  sql: Db,
  s: {
    id: string;
    practiceId: string;
    lessonId: string;
    wearerId: string;
    signedAt: string;
    signedBy: string;
    handler: string | null;
    counts: Readonly<Record<string, number>>;
    overnight: boolean;
    productId: string | null;
    overridden: readonly string[];
    overrideNote: string | null;
    appointmentId: string | null;
    unbookedReason: string | null;
  },
): Promise<void> {
  await sql`insert into lesson_sign_off ${sql({ ...s, overridden: [...s.overridden], counts: sql.json({ ...s.counts }) })}`;
}
