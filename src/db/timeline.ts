import 'server-only';
import { FACT_KINDS, FACT_KIND_NAMES, type FactKind, type TimelineWhat } from '../core';
import type { Db } from './client';

/** A line as the database has it. */
export interface TimelineRow {
  readonly id: string;
  readonly what: TimelineWhat;
  readonly at: string;
  readonly eye: 'right' | 'left' | null;
  readonly visitId: string | null;
  readonly byName: string | null;
  readonly data: Readonly<Record<string, unknown>>;
  readonly was: Readonly<Record<string, unknown>> | null;
  readonly reason: string | null;
  readonly voided: boolean;
}
export interface TimelineKey {
  readonly at: string;
  readonly id: string;
}
interface Of {
  readonly practiceId: string;
  readonly wearerId: string;
}

/** Facts of one kind in the wearer's visits; a correction brings what it stands for. */
const factLines = (sql: Db, of: Of, kind: FactKind, onlyCorrections: boolean) => sql`
  select f.id, ${kind}::text as what, f.recorded_at as at, f.eye::text as eye, f.visit_id, f.recorded_by as by, to_jsonb(f) as data,
    (select to_jsonb(w) from ${sql(FACT_KINDS[kind].table)} w where w.practice_id = f.practice_id and w.id = f.corrects_id) as was,
    f.reason, f.voided
  from ${sql(FACT_KINDS[kind].table)} f
  where f.practice_id = ${of.practiceId} and f.visit_id in (select v.id from visit v where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId})
    ${onlyCorrections ? sql`and f.corrects_id is not null` : sql``}`;

