import 'server-only';
import type { AnswerValue, Evidence, Eye, Kind, PracticeSettings, RecordedAnswer, Recommendation, StopEnding } from '../core';
import type { Db } from './client';

/** What was asked, looked at, stopped, passed and decided. Everything here is appended. */

export interface HistoryAnswerRow extends RecordedAnswer {
  readonly recordedAt: string;
  readonly recordedByName: string;
  readonly acknowledgedByName: string | null;
}

/** Answers of some visits, oldest first: the last of a question in a visit holds. */
export async function listHistory(sql: Db, practiceId: string, visitIds: readonly string[]): Promise<HistoryAnswerRow[]> {
  return sql<HistoryAnswerRow[]>`
    select a.id, a.visit_id, a.question, a.value, a.note, a.recorded_at, p.display_name as recorded_by_name,
      k.acknowledged_at, q.display_name as acknowledged_by_name
    from history_answer a join person p on p.id = a.recorded_by
    left join alert_acknowledgement k on k.history_answer_id = a.id left join person q on q.id = k.acknowledged_by
    where a.practice_id = ${practiceId} and a.visit_id = any (${[...visitIds]}) order by a.sequence`;
}

interface Meta {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly at: string;
  readonly by: string;
}

export async function insertAnswer(
  sql: Db,
  m: Meta,
  a: { readonly question: string; readonly value: AnswerValue | null; readonly note: string | null },
): Promise<void> {
  await sql`
    insert into history_answer (id, practice_id, visit_id, visit_version, question, value, note, recorded_at, recorded_by)
    values (${m.id}, ${m.practiceId}, ${m.visitId}, ${m.visitVersion}, ${a.question}, ${a.value === null ? sql`'null'::jsonb` : sql.json(a.value)}, ${a.note}, ${m.at}, ${m.by})`;
}

export async function insertAcknowledgement(sql: Db, k: { answerId: string; practiceId: string; at: string; by: string }): Promise<void> {
  await sql`
    insert into alert_acknowledgement (history_answer_id, practice_id, acknowledged_at, acknowledged_by)
    values (${k.answerId}, ${k.practiceId}, ${k.at}, ${k.by}) on conflict do nothing`;
}

export interface StopRow {
  readonly id: string;
  readonly visitId: string;
  readonly rule: string;
  readonly eyes: readonly Eye[];
  readonly evidence: readonly Evidence[];
  readonly openedAt: string;
  readonly openedByName: string;
  readonly endedAt: string | null;
  readonly endedHow: StopEnding | null;
  readonly endedByName: string | null;
  readonly endedReason: string | null;
}

