import 'server-only';
import { must } from '../lib/assert';
import type { Db } from './client';
import type { DrawerCount, LensSpec, TrialMovementKind } from '../core';

export interface TrialStockRow extends LensSpec {
  readonly id: string;
  readonly lensId: string;
  readonly familyCode: string;
  readonly familyName: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
  /** The lot is called back: none of it goes on an eye. */
  readonly recalled: boolean;
  /** How many of the lens are kept at least; null where nobody said. */
  readonly least: number | null;
}

/** What makes a lens the lens that it is, in whatever version of its family: of `l`, a lens, and `f`, its family. */
export const lensKey = (sql: Db) => sql`concat_ws('|', f.code, l.sphere_d, l.cylinder_d, l.axis_deg, coalesce(l.add_band, ''), l.base_curve_mm, l.diameter_mm)`;

/** Lots with lenses left, by family and power, soonest to expire first. */
export function listTrialStock(sql: Db, practiceId: string) {
  return sql<TrialStockRow[]>`
    with level as (
      select distinct on (key) ${lensKey(sql)} as key, t.least from trial_level t join lens l on l.id = t.lens_id join lens_family_version f on f.id = l.family_version_id
      where t.practice_id = ${practiceId} order by key, t.sequence desc)
    select s.id, s.lens_id, s.lot, s.expires_on, s.count, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band,
      l.base_curve_mm, l.diameter_mm, f.code as family_code, f.name as family_name, lot_recalled(s.practice_id, s.lot, s.lens_id) as recalled,
      (select v.least from level v where v.key = ${lensKey(sql)}) as least
    from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
    where s.practice_id = ${practiceId} and s.count > 0
    order by f.name, l.sphere_d desc, l.cylinder_d desc, l.axis_deg,
      array_position(array['low', 'medium', 'high'], l.add_band), l.add_band, l.base_curve_mm, s.expires_on, s.lot`;
}

/** Trial lenses that may still be used, counted by family, power, addition and curve. */
export function listDrawer(sql: Db, practiceId: string, today: string) {
  return sql<DrawerCount[]>`
    select f.code as family_code, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm, sum(s.count) as count
    from trial_stock s join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
    where s.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${today} and not lot_recalled(s.practice_id, s.lot, s.lens_id)
    group by 1, 2, 3, 4, 5, 6, 7 order by 1, 2, 3, 4, 5, 6, 7`;
}

/** When something was moved in the drawer, and by whom. */
export interface Moved {
  readonly at: string;
  readonly by: string;
}

/** A lens taken from the drawer. */
export interface TakenTrial {
  readonly id: string;
  readonly lensId: string;
  readonly lot: string;
  readonly expiresOn: string;
}

/** A lens of the drawer is the lens asked for, in whatever version of its family it was bought. `had` and `asked` are lenses, `had_family` and `asked_family` their families. */
const sameLens = (sql: Db) => sql`had_family.code = asked_family.code
        and (had.sphere_d, had.cylinder_d, had.axis_deg) = (asked.sphere_d, asked.cylinder_d, asked.axis_deg)
        and had.add_band is not distinct from asked.add_band
        and had.base_curve_mm is not distinct from asked.base_curve_mm and had.diameter_mm is not distinct from asked.diameter_mm`;

/** How many of some lenses lie in the drawer and may be used today; lenses of which there are none are left out. */
export const countTrials = (sql: Db, practiceId: string, lensIds: readonly string[], today: string) => sql<
  { readonly lensId: string; readonly count: number }[]
>`
  select asked.id as lens_id, sum(s.count)::int as count
  from lens asked join lens_family_version asked_family on asked_family.id = asked.family_version_id
  join trial_stock s on s.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${today} and not lot_recalled(s.practice_id, s.lot, s.lens_id)
  join lens had on had.id = s.lens_id join lens_family_version had_family on had_family.id = had.family_version_id
  where asked.practice_id = ${practiceId} and asked.id = any (${[...lensIds]}::uuid[]) and ${sameLens(sql)}
  group by 1`;

/**
 * Takes lenses from the drawer, one for each that is asked, soonest to expire first, never an expired one. A lens bought
 * under an earlier version of its family is the same lens.
 * @param lensIds lenses asked for; one that is asked twice is taken twice
 * @param moved for which visit, when and by whom; put on an eye there, or given home unopened
 * @returns what was taken for each, in their order; null where there is none left
 */
