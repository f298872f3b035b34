import 'server-only';
import type { ClaimKind, ClaimStep } from '../core';
import type { Db } from './client';

export interface NewClaim {
  readonly id: string;
  readonly practiceId: string;
  readonly orderLineId: string;
  readonly kind: ClaimKind;
  readonly packs: number;
  readonly note: string | null;
  readonly openedAt: string;
  readonly openedBy: string;
}
export async function insertClaim(sql: Db, claim: NewClaim): Promise<void> {
  await sql`insert into order_claim ${sql({ ...claim })}`;
}

/** Of which order a claim is, and how far it is; null for none such. */
export async function findClaim(sql: Db, practiceId: string, id: string): Promise<{ readonly orderId: string; readonly ended: boolean } | null> {
  const [row] = await sql<{ orderId: string; ended: boolean }[]>`
    select l.order_id, exists (select 1 from order_claim_step s where s.practice_id = c.practice_id and s.claim_id = c.id and s.step <> 'told') as ended
    from order_claim c join order_line l on l.practice_id = c.practice_id and l.id = c.order_line_id
    where c.practice_id = ${practiceId} and c.id = ${id}`;
  return row ?? null;
}

/** A step of a claim; false where it was ended meanwhile. */
export async function insertClaimStep(
  sql: Db,
  s: {
    readonly id: string;
    readonly practiceId: string;
    readonly claimId: string;
    readonly step: ClaimStep;
    readonly note: string | null;
    readonly at: string;
    readonly by: string;
  },
): Promise<boolean> {
  const { count } = await sql`insert into order_claim_step ${sql({ ...s })} on conflict do nothing`;
  return count === 1;
}
