import 'server-only';
import type { AppointmentState, EyeRunway, ReorderOutcome, VisitKind } from '../core';
import type { Db } from './client';

/** Holds the runways of some wearers to the end of the transaction: two who reckon one anew do so one after the other. */
export async function lockRunways(sql: Db, practiceId: string, wearerIds: readonly string[]): Promise<void> {
  await sql`
    select pg_advisory_xact_lock(hashtextextended(${`runway|${practiceId}|`} || w, 0))
    from (select x::text as w from unnest(${[...wearerIds]}::uuid[]) x order by 1) ordered`;
}

/** Marks of what was recorded of some wearers until now. Asked before the facts are read: what is marked later stays. */
export async function staleMarks(sql: Db, practiceId: string, wearerIds: readonly string[]): Promise<readonly number[]> {
  const rows = await sql<{ id: number }[]>`
    select id from runway_stale where practice_id = ${practiceId} and of_wearer_id = any (${[...wearerIds]}::uuid[])`;
  return rows.map((r) => r.id);
}

/** Puts the runways of some wearers in the place of those that there were, and takes the marks away. */
export async function storeRunways(
  sql: Db,
  practiceId: string,
  of: {
    readonly wearerIds: readonly string[];
    readonly rows: readonly (EyeRunway & { readonly wearerId: string })[];
    readonly marks: readonly number[];
    readonly today: string;
  },
): Promise<void> {
  await sql`
    with gone as (delete from runway_stale where id = any (${[...of.marks]}::bigint[]) returning 1)
    delete from eye_runway where practice_id = ${practiceId} and of_wearer_id = any (${[...of.wearerIds]}::uuid[])`;
  if (of.rows.length === 0) return;
  await sql`insert into eye_runway ${sql(of.rows.map(({ wearerId, ...row }) => ({ practiceId, ofWearerId: wearerId, ...row, reckonedOn: of.today })))}`;
}

/** Wearers of a practice whose runways wait to be reckoned again. */
export const listStale = (sql: Db, most: number) => sql<{ readonly practiceId: string; readonly wearerId: string }[]>`
  select practice_id, of_wearer_id as wearer_id from (select practice_id, of_wearer_id, min(id) as first from runway_stale group by 1, 2) s
  order by first limit ${most}`;

/** Days beyond today whose runways are reckoned each night: those that are shown as due. */
export const NIGHTLY_DAYS = 21;

/** Marks what the passing of a day changes: what is on its way, and what is due or soon will be. @returns how many wearers */
export async function markNight(sql: Db, practiceId: string, today: string): Promise<number> {
  const { count } = await sql`
    insert into runway_stale (practice_id, of_wearer_id)
    select distinct r.practice_id, r.of_wearer_id from eye_runway r
    where r.practice_id = ${practiceId} and r.reckoned_on < ${today} and (r.on_the_way > 0 or r.due_on <= ${today}::date + ${NIGHTLY_DAYS}::int)`;
  return count;
}

/** Marks every wearer of a practice: what all runways rest on has changed. */
export async function markAll(sql: Db, practiceId: string): Promise<void> {
  await sql`insert into runway_stale (practice_id, of_wearer_id) select distinct practice_id, of_wearer_id from eye_runway where practice_id = ${practiceId}`;
}

/** A wearer on the list of those due. */
export interface DueWearer {
  readonly wearerId: string;
  readonly recordNumber: number;
  readonly name: string;
  readonly telephone: string | null;
  readonly dueOn: string;
  readonly eyes: readonly EyeRunway[];
  readonly stopped: boolean;
  readonly alerted: boolean;
  /** Appointments from today on. */
  readonly appointments: readonly { readonly startsAt: string; readonly kind: VisitKind; readonly state: AppointmentState }[];
  readonly lastCall: { readonly outcome: ReorderOutcome; readonly at: string; readonly by: string } | null;
}
/** Where a page of the list ends. */
export interface DueKey {
  readonly dueOn: string;
  readonly wearerId: string;
}