export async function takeTrials(
  sql: Db,
  practiceId: string,
  lensIds: readonly string[],
  today: string,
  moved: Moved & { readonly visitId: string; readonly kind?: 'putOn' | 'givenHome' },
): Promise<readonly (TakenTrial | null)[]> {
  const rows = await sql<(TakenTrial & { readonly asked: string; readonly taken: number })[]>`
    with wanted as (select id, count(*) as n from unnest(${[...lensIds]}::uuid[]) as id group by id),
    candidates as (
      select s.id, s.lens_id, s.lot, s.expires_on, s.count, w.id as asked, w.n
      from wanted w
      join lens asked on asked.practice_id = ${practiceId} and asked.id = w.id
      join lens_family_version asked_family on asked_family.id = asked.family_version_id
      join trial_stock s on s.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${today} and not lot_recalled(s.practice_id, s.lot, s.lens_id)
      join lens had on had.id = s.lens_id join lens_family_version had_family on had_family.id = had.family_version_id
      where ${sameLens(sql)}
      order by s.expires_on, s.id for update of s),
    shares as (
      select *, least(count, n - coalesce(sum(count) over (partition by asked order by expires_on, id rows between unbounded preceding and 1 preceding), 0)) as taken
      from candidates),
    moved as (
      insert into trial_movement (practice_id, trial_stock_id, kind, change, visit_id, moved_at, moved_by)
      select ${practiceId}, h.id, ${moved.kind ?? 'putOn'}, -sum(h.taken), ${moved.visitId}, ${moved.at}, ${moved.by} from shares h where h.taken > 0 group by h.id)
    select h.id, h.lens_id, h.lot, h.expires_on, h.asked, h.taken from shares h where h.taken > 0`;
  const left = rows.flatMap(({ asked, taken, ...trial }) => Array.from({ length: taken }, () => ({ asked, trial }))).sort(soonestFirst);
  return lensIds.map((lensId) => {
    const at = left.findIndex((l) => l.asked === lensId);
    return at < 0 ? null : (left.splice(at, 1)[0]?.trial ?? null);
  });
}
const soonestFirst = (a: { readonly trial: TakenTrial }, b: { readonly trial: TakenTrial }): number =>
  a.trial.expiresOn.localeCompare(b.trial.expiresOn) || a.trial.id.localeCompare(b.trial.id);

/** A lens that was not opened goes back where it was taken from. */
export async function returnTrial(sql: Db, practiceId: string, trialStockId: string, moved: Moved & { readonly visitId: string }): Promise<void> {
  await moveTrials(sql, practiceId, [{ trialStockId, kind: 'putBack', change: 1, visitId: moved.visitId, note: null }], moved);
}

/** Trial lenses that were given home to bridge a gap did not go: they lie in their lot again. @param gone as the hand-over has them */
export async function returnBridged(
  sql: Db,
  practiceId: string,
  gone: { readonly visitId: string; readonly lot: string; readonly expiresOn: string; readonly count: number },
  { at, by }: Moved,
): Promise<void> {
  await sql`
    insert into trial_movement (practice_id, trial_stock_id, kind, change, visit_id, moved_at, moved_by)
    select m.practice_id, m.trial_stock_id, 'putBack', -m.change, m.visit_id, ${at}, ${by}
    from trial_movement m join trial_stock s on s.practice_id = m.practice_id and s.id = m.trial_stock_id
    where m.practice_id = ${practiceId} and m.visit_id = ${gone.visitId} and m.kind = 'givenHome' and m.change = ${-gone.count}
      and s.lot = ${gone.lot} and s.expires_on = ${gone.expiresOn} limit 1`;
}

/**
 * Lenses that were said to have gone home did not: they lie in the lot that they were taken from, if they were taken from one.
 * @param gone which lot, at which visit, how many
 */
export async function returnGivenHome(
  sql: Db,
  practiceId: string,
  gone: { readonly trialStockId: string; readonly visitId: string; readonly count: number },
  { at, by }: Moved,
): Promise<void> {
  await sql`
    insert into trial_movement (practice_id, trial_stock_id, kind, change, visit_id, moved_at, moved_by)
    select practice_id, trial_stock_id, 'putBack', -change, visit_id, ${at}, ${by} from trial_movement
    where practice_id = ${practiceId} and trial_stock_id = ${gone.trialStockId} and visit_id = ${gone.visitId}
      and kind = 'givenHome' and change = ${-gone.count} limit 1`;
}

