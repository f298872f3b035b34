import 'server-only';
import type { ExaminedElsewhere, VisitKind } from '../core';
import type { Db } from './client';

/** The newest full examination elsewhere that is known of. */
export const newestExaminedElsewhere = (sql: Db, practiceId: string, wearerId: string) => sql<ExaminedElsewhere[]>`
  select e.examined_on, e.by_whom, p.display_name as recorded_by_name from examined_elsewhere e join person p on p.id = e.recorded_by
  where e.practice_id = ${practiceId} and e.wearer_id = ${wearerId} order by e.sequence desc limit 1`;

export async function insertExaminedElsewhere(
  sql: Db,
  examined: {
    readonly id: string;
    readonly practiceId: string;
    readonly wearerId: string;
    readonly examinedOn: string;
    readonly byWhom: string;
    readonly recordedAt: string;
    readonly recordedBy: string;
  },
): Promise<void> {
  await sql`insert into examined_elsewhere ${sql({ ...examined })}`;
}

/** When a wearer's newest visit of each kind was opened. @param except a visit that is not counted; null for none */
export const newestVisitOf = (sql: Db, practiceId: string, wearerId: string, except: string | null) => sql<
  { readonly kind: VisitKind; readonly openedAt: string }[]
>`
  select kind, max(opened_at) as opened_at from visit
  where practice_id = ${practiceId} and wearer_id = ${wearerId} and id is distinct from ${except}::uuid group by kind`;
