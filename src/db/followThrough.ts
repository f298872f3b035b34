import 'server-only';
import type { FirstDay, NotSeenWindow } from '../core';
import type { Db } from './client';
import type { Written } from './outbox';

/** Sign-offs of handling, with lenses that went home. */
const signedOff = (sql: Db) => sql`
  from lesson_sign_off s
  join lesson l on l.practice_id = s.practice_id and l.id = s.lesson_id and cardinality(l.eyes) > 0
  join wearer_identity i on i.wearer_id = s.wearer_id`;
const wentHome = (sql: Db) => sql`
  exists (select 1 from hand_over h where h.practice_id = s.practice_id and h.wearer_id = s.wearer_id and h.recorded_at >= s.signed_at and not h.voided)`;

/**
 * Writes to everybody who was signed off between two moments, took lenses home, agreed, and is under no stop; each once for a day.
 * @returns how many
 */
export async function writeFirstDays(
  sql: Db,
  practiceId: string,
  of: Written & { readonly day: FirstDay; readonly from: string; readonly to: string },
): Promise<number> {
  const { count } = await sql`
    insert into message (id, practice_id, wearer_id, kind, data, language, way, recipient, written_at, written_by, due_at, about)
    select gen_random_uuid(), ${practiceId}, s.wearer_id, 'firstDays', jsonb_build_object('kind', 'firstDays', 'day', ${of.day}::int),
      i.language, c.way, c.recipient, ${of.at}, ${of.by}, ${of.dueAt}, s.id || ' day ' || ${of.day}::int
    ${signedOff(sql)}
    join lateral (select k.way, k.recipient from contact_choice k where k.practice_id = ${practiceId} and k.wearer_id = s.wearer_id
      order by k.sequence desc limit 1) c on c.way <> 'none'
    where s.practice_id = ${practiceId} and s.signed_at >= ${of.from} and s.signed_at < ${of.to} and ${wentHome(sql)}
      and not wearer_under_absolute_stop(${practiceId}, s.wearer_id)
    on conflict do nothing`;
  return count;
}

/**
 * Makes a task for everybody who took lenses home, was not seen since, and has no appointment to come: once for a sign-off.
 * @param of.dueOn the day on which somebody calls
 * @returns how many
 */
export async function makeNotSeenTasks(
  sql: Db,
  practiceId: string,
  of: { readonly window: NotSeenWindow; readonly timeZone: string; readonly at: string; readonly dueOn: string },
): Promise<number> {
  const { window } = of;
  const dayOf = sql`(s.signed_at at time zone ${of.timeZone})::date`;
  const [row] = await sql<{ made: number }[]>`
    with who as materialized (
      select distinct on (s.wearer_id) s.wearer_id
      ${signedOff(sql)}
      where s.practice_id = ${practiceId} and ${dayOf} >= ${window.from}
        and ${dayOf} <= case when l.single_use and not coalesce(s.overnight, false) then ${window.singleUse}::date else ${window.reusable}::date end
        and ${wentHome(sql)}
        and not exists (select 1 from visit v where v.practice_id = s.practice_id and v.wearer_id = s.wearer_id and v.id <> l.visit_id and v.opened_at > s.signed_at)
        and not exists (select 1 from appointment a where a.practice_id = s.practice_id and a.wearer_id = s.wearer_id and a.starts_at >= ${of.at} and a.state = 'booked')
        and not exists (select 1 from task t join task_event e on e.practice_id = t.practice_id and e.task_id = t.id and e.kind = 'made'
          where t.practice_id = s.practice_id and t.wearer_id = s.wearer_id and t.because = 'notSeenAgain' and e.at > s.signed_at)
      order by s.wearer_id),
    made as (
      insert into task (id, practice_id, kind, because, wearer_id, due_on)
      select gen_random_uuid(), ${practiceId}, 'recall', 'notSeenAgain', wearer_id, ${of.dueOn} from who returning id),
    told as (
      insert into task_event (practice_id, task_id, kind, due_on, at)
      select ${practiceId}, id, 'made', ${of.dueOn}, ${of.at} from made returning 1)
    select count(*)::int as made from told`;
  return row?.made ?? 0;
}