export interface TrialMovement {
  readonly trialStockId: string;
  readonly kind: TrialMovementKind;
  readonly change: number;
  readonly visitId: string | null;
  readonly note: string | null;
}

/** Appends movements: the counts follow. */
export async function moveTrials(sql: Db, practiceId: string, movements: readonly TrialMovement[], { at, by }: Moved): Promise<void> {
  if (movements.length === 0) return;
  await sql`insert into trial_movement ${sql(movements.map((m) => ({ ...m, practiceId, movedAt: at, movedBy: by })))}`;
}

export interface ReceivedTrials {
  readonly lensId: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
}

/** Lenses that came: a lot that is there already grows. */
export async function receiveTrials(
  sql: Db,
  practiceId: string,
  received: readonly ReceivedTrials[],
  moved: Moved & { readonly note?: string | null },
  newId: () => string,
): Promise<void> {
  if (received.length === 0) return;
  const rows = received.map(({ lensId, lot, expiresOn }) => ({ id: newId(), practiceId, lensId, lot, expiresOn }));
  await sql`insert into trial_stock ${sql(rows)} on conflict do nothing`;
  await sql`
    insert into trial_movement (practice_id, trial_stock_id, kind, change, note, moved_at, moved_by)
    select ${practiceId}, s.id, 'received', r.count, ${moved.note ?? null}, ${moved.at}, ${moved.by}
    from unnest(${received.map((r) => r.lensId)}::uuid[], ${received.map((r) => r.lot)}::text[], ${received.map((r) => r.expiresOn)}::date[],
      ${received.map((r) => r.count)}::int[]) as r (lens_id, lot, expires_on, count)
    join trial_stock s on s.practice_id = ${practiceId} and s.lens_id = r.lens_id and s.lot = r.lot and s.expires_on = r.expires_on`;
}

/** A lens that was in nobody's count: it comes into the drawer and goes out of it in one. @param trial what its blister says */
export async function takeInHand(
  sql: Db,
  practiceId: string,
  trial: Omit<ReceivedTrials, 'count'>,
  moved: Moved & { readonly visitId: string },
  newId: () => string,
): Promise<TakenTrial> {
  await receiveTrials(sql, practiceId, [{ ...trial, count: 1 }], moved, newId);
  const [row] = await sql<{ id: string }[]>`
    select id from trial_stock
    where practice_id = ${practiceId} and lens_id = ${trial.lensId} and lot = ${trial.lot} and expires_on = ${trial.expiresOn}`;
  const id = must(row, 'trial stock').id;
  await moveTrials(sql, practiceId, [{ trialStockId: id, kind: 'putOn', change: -1, visitId: moved.visitId, note: null }], moved);
  return { id, ...trial };
}

/** Other days that lots are kept with: one of the two was misread. */
export function listOtherDays(sql: Db, practiceId: string, of: readonly Pick<ReceivedTrials, 'lensId' | 'lot' | 'expiresOn'>[]) {
  return sql<{ lensId: string; lot: string; expiresOn: string }[]>`
    select s.lens_id, s.lot, s.expires_on from trial_stock s
    join unnest(${of.map((o) => o.lensId)}::uuid[], ${of.map((o) => o.lot)}::text[], ${of.map((o) => o.expiresOn)}::date[]) as o (lens_id, lot, expires_on)
      on s.lens_id = o.lens_id and s.lot = o.lot and s.expires_on <> o.expires_on
    where s.practice_id = ${practiceId} and s.count > 0`;
}

/** One lot, locked until the end of the transaction; null when there is none such. */
export async function lockTrialStock(sql: Db, practiceId: string, id: string): Promise<{ readonly count: number } | null> {
  const [row] = await sql<{ count: number }[]>`select count from trial_stock where practice_id = ${practiceId} and id = ${id} for update`;
  return row ?? null;
}

export interface TrialMovementRow {
  readonly kind: TrialMovementKind;
  readonly change: number;
  readonly note: string | null;
  readonly movedAt: string;
  readonly movedByName: string | null;
}

/** What came and went of a lot, newest first. */
export function listTrialMovements(sql: Db, practiceId: string, trialStockId: string) {
  return sql<TrialMovementRow[]>`
    select m.kind, m.change, m.note, m.moved_at, p.display_name as moved_by_name
    from trial_movement m left join person p on p.id = m.moved_by
    where m.practice_id = ${practiceId} and m.trial_stock_id = ${trialStockId} order by m.sequence desc limit 50`;
}
