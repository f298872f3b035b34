import 'server-only';
import type { CopyRequestEnd, RuleProfileId } from '../core';
import type { Db } from './client';

/** Somebody who acts for a wearer asks for a copy of the prescription. */
export interface CopyRequestRow {
  readonly id: string;
  readonly wearerId: string;
  readonly wearerName: string;
  readonly agentName: string;
  readonly agentContact: string;
  readonly receivedAt: string;
  readonly profile: RuleProfileId;
  /** By when it is due at the latest that anybody could count to the practice's loss; null where no hours count. */
  readonly dueAt: string | null;
  readonly recordedByName: string;
  readonly how: CopyRequestEnd | null;
  readonly reason: string | null;
  readonly prescriptionNumber: number | null;
  readonly endedAt: string | null;
  readonly endedByName: string | null;
  /** What can be sent: prescriptions that run, newest first. */
  readonly inForce: readonly { readonly id: string; readonly number: number; readonly purpose: string }[];
}

/** Those that wait, the one due first at the top, and those ended last. */
export const listCopyRequests = (sql: Db, practiceId: string, today: string, ended: number) => sql<CopyRequestRow[]>`
  select * from (
    select c.id, c.wearer_id, i.name as wearer_name, c.agent_name, c.agent_contact, c.received_at, c.profile, c.due_at, p.display_name as recorded_by_name,
      e.how, e.reason, s.number as prescription_number, e.ended_at, q.display_name as ended_by_name,
      coalesce((select jsonb_agg(jsonb_build_object('id', f.id, 'number', f.number, 'purpose', f.purpose) order by f.number desc) from prescription f
        where f.practice_id = c.practice_id and f.wearer_id = c.wearer_id and f.expires_on >= ${today}
          and not exists (select 1 from prescription n where n.practice_id = f.practice_id and n.supersedes_id = f.id)), '[]') as in_force,
      row_number() over (partition by e.ended_at is null order by e.ended_at desc) as place
    from copy_request c join wearer_identity i on i.wearer_id = c.wearer_id join person p on p.id = c.recorded_by
    left join copy_request_end e on e.practice_id = c.practice_id and e.copy_request_id = c.id
    left join prescription s on s.practice_id = e.practice_id and s.id = e.prescription_id left join person q on q.id = e.ended_by
    where c.practice_id = ${practiceId}) x
  where x.ended_at is null or x.place <= ${ended}
  order by x.ended_at desc nulls first, x.due_at nulls last, x.received_at`;

export interface NewCopyRequest {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly agentName: string;
  readonly agentContact: string;
  readonly receivedAt: string;
  readonly profile: RuleProfileId;
  readonly dueAt: string | null;
  readonly recordedAt: string;
  readonly recordedBy: string;
}
export async function insertCopyRequest(sql: Db, row: NewCopyRequest): Promise<void> {
  await sql`insert into copy_request ${sql(row)}`;
}
export async function findCopyRequest(sql: Db, practiceId: string, id: string): Promise<{ readonly wearerId: string } | null> {
  const [row] = await sql<{ wearerId: string }[]>`select wearer_id from copy_request where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}
/** @returns false where somebody ended it before */
export async function insertCopyRequestEnd(
  sql: Db,
  end: {
    readonly copyRequestId: string;
    readonly practiceId: string;
    readonly how: CopyRequestEnd;
    readonly prescriptionId: string | null;
    readonly reason: string | null;
    readonly endedAt: string;
    readonly endedBy: string;
  },
): Promise<boolean> {
  const made = await sql`insert into copy_request_end ${sql(end)} on conflict (copy_request_id) do nothing returning copy_request_id`;
  return made.length === 1;
}
