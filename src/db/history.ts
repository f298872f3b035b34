import 'server-only';
import type { AnswerValue, HistoryAnswerRow, VisitRow } from '../core';
import type { Db } from './client';
import { earlierVisits } from './visit';
import type { Meta } from './recordMeta';

/**
 * Answers that count in a visit, oldest first: its own, the newest of each question before it, and every danger sign before
 * it of which nobody took note.
 */
export function listHistory(sql: Db, visit: VisitRow) {
  const before = earlierVisits(sql, visit);
  return sql<HistoryAnswerRow[]>`
    select a.id, a.visit_id, a.question, a.value, a.note, a.read_back, a.recorded_at, p.display_name as recorded_by_name,
      k.acknowledged_at, q.display_name as acknowledged_by_name
    from history_answer a join person p on p.id = a.recorded_by
    left join alert_acknowledgement k on k.history_answer_id = a.id left join person q on q.id = k.acknowledged_by
    where a.practice_id = ${visit.practiceId} and a.id in (
      select o.id from history_answer o where o.practice_id = ${visit.practiceId} and o.visit_id = ${visit.id}
      union all (
        select distinct on (n.question) n.id from history_answer n
        where n.practice_id = ${visit.practiceId} and n.visit_id in (${before}) order by n.question, n.sequence desc)
      union all
      select d.id from history_answer d
      where d.practice_id = ${visit.practiceId} and d.visit_id in (${before}) and d.question = 'danger'
        and not exists (select 1 from alert_acknowledgement m where m.history_answer_id = d.id))
    order by a.sequence`;
}

/** Appends answers in the order given; null takes one back. */
export async function insertAnswers(
  sql: Db,
  m: Omit<Meta, 'id'>,
  answers: readonly {
    readonly id: string;
    readonly question: string;
    readonly value: AnswerValue | null;
    readonly note: string | null;
    readonly readBack?: boolean;
  }[],
): Promise<void> {
  await sql`
    insert into history_answer (id, practice_id, visit_id, visit_version, question, value, note, read_back, recorded_at, recorded_by)
    select (a.answer->>'id')::uuid, ${m.practiceId}, ${m.visitId}, ${m.visitVersion}, a.answer->>'question', a.answer->'value', a.answer->>'note', coalesce((a.answer->>'readBack')::boolean, false), ${m.at}, ${m.by}
    from jsonb_array_elements(${sql.json(answers.map((a) => ({ ...a, value: Array.isArray(a.value) ? [...(a.value as readonly string[])] : a.value })))})
      with ordinality as a (answer, place) order by a.place`;
}

/** Somebody took note of answers. */
export async function insertAcknowledgements(sql: Db, k: { answerIds: readonly string[]; practiceId: string; at: string; by: string }): Promise<void> {
  await sql`
    insert into alert_acknowledgement (history_answer_id, practice_id, acknowledged_at, acknowledged_by)
    select a, ${k.practiceId}, ${k.at}, ${k.by} from unnest(${[...k.answerIds]}::uuid[]) a on conflict do nothing`;
}
