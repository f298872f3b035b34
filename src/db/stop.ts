import 'server-only';
import type { Evidence, Eye, StopEnding, StopRow, OverrideRow, VisitRow } from '../core';
import type { Db } from './client';
import type { Meta } from './recordMeta';

/** Absolute stops of a wearer, oldest first, those ended too. */
export function listStops(sql: Db, practiceId: string, wearerId: string) {
  return sql<StopRow[]>`
    select s.id, s.visit_id, s.rule, s.eyes, s.evidence, s.opened_at, p.display_name as opened_by_name,
      e.ended_at, e.how as ended_how, q.display_name as ended_by_name, e.reason as ended_reason
    from safety_stop s join person p on p.id = s.opened_by
    left join safety_stop_end e on e.stop_id = s.id left join person q on q.id = e.ended_by
    where s.practice_id = ${practiceId} and s.wearer_id = ${wearerId} order by s.opened_at, s.visit_version, s.rule`;
}

export async function insertStop(
  sql: Db,
  m: Meta & { readonly wearerId: string },
  s: { readonly rule: string; readonly ruleVersion: number; readonly eyes: readonly Eye[]; readonly evidence: readonly Evidence[] },
): Promise<void> {
  await sql`
    insert into safety_stop (id, practice_id, wearer_id, visit_id, visit_version, rule, rule_version, eyes, evidence, opened_at, opened_by)
    values (${m.id}, ${m.practiceId}, ${m.wearerId}, ${m.visitId}, ${m.visitVersion}, ${s.rule}, ${s.ruleVersion}, ${[...s.eyes]},
      ${sql.json(s.evidence.map((e) => ({ ...e })))}, ${m.at}, ${m.by})`;
}

/** @returns false when it was ended before */
export async function insertStopEnd(
  sql: Db,
  e: { stopId: string; practiceId: string; visitId: string; how: StopEnding; reason: string; at: string; by: string },
): Promise<boolean> {
  const rows = await sql`
    insert into safety_stop_end (stop_id, practice_id, how, visit_id, reason, ended_at, ended_by)
    values (${e.stopId}, ${e.practiceId}, ${e.how}, ${e.visitId}, ${e.reason}, ${e.at}, ${e.by}) on conflict do nothing returning stop_id`;
  return rows.length === 1;
}

/** Holds everything about a wearer's lenses still until the transaction ends; `advanceVisit` holds it together with others. */
export async function holdWearerAlone(sql: Db, practiceId: string, wearerId: string): Promise<void> {
  await sql`select id from wearer where practice_id = ${practiceId} and id = ${wearerId} for update`;
}

/** Reasons given for stops of a wearer, oldest first: of each thing passed the newest, and all of one visit. */
export function listOverrides(sql: Db, visit: VisitRow) {
  return sql<OverrideRow[]>`
    select r.id, r.visit_id, r.rule, r.evidence_key, r.reason, r.overridden_at, p.display_name as overridden_by_name
    from stop_override r join person p on p.id = r.overridden_by
    where r.practice_id = ${visit.practiceId} and r.wearer_id = ${visit.wearerId} and (r.visit_id = ${visit.id} or not exists (
      select 1 from stop_override n where n.practice_id = r.practice_id and n.wearer_id = r.wearer_id
        and n.evidence_key = r.evidence_key and n.overridden_at > r.overridden_at))
    order by r.overridden_at`;
}

export async function insertOverride(
  sql: Db,
  m: Meta & { readonly wearerId: string },
  p: { readonly rule: string; readonly evidenceKey: string; readonly reason: string },
): Promise<void> {
  await sql`
    insert into stop_override (id, practice_id, wearer_id, visit_id, visit_version, rule, evidence_key, reason, overridden_at, overridden_by)
    values (${m.id}, ${m.practiceId}, ${m.wearerId}, ${m.visitId}, ${m.visitVersion}, ${p.rule}, ${p.evidenceKey}, ${p.reason}, ${m.at}, ${m.by})`;
}

/** Since when an absolute stop stands for a wearer. */
export const stoppedSince = (sql: Db, practiceId: string, wearerId: string) => sql<{ readonly sinceAt: string | null }[]>`
  select min(s.opened_at) as since_at from safety_stop s
  where s.practice_id = ${practiceId} and s.wearer_id = ${wearerId} and not exists (select 1 from safety_stop_end e where e.stop_id = s.id)`;

/** Since when a danger sign is reported that nobody has acknowledged. */
export const alertSince = (sql: Db, practiceId: string, wearerId: string) => sql<{ readonly sinceAt: string | null }[]>`
  select min(a.recorded_at) as since_at from history_answer a join visit v on v.practice_id = a.practice_id and v.id = a.visit_id
  where a.practice_id = ${practiceId} and v.wearer_id = ${wearerId} and a.question = 'danger' and jsonb_typeof(a.value) = 'array' and not a.value ? 'none'
    and not exists (select 1 from alert_acknowledgement k where k.history_answer_id = a.id)`;