/** Wearers due within some days, by index alone: the first due first, or the last; both eyes of a wearer are due on one day. @param of.now the first instant of today */
export const listDue = (
  sql: Db,
  practiceId: string,
  of: {
    readonly from: string;
    readonly until: string;
    readonly after: DueKey | null;
    readonly most: number;
    readonly now: string;
    readonly order?: 'first' | 'last';
  },
) => {
  const last = of.order === 'last';
  return sql<DueWearer[]>`
  with eyes as materialized (
    select r.* from eye_runway r
    where practice_id = ${practiceId} and due_on >= ${of.from} and due_on <= ${of.until}
      and ${of.after === null ? sql`true` : sql`(due_on, of_wearer_id) ${last ? sql`<` : sql`>`} (${of.after.dueOn}, ${of.after.wearerId})`}
    order by ${last ? sql`due_on desc, of_wearer_id desc` : sql`due_on, of_wearer_id`} limit ${of.most * 2}),
  page as materialized (
    select r.due_on, r.of_wearer_id,
      jsonb_agg(jsonb_build_object('eye', r.eye, 'prescriptionId', r.prescription_id, 'lensId', r.lens_id, 'familyName', r.family_name, 'modality', r.modality, 'pace', r.pace,
        'expiresOn', r.expires_on, 'inHandUntil', r.in_hand_until, 'runOut', r.run_out, 'paceRunOut', r.pace_run_out, 'reorderBy', r.reorder_by,
        'dueOn', r.due_on, 'laterOn', r.later_on, 'onTheWay', r.on_the_way, 'proposed', r.proposed, 'within', r.within) order by r.eye desc) as eyes
    from eyes r group by r.due_on, r.of_wearer_id
    order by ${last ? sql`r.due_on desc, r.of_wearer_id desc` : sql`r.due_on, r.of_wearer_id`} limit ${of.most})
  select p.of_wearer_id as wearer_id, w.record_number, i.name, i.telephone, p.due_on, p.eyes,
    exists (select 1 from safety_stop s where s.practice_id = ${practiceId} and s.wearer_id = p.of_wearer_id
      and not exists (select 1 from safety_stop_end e where e.stop_id = s.id)) as stopped,
    exists (select 1 from visit v join history_answer a on a.practice_id = v.practice_id and a.visit_id = v.id and a.question = 'danger'
      and jsonb_typeof(a.value) = 'array' and not a.value ? 'none'
      where v.practice_id = ${practiceId} and v.wearer_id = p.of_wearer_id
        and not exists (select 1 from alert_acknowledgement k where k.history_answer_id = a.id)) as alerted,
    (select coalesce(jsonb_agg(jsonb_build_object('startsAt', a.starts_at, 'kind', a.kind, 'state', a.state) order by a.starts_at), '[]')
      from appointment a where a.practice_id = ${practiceId} and a.wearer_id = p.of_wearer_id and a.starts_at >= ${of.now}) as appointments,
    (select jsonb_build_object('outcome', c.outcome, 'at', c.called_at, 'by', q.display_name) from reorder_call c join person q on q.id = c.called_by
      where c.practice_id = ${practiceId} and c.wearer_id = p.of_wearer_id order by c.called_at desc, c.id limit 1) as last_call
  from page p join wearer w on w.practice_id = ${practiceId} and w.id = p.of_wearer_id join wearer_identity i on i.wearer_id = w.id
  order by ${last ? sql`p.due_on desc, p.of_wearer_id desc` : sql`p.due_on, p.of_wearer_id`}`;
};

/** How many wait to be called: due by today, and within the days that the list looks ahead; counted no further than a most. */
export async function countDue(sql: Db, practiceId: string, of: { readonly from: string; readonly until: string; readonly most: number }): Promise<number> {
  const [row] = await sql<{ count: number }[]>`
    select count(*)::int as count from (
      select distinct due_on, of_wearer_id from eye_runway where practice_id = ${practiceId} and due_on >= ${of.from} and due_on <= ${of.until} limit ${of.most}) x`;
  return row?.count ?? 0;
}

/** How far the lenses of one wearer reach, as it is kept. */
export const listRunways = (sql: Db, practiceId: string, wearerId: string) => sql<Pick<EyeRunway, 'eye' | 'runOut'>[]>`
  select eye, run_out from eye_runway where practice_id = ${practiceId} and of_wearer_id = ${wearerId} order by eye desc`;
