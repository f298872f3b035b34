import 'server-only';
import type { LotRecall, RecalledWearer, RecallOutcome } from '../core';
import type { Db } from './client';

const rows = (sql: Db) => sql`
  select r.id, r.lot, r.family_code, (select f.name from lens_family_version f where f.practice_id = r.practice_id and f.code = r.family_code order by f.version desc limit 1) as family_name,
    r.reason, r.opened_at, p.display_name as opened_by_name, l.lifted_at
  from lot_recall r join person p on p.id = r.opened_by left join lot_recall_lift l on l.recall_id = r.id`;

/** Every lot that was called back, the newest first. */
export const listRecalls = (sql: Db, practiceId: string) =>
  sql<LotRecall[]>`${rows(sql)} where r.practice_id = ${practiceId} order by r.sequence desc limit 200`;

export async function findRecall(sql: Db, practiceId: string, id: string): Promise<LotRecall | null> {
  const [row] = await sql<LotRecall[]>`${rows(sql)} where r.practice_id = ${practiceId} and r.id = ${id}`;
  return row ?? null;
}

/** Of some lots with their lenses, those that are called back. */
export async function recalledOf(
  sql: Db,
  practiceId: string,
  asked: readonly { readonly lot: string; readonly lensId: string }[],
): Promise<readonly { readonly lot: string; readonly lensId: string }[]> {
  if (asked.length === 0) return [];
  return sql<{ lot: string; lensId: string }[]>`
    select a.lot, a.lens_id from jsonb_to_recordset(${sql.json(asked.map(({ lot, lensId }) => ({ lot, lens_id: lensId })))}) a (lot text, lens_id uuid)
    where lot_recalled(${practiceId}, a.lot, a.lens_id)`;
}

/** Everybody who had lenses of a recalled lot, at home or on an eye here, with what was said to them. */
export const listRecalled = (sql: Db, practiceId: string, recall: LotRecall) => sql<RecalledWearer[]>`
  with had as (
    select h.wearer_id, 'handedOver' as how, h.eye, h.handed_on as day, h.lens_id, h.lens_count as lenses from hand_over h
    where h.practice_id = ${practiceId} and lower(trim(h.lot)) = lower(trim(${recall.lot})) and not h.voided
      and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id)
    union all
    select v.wearer_id, 'tried', e.eye, (e.put_on_at at time zone p.time_zone)::date, e.lens_id, 1 from lens_on_eye e
    join visit v on v.practice_id = e.practice_id and v.id = e.visit_id join practice p on p.id = e.practice_id
    where e.practice_id = ${practiceId} and lower(trim(e.lot)) = lower(trim(${recall.lot})) and e.source = 'trial' and not e.voided
      and not exists (select 1 from lens_on_eye c where c.practice_id = e.practice_id and c.corrects_id = e.id))
  select x.wearer_id, w.record_number, i.name, i.telephone, x.had, c.outcome, c.called_at, q.display_name as called_by_name, c.note
  from (
    select h.wearer_id, jsonb_agg(jsonb_build_object('how', h.how, 'eye', h.eye, 'on', h.day, 'familyName', f.name, 'lenses', h.lenses) order by h.day desc, h.eye desc) as had
    from had h join lens l on l.id = h.lens_id join lens_family_version f on f.id = l.family_version_id
    where ${recall.familyCode}::text is null or f.code = ${recall.familyCode}
    group by h.wearer_id) x
  join wearer w on w.practice_id = ${practiceId} and w.id = x.wearer_id join wearer_identity i on i.wearer_id = w.id
  left join lateral (select outcome, called_at, called_by, note from lot_recall_call k
    where k.practice_id = ${practiceId} and k.recall_id = ${recall.id} and k.wearer_id = x.wearer_id order by k.sequence desc limit 1) c on true
  left join person q on q.id = c.called_by`;

/** What of a recalled lot lies here: in the drawer, and in bags that wait. */
export async function recalledHere(
  sql: Db,
  practiceId: string,
  recall: LotRecall,
): Promise<{ readonly trials: number; readonly boxes: readonly { readonly orderId: string; readonly number: number; readonly packs: number }[] }> {
  const [row] = await sql<{ trials: number; boxes: { orderId: string; number: number; packs: number }[] }[]>`
    select coalesce((select sum(s.count) from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
        where s.practice_id = ${practiceId} and lower(trim(s.lot)) = lower(trim(${recall.lot})) and (${recall.familyCode}::text is null or f.code = ${recall.familyCode})), 0)::int as trials,
      (select coalesce(jsonb_agg(jsonb_build_object('orderId', o.id, 'number', o.number, 'packs', r.packs)), '[]')
        from order_receipt r join order_line n on n.practice_id = r.practice_id and n.id = r.order_line_id join lens_order o on o.practice_id = n.practice_id and o.id = n.order_id
        join lens l on l.id = r.lens_id join lens_family_version f on f.id = l.family_version_id
        where r.practice_id = ${practiceId} and lower(trim(r.lot)) = lower(trim(${recall.lot})) and o.kind = 'supply'
          and (${recall.familyCode}::text is null or f.code = ${recall.familyCode})
          and not exists (select 1 from hand_over h where h.practice_id = r.practice_id and h.order_receipt_id = r.id and not h.voided
            and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id))) as boxes`;
  return row ?? { trials: 0, boxes: [] };
}

export async function insertRecall(
  sql: Db,
  r: {
    readonly id: string;
    readonly practiceId: string;
    readonly lot: string;
    readonly familyCode: string | null;
    readonly reason: string;
    readonly openedAt: string;
    readonly openedBy: string;
  },
): Promise<void> {
  await sql`insert into lot_recall ${sql({ ...r })}`;
}

/** Lifts a recall; twice is once. */
export async function liftRecall(
  sql: Db,
  l: { readonly recallId: string; readonly practiceId: string; readonly reason: string; readonly liftedAt: string; readonly liftedBy: string },
): Promise<void> {
  await sql`insert into lot_recall_lift ${sql({ ...l })} on conflict do nothing`;
}

export async function insertRecallCall(
  sql: Db,
  c: {
    readonly id: string;
    readonly practiceId: string;
    readonly recallId: string;
    readonly wearerId: string;
    readonly outcome: RecallOutcome;
    readonly note: string | null;
    readonly calledAt: string;
    readonly calledBy: string;
  },
): Promise<void> {
  await sql`insert into lot_recall_call ${sql({ ...c })}`;
}