type Lines = ReturnType<Db>;
const none = (sql: Db) => sql`null::jsonb as was, null::text as reason, false as voided`;
/** What is no fact of a visit, each with the moment at which it came about. */
const OTHERS: Readonly<Record<Exclude<TimelineWhat, FactKind>, (sql: Db, of: Of) => Lines>> = {
  visitOpened: (sql, of) => sql`select v.id, 'visitOpened' as what, v.opened_at as at, null::text as eye, v.id as visit_id, v.opened_by as by,
    jsonb_build_object('kind', v.kind) as data, ${none(sql)} from visit v where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  visitClosed: (sql, of) => sql`select v.id, 'visitClosed', v.closed_at, null::text, v.id, null::uuid, jsonb_build_object('kind', v.kind), ${none(sql)}
    from visit v where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId} and v.closed_at is not null`,
  historyAnswer: (sql, of) => sql`select a.id, 'historyAnswer', a.recorded_at, null::text, a.visit_id, a.recorded_by,
    jsonb_build_object('question', a.question, 'value', a.value, 'note', a.note), ${none(sql)}
    from history_answer a join visit v on v.practice_id = a.practice_id and v.id = a.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  stopOpened: (sql, of) => sql`select s.id, 'stopOpened', s.opened_at, null::text, s.visit_id, s.opened_by, jsonb_build_object('rule', s.rule), ${none(sql)}
    from safety_stop s join visit v on v.practice_id = s.practice_id and v.id = s.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  stopEnded: (sql, of) => sql`select e.stop_id, 'stopEnded', e.ended_at, null::text, e.visit_id, e.ended_by,
    jsonb_build_object('rule', s.rule, 'how', e.how), null::jsonb, e.reason, false from safety_stop_end e join safety_stop s on s.practice_id = e.practice_id and s.id = e.stop_id
    join visit v on v.practice_id = s.practice_id and v.id = s.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  stopOverridden: (
    sql,
    of,
  ) => sql`select o.id, 'stopOverridden', o.overridden_at, null::text, o.visit_id, o.overridden_by, jsonb_build_object('rule', o.rule), null::jsonb, o.reason, false
    from stop_override o join visit v on v.practice_id = o.practice_id and v.id = o.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  referral: (sql, of) => sql`select r.id, 'referral', r.opened_at, null::text, r.visit_id, r.opened_by, jsonb_build_object('to', r.addressed_to), ${none(sql)}
    from referral r join visit v on v.practice_id = r.practice_id and v.id = r.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  kindDecided: (sql, of) => sql`select d.id, 'kindDecided', d.decided_at, null::text, d.visit_id, d.decided_by, d.chosen, null::jsonb, d.reason, false
    from kind_decision d join visit v on v.practice_id = d.practice_id and v.id = d.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  prescription: (sql, of) => sql`select p.id, 'prescription', p.issued_at, null::text, p.visit_id, p.signed_by,
    jsonb_build_object('number', p.number, 'expiresOn', p.expires_on, 'purpose', p.purpose,
      'lenses', (select jsonb_object_agg(e.eye, e.lens_id) from prescription_eye e where e.practice_id = p.practice_id and e.prescription_id = p.id)), ${none(sql)}
    from prescription p where p.practice_id = ${of.practiceId} and p.wearer_id = ${of.wearerId}`,
  prescriptionCopy: (sql, of) => sql`select c.id, 'prescriptionCopy', c.given_at, null::text, p.visit_id, c.given_by,
    jsonb_build_object('number', p.number, 'how', c.how), ${none(sql)}
    from prescription_copy c join prescription p on p.practice_id = c.practice_id and p.id = c.prescription_id where p.practice_id = ${of.practiceId} and p.wearer_id = ${of.wearerId}`,
  outsidePrescription: (sql, of) => sql`select o.id, 'outsidePrescription', o.recorded_at, null::text, null::uuid, o.recorded_by,
    jsonb_build_object('fileName', o.file_name), ${none(sql)} from outside_prescription o where o.practice_id = ${of.practiceId} and o.wearer_id = ${of.wearerId}`,
  sellersRequest: (
    sql,
    of,
  ) => sql`select r.id, 'sellersRequest', r.received_at, null::text, null::uuid, r.recorded_by, jsonb_build_object('seller', r.seller_name), ${none(sql)}
    from request r where r.practice_id = ${of.practiceId} and exists (
      select 1 from request_wearer w where w.practice_id = r.practice_id and w.request_id = r.id and w.wearer_id = ${of.wearerId})`,
  order: (
    sql,
    of,
  ) => sql`select o.id, 'order', o.placed_at, null::text, o.visit_id, o.placed_by, jsonb_build_object('number', o.number, 'kind', o.kind), ${none(sql)}
    from lens_order o where o.practice_id = ${of.practiceId} and o.wearer_id = ${of.wearerId}`,
  orderEvent: (
    sql,
    of,
  ) => sql`select e.id, 'orderEvent', e.at, null::text, o.visit_id, null::uuid, jsonb_build_object('number', o.number, 'state', e.state), ${none(sql)}
    from order_event e join lens_order o on o.practice_id = e.practice_id and o.id = e.order_id
    where o.practice_id = ${of.practiceId} and o.wearer_id = ${of.wearerId} and e.state <> 'placed'`,
  orderReceipt: (sql, of) => sql`select r.id, 'orderReceipt', r.received_at, l.eye::text, o.visit_id, r.received_by,
    jsonb_build_object('number', o.number, 'lot', r.lot, 'lensId', l.lens_id), ${none(sql)}
    from order_receipt r join order_line l on l.practice_id = r.practice_id and l.id = r.order_line_id join lens_order o on o.practice_id = l.practice_id and o.id = l.order_id
    where o.practice_id = ${of.practiceId} and o.wearer_id = ${of.wearerId}`,
  lessonSignedOff: (sql, of) => sql`select s.id, 'lessonSignedOff', s.signed_at, null::text, l.visit_id, s.signed_by, '{}'::jsonb, ${none(sql)}
    from lesson_sign_off s join lesson l on l.practice_id = s.practice_id and l.id = s.lesson_id where l.practice_id = ${of.practiceId} and l.wearer_id = ${of.wearerId}`,
  appointment: (
    sql,
    of,
  ) => sql`select a.id, 'appointment', a.starts_at, null::text, null::uuid, a.staff_id, jsonb_build_object('kind', a.kind, 'state', a.state), ${none(sql)}
    from appointment a where a.practice_id = ${of.practiceId} and a.wearer_id = ${of.wearerId}`,
  picture: (sql, of) => sql`select p.id, 'picture', p.recorded_at, p.eye::text, p.visit_id, p.recorded_by, jsonb_build_object('title', p.title), ${none(sql)}
    from picture p join visit v on v.practice_id = p.practice_id and v.id = p.visit_id where v.practice_id = ${of.practiceId} and v.wearer_id = ${of.wearerId}`,
  identityChange: (sql, of) => sql`select c.id, 'identityChange', c.changed_at, null::text, null::uuid, c.changed_by, '{}'::jsonb, c.was, null::text, false
    from wearer_identity_change c where c.practice_id = ${of.practiceId} and c.wearer_id = ${of.wearerId}`,
  examinedElsewhere: (sql, of) => sql`select e.id, 'examinedElsewhere', e.recorded_at, null::text, null::uuid, e.recorded_by,
    jsonb_build_object('by', e.by_whom, 'on', e.examined_on), ${none(sql)} from examined_elsewhere e where e.practice_id = ${of.practiceId} and e.wearer_id = ${of.wearerId}`,
};

const isFact = (what: TimelineWhat): what is FactKind => (FACT_KIND_NAMES as readonly string[]).includes(what);

/**
 * Lines of a wearer's timeline, newest first.
 * @param whats what is asked for
 * @param before the last line of the page before
 */
export function listTimeline(
  sql: Db,
  of: Of,
  whats: readonly TimelineWhat[],
  { before, most, onlyCorrections }: { readonly before: TimelineKey | null; readonly most: number; readonly onlyCorrections: boolean },
) {
  const parts = whats.map(
    (what, i) => sql`${i === 0 ? sql`` : sql` union all `}(${isFact(what) ? factLines(sql, of, what, onlyCorrections) : OTHERS[what](sql, of)})`,
  );
  return sql<TimelineRow[]>`
    select l.id, l.what, l.at, l.eye, l.visit_id, p.display_name as by_name, l.data, l.was, l.reason, l.voided
    from (${parts}) l (id, what, at, eye, visit_id, by, data, was, reason, voided) left join person p on p.id = l.by
    where ${before === null ? sql`true` : sql`(l.at, l.id) < (${before.at}::timestamptz, ${before.id}::uuid)`}
    order by l.at desc, l.id desc limit ${most}`;
}
