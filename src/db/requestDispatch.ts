import 'server-only';
import type { AnswerOutcome, RequestAnswer } from '../core';
import type { Db } from './client';

/** An answer on its way to the system that asked. */
export interface RequestDispatchRow {
  readonly answerId: string;
  readonly practiceId: string;
  /** How the seller's system names its request. */
  readonly outsideRef: string;
  readonly answer: RequestAnswer;
  readonly reason: string | null;
  readonly attempts: number;
}

/** Written with the answer, in its transaction: neither is there without the other. */
export async function insertRequestDispatch(sql: Db, d: { readonly answerId: string; readonly practiceId: string; readonly dueAt: string }): Promise<void> {
  await sql`insert into request_dispatch ${sql(d)}`;
}

/** Claims one answer that is due: its next try is set before anything is sent. */
export async function claimRequestDispatch(sql: Db, now: string, retryAt: (attempts: number) => string): Promise<RequestDispatchRow | null> {
  const [row] = await sql<RequestDispatchRow[]>`
    select d.answer_id, d.practice_id, d.attempts, r.outside_ref, a.answer, a.reason
    from request_dispatch d join request_answer a on a.practice_id = d.practice_id and a.id = d.answer_id
    join request r on r.practice_id = a.practice_id and r.id = a.request_id
    where d.done_at is null and d.due_at <= ${now} order by d.due_at limit 1 for update of d skip locked`;
  if (!row) return null;
  await sql`update request_dispatch set attempts = attempts + 1, due_at = ${retryAt(row.attempts)} where answer_id = ${row.answerId}`;
  return row;
}

/** Stores once what became of it, however often it is told. */
export async function recordRequestDispatchDone(
  sql: Db,
  done: { readonly answerId: string; readonly outcome: AnswerOutcome; readonly at: string },
): Promise<void> {
  await sql`
    update request_dispatch set done_at = ${done.at}, outcome = ${done.outcome}, last_problem = null where answer_id = ${done.answerId} and done_at is null`;
}
export async function noteRequestDispatchFailure(sql: Db, answerId: string, problem: string): Promise<void> {
  await sql`update request_dispatch set last_problem = ${problem} where answer_id = ${answerId} and done_at is null`;
}

/** The lenses that a corrected answer names, by eye. */
export interface CorrectedLens {
  readonly eye: 'right' | 'left';
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: string | null;
  readonly maker: string;
  readonly familyName: string;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
}
export const listCorrected = (sql: Db, practiceId: string, answerId: string) => sql<CorrectedLens[]>`
  select e.eye, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, f.maker, f.name as family_name, e.base_curve_ordered_mm as base_curve_mm, l.diameter_mm
  from request_answer a join prescription_eye e on e.practice_id = a.practice_id and e.prescription_id = a.prescription_id
  join lens l on l.practice_id = e.practice_id and l.id = e.lens_id join lens_family_version f on f.practice_id = l.practice_id and f.id = l.family_version_id
  where a.practice_id = ${practiceId} and a.id = ${answerId} and a.answer = 'corrected' order by e.eye desc`;