/** Absolute stops of a wearer, oldest first, those ended too. */
export async function listStops(sql: Db, practiceId: string, wearerId: string): Promise<StopRow[]> {
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

/**
 * Holds everything about a wearer's lenses still until the transaction ends, so that a stop and a new lens cannot
 * pass each other unseen. A stop asks alone, a lens together with others.
 */
export async function holdWearer(sql: Db, practiceId: string, wearerId: string, alone: boolean): Promise<void> {
  if (alone) await sql`select id from wearer where practice_id = ${practiceId} and id = ${wearerId} for update`;
  else await sql`select id from wearer where practice_id = ${practiceId} and id = ${wearerId} for share`;
}

export interface PassRow {
  readonly id: string;
  readonly visitId: string;
  readonly rule: string;
  readonly evidenceKey: string;
  readonly reason: string;
  readonly passedAt: string;
  readonly passedByName: string;
}

export async function listPasses(sql: Db, practiceId: string, wearerId: string): Promise<PassRow[]> {
  return sql<PassRow[]>`
    select r.id, r.visit_id, r.rule, r.evidence_key, r.reason, r.passed_at, p.display_name as passed_by_name
    from rule_pass r join person p on p.id = r.passed_by
    where r.practice_id = ${practiceId} and r.wearer_id = ${wearerId} order by r.passed_at`;
}

export async function insertPass(
  sql: Db,
  m: Meta & { readonly wearerId: string },
  p: { readonly rule: string; readonly evidenceKey: string; readonly reason: string },
): Promise<void> {
  await sql`
    insert into rule_pass (id, practice_id, wearer_id, visit_id, visit_version, rule, evidence_key, reason, passed_at, passed_by)
    values (${m.id}, ${m.practiceId}, ${m.wearerId}, ${m.visitId}, ${m.visitVersion}, ${p.rule}, ${p.evidenceKey}, ${p.reason}, ${m.at}, ${m.by})`;
}

export interface DecisionRow {
  readonly id: string;
  readonly visitId: string;
  readonly recommended: Kind | null;
  readonly chosen: Kind;
  readonly asRecommended: boolean;
  readonly reason: string | null;
  readonly ruleVersion: string;
  readonly decidedAt: string;
  readonly decidedByName: string;
}

/** Decisions of some visits about the kind of lens, oldest first: the last of a visit holds. */
export async function listDecisions(sql: Db, practiceId: string, visitIds: readonly string[]): Promise<DecisionRow[]> {
  return sql<DecisionRow[]>`
    select d.id, d.visit_id, d.recommended, d.chosen, d.as_recommended, d.reason, d.rule_version, d.decided_at, p.display_name as decided_by_name
    from kind_decision d join person p on p.id = d.decided_by
    where d.practice_id = ${practiceId} and d.visit_id = any (${[...visitIds]}) order by d.sequence`;
}

export async function insertDecision(
  sql: Db,
  m: Meta,
  d: {
    readonly recommendation: Recommendation;
    readonly chosen: Kind;
    readonly asRecommended: boolean;
    readonly reason: string | null;
    readonly inputs: unknown;
    readonly settings: PracticeSettings;
    readonly ruleVersion: string;
  },
): Promise<void> {
  const inputs = { facts: d.inputs, recommendation: d.recommendation };
  await sql`
    insert into kind_decision (id, practice_id, visit_id, visit_version, recommended, chosen, as_recommended, reason, inputs, settings, rule_version, decided_at, decided_by)
    values (${m.id}, ${m.practiceId}, ${m.visitId}, ${m.visitVersion},
      ${d.recommendation.recommended ? sql.json({ ...d.recommendation.recommended.kind }) : null}, ${sql.json({ ...d.chosen })}, ${d.asRecommended}, ${d.reason},
      ${sql.json(inputs as never)}, ${sql.json({ ...d.settings })}, ${d.ruleVersion}, ${m.at}, ${m.by})`;
}

export const REFERRAL_STEPS = ['lensOff', 'phoned', 'printed', 'leftWithLetter', 'calledNextDay'] as const;
export type ReferralStep = (typeof REFERRAL_STEPS)[number];
export interface ReferralRow {
  readonly id: string;
  readonly stopId: string;
  readonly visitId: string;
  readonly addressedTo: string;
  readonly telephone: string;
  readonly openedAt: string;
  readonly openedByName: string;
  readonly steps: readonly { readonly step: ReferralStep; readonly at: string; readonly by: string }[];
}

export async function listReferrals(sql: Db, practiceId: string, wearerId: string): Promise<ReferralRow[]> {
  return sql<ReferralRow[]>`
    select r.id, r.stop_id, r.visit_id, r.addressed_to, r.telephone, r.opened_at, p.display_name as opened_by_name,
      coalesce((select jsonb_agg(jsonb_build_object('step', s.step, 'at', s.done_at, 'by', q.display_name) order by s.done_at)
        from referral_step s join person q on q.id = s.done_by where s.referral_id = r.id), '[]'::jsonb) as steps
    from referral r join person p on p.id = r.opened_by
    where r.practice_id = ${practiceId} and r.wearer_id = ${wearerId} order by r.opened_at`;
}

/** Opens the referral of a stop, once. @returns false when it was open before */
export async function insertReferral(
  sql: Db,
  m: Meta & { readonly wearerId: string },
  r: { readonly stopId: string; readonly addressedTo: string; readonly telephone: string },
): Promise<boolean> {
  const rows = await sql`
    insert into referral (id, practice_id, visit_id, visit_version, wearer_id, stop_id, addressed_to, telephone, opened_at, opened_by)
    values (${m.id}, ${m.practiceId}, ${m.visitId}, ${m.visitVersion}, ${m.wearerId}, ${r.stopId}, ${r.addressedTo}, ${r.telephone}, ${m.at}, ${m.by})
    on conflict (stop_id) do nothing returning id`;
  return rows.length === 1;
}

export async function insertReferralStep(sql: Db, s: { referralId: string; practiceId: string; step: ReferralStep; at: string; by: string }): Promise<void> {
  await sql`
    insert into referral_step (referral_id, practice_id, step, done_at, done_by)
    values (${s.referralId}, ${s.practiceId}, ${s.step}, ${s.at}, ${s.by}) on conflict do nothing`;
}
