import 'server-only';
import type { Compared, RequestAnswer, RuleProfileId, SellerRequest, SellerVerified } from '../core';
import type { Db } from './client';

/** A seller's request with what became of it. */
export interface RequestRow extends SellerRequest {
  readonly id: string;
  readonly arrived: 'typed' | 'sent';
  readonly receivedAt: string;
  readonly profile: RuleProfileId;
  /** The deadline as the rules read, and the earliest that a seller could count. */
  readonly usualAt: string | null;
  readonly earliestAt: string | null;
  readonly recordedByName: string | null;
  /** Whose it is, as somebody said last; null while nobody knows. */
  readonly wearerId: string | null;
  readonly knownAs: string | null;
  /** How often it was answered; the newest answer holds. */
  readonly answers: number;
  readonly answer: RequestAnswer | null;
  readonly reason: string | null;
  readonly answeredAt: string | null;
  readonly answeredByName: string | null;
}

const rows = (sql: Db) => sql`
  select r.id, r.arrived, r.seller_name, r.seller_contact, r.wearer_name, r.wearer_address, r.asked_on, r.received_at, r.asked as eyes, r.profile, r.usual_at,
    r.earliest_at, p.display_name as recorded_by_name, w.wearer_id, i.name as known_as, coalesce(a.place, 0) as answers, a.answer, a.reason, a.answered_at,
    q.display_name as answered_by_name
  from request r
  left join person p on p.id = r.recorded_by
  left join lateral (
    select m.wearer_id from request_wearer m where m.practice_id = r.practice_id and m.request_id = r.id order by m.sequence desc limit 1) w on true
  left join wearer_identity i on i.wearer_id = w.wearer_id
  left join lateral (
    select n.place, n.answer, n.reason, n.answered_at, n.answered_by from request_answer n
    where n.practice_id = r.practice_id and n.request_id = r.id order by n.place desc limit 1) a on true
  left join person q on q.id = a.answered_by`;

/** Requests that nobody has answered, the one due first at the top, and those answered last. */
export function listRequests(sql: Db, practiceId: string, answered: number) {
  return sql<RequestRow[]>`
    (${rows(sql)} where r.practice_id = ${practiceId} and a.place is null order by r.earliest_at nulls last, r.received_at limit 200)
    union all
    (${rows(sql)} where r.practice_id = ${practiceId} and a.place is not null order by a.answered_at desc limit ${answered})`;
}

/** One request, held to the end of the transaction: two people never give the same answer. */
export async function lockRequest(sql: Db, practiceId: string, id: string): Promise<RequestRow | null> {
  await sql`select pg_advisory_xact_lock(hashtextextended(${id}, 0))`;
  const [row] = await sql<RequestRow[]>`${rows(sql)} where r.practice_id = ${practiceId} and r.id = ${id}`;
  return row ?? null;
}

/** The lens of each eye that was last verified to a seller for a wearer, by an answer that still holds. */
export const listSellerVerified = (sql: Db, practiceId: string, wearerId: string) => sql<SellerVerified[]>`
  select distinct on (e.eye) e.eye, e.lens_id, a.answered_at as at
  from request_wearer w
  join request_answer a on a.practice_id = w.practice_id and a.request_id = w.request_id and a.answer in ('correct', 'corrected')
    and not exists (select 1 from request_answer n where n.practice_id = a.practice_id and n.request_id = a.request_id and n.place > a.place)
  join prescription_eye e on e.practice_id = a.practice_id and e.prescription_id = a.prescription_id and e.lens_id is not null
  where w.practice_id = ${practiceId} and w.wearer_id = ${wearerId}
    and not exists (select 1 from request_wearer m where m.practice_id = w.practice_id and m.request_id = w.request_id and m.sequence > w.sequence)
  order by e.eye, a.answered_at desc`;

export interface NewRequest extends SellerRequest {
  readonly id: string;
  readonly practiceId: string;
  readonly arrived: 'typed' | 'sent';
  readonly outsideRef: string | null;
  readonly receivedAt: string;
  readonly profile: RuleProfileId;
  readonly usualAt: string | null;
  readonly earliestAt: string | null;
  readonly recordedAt: string;
  readonly recordedBy: string | null;
}

/** @returns false where a seller's own system has sent this one before */
export async function insertRequest(sql: Db, { eyes, ...row }: NewRequest): Promise<boolean> {
  const made = await sql`
    insert into request ${sql({ ...row, asked: sql.json({ right: eyes.right && { ...eyes.right, power: { ...eyes.right.power } }, left: eyes.left && { ...eyes.left, power: { ...eyes.left.power } } }) })}
    on conflict (practice_id, outside_ref) where outside_ref is not null do nothing returning id`;
  return made.length === 1;
}

export interface By {
  readonly id: string;
  readonly practiceId: string;
  readonly at: string;
  readonly by: string;
}
export async function insertRequestWearer(sql: Db, requestId: string, wearerId: string, { id, practiceId, at, by }: By): Promise<void> {
  await sql`insert into request_wearer ${sql({ id, practiceId, requestId, wearerId, matchedAt: at, matchedBy: by })}`;
}

export async function insertRequestAnswer(
  sql: Db,
  a: { readonly requestId: string; readonly place: number; readonly answer: RequestAnswer; readonly compared: Compared; readonly reason: string | null },
  { id, practiceId, at, by }: By,
): Promise<void> {
  const { requestId, place, answer, compared, reason } = a;
  const differences = sql.json(compared.differences.map((d) => ({ ...d })));
  const prescriptionId = compared.prescription?.id ?? null;
  await sql`insert into request_answer ${sql({ id, practiceId, requestId, place, answer, proposed: compared.proposed, prescriptionId, differences, reason, answeredAt: at, answeredBy: by })}`;
}

/** How many requests wait. */
export async function countOpenRequests(sql: Db, practiceId: string): Promise<number> {
  const [row] = await sql<{ count: number }[]>`
    select count(*)::int as count from request r
    where r.practice_id = ${practiceId} and not exists (select 1 from request_answer a where a.practice_id = r.practice_id and a.request_id = r.id)`;
  return row?.count ?? 0;
}
