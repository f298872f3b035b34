import 'server-only';
import type { VisitDecision, VisitKind } from '../core';
import type { Db } from './client';

export interface NewVisitDecision {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly kind: VisitKind;
  readonly fee: number;
  readonly proposedKind: VisitKind;
  readonly proposedFee: number;
  readonly because: string;
  readonly decidedAt: string;
  readonly decidedBy: string;
}

/** What somebody decided a visit is, and costs. */
export async function insertVisitDecision(sql: Db, decision: NewVisitDecision): Promise<void> {
  await sql`insert into visit_decision ${sql({ ...decision })}`;
}

/** The decision that holds of a visit; none of one that was opened before they were kept. */
export const newestVisitDecision = (sql: Db, practiceId: string, visitId: string) => sql<VisitDecision[]>`
  select d.fee::float8 as fee, d.proposed_kind, d.proposed_fee::float8 as proposed_fee, d.because, p.display_name as decided_by_name
  from visit_decision d join person p on p.id = d.decided_by
  where d.practice_id = ${practiceId} and d.visit_id = ${visitId} order by d.sequence desc limit 1`;

/** Changes what a visit is. */
export async function setVisitKind(sql: Db, practiceId: string, visitId: string, kind: VisitKind): Promise<void> {
  await sql`update visit set kind = ${kind} where practice_id = ${practiceId} and id = ${visitId}`;
}
