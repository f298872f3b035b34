import 'server-only';
import type { LensAdd, Counted, LensSpec } from '../core';
import type { Db } from './client';
import { lensKey, type Moved } from './trialStock';

/** One trial lens, whatever version of its family it was bought in, beside what the drawer is to keep of it. */
export interface TrialLevelRow extends Omit<LensSpec, 'familyVersionId'> {
  /** One of the lens's rows: the newest. */
  readonly lensId: string;
  readonly familyCode: string;
  readonly familyName: string;
  readonly maker: string;
  readonly addBand: LensAdd | null;
  readonly least: number | null;
  readonly left: number;
  readonly expiring: number;
  readonly used: number;
  readonly asked: readonly Counted[];
  readonly came: readonly Counted[];
}

/** From when on what is looked at, in days and moments of the practice. */
export interface LevelWindow {
  readonly today: string;
  /** Lots that expire by this day are not counted on. */
  readonly soon: string;
  /** Lenses used since. */
  readonly usedSince: string;
  /** Lenses asked of a supplier, and come, since. */
  readonly askedSince: string;
}

/**
 * Every trial lens that has a level, or was used of late and of which none is left. What was asked is what somebody ordered for the
 * drawer, and what visits ordered.
 */
export const listTrialLevels = (sql: Db, practiceId: string, of: LevelWindow) => sql<TrialLevelRow[]>`
  with known as materialized (
    select l.id, f.code, f.name, f.maker, f.starts_on, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm,
      ${lensKey(sql)} as key
    from lens l join lens_family_version f on f.id = l.family_version_id
    where l.practice_id = ${practiceId} and (exists (select 1 from trial_level t where t.practice_id = l.practice_id and t.lens_id = l.id)
      or exists (select 1 from trial_stock s where s.practice_id = l.practice_id and s.lens_id = l.id))),
  level as (
    select distinct on (k.key) k.key, t.least from trial_level t join known k on k.id = t.lens_id
    where t.practice_id = ${practiceId} order by k.key, t.sequence desc),
  lots as (
    select k.key, sum(s.count) as left, coalesce(sum(s.count) filter (where s.expires_on <= ${of.soon}), 0) as expiring
    from trial_stock s join known k on k.id = s.lens_id
    where s.practice_id = ${practiceId} and s.count > 0 and s.expires_on >= ${of.today} and not lot_recalled(s.practice_id, s.lot, s.lens_id) group by 1),
  moved as (
    select k.key, coalesce(-sum(m.change) filter (where m.kind in ('putOn', 'putBack', 'givenHome') and m.moved_at >= ${of.usedSince}), 0) as used,
      jsonb_agg(jsonb_build_object('at', m.moved_at, 'count', m.change)) filter (where m.kind = 'received' and m.moved_at >= ${of.askedSince}) as came
    from trial_movement m join trial_stock s on s.practice_id = m.practice_id and s.id = m.trial_stock_id join known k on k.id = s.lens_id
    where m.practice_id = ${practiceId} and m.moved_at >= least(${of.usedSince}::timestamptz, ${of.askedSince}::timestamptz) group by 1),
  asked as (
    select k.key, jsonb_agg(jsonb_build_object('at', a.at, 'count', a.count)) as asked from (
      select lens_id, count, asked_at as at from trial_restock where practice_id = ${practiceId} and asked_at >= ${of.askedSince}
      union all
      select n.lens_id, n.packs * n.pack_size, o.placed_at from lens_order o join order_line n on n.practice_id = o.practice_id and n.order_id = o.id
      where o.practice_id = ${practiceId} and o.kind = 'trial' and o.placed_at >= ${of.askedSince} and n.lens_id is not null
        and not exists (select 1 from order_event e where e.practice_id = o.practice_id and e.order_id = o.id and e.state in ('refused', 'cancelled'))) a
    join known k on k.id = a.lens_id group by 1)
  select distinct on (k.name, k.key) k.id as lens_id, k.code as family_code, k.name as family_name, k.maker, k.sphere_d, k.cylinder_d, k.axis_deg, k.add_band,
    k.base_curve_mm, k.diameter_mm, v.least, coalesce(s.left, 0)::int as left, coalesce(s.expiring, 0)::int as expiring, coalesce(m.used, 0)::int as used,
    coalesce(a.asked, '[]') as asked, coalesce(m.came, '[]') as came
  from known k left join level v using (key) left join lots s using (key) left join moved m using (key) left join asked a using (key)
  where v.least is not null or (coalesce(s.left, 0) = 0 and m.used > 0)
  order by k.name, k.key, k.starts_on desc`;

/** Keeps how many of some lenses the drawer keeps at least; one that is kept already is not kept again. */
export async function insertTrialLevels(
  sql: Db,
  practiceId: string,
  levels: readonly { readonly id: string; readonly lensId: string; readonly least: number }[],
  { at, by }: Moved,
): Promise<void> {
  if (levels.length === 0) return;
  await sql`
    insert into trial_level (id, practice_id, lens_id, least, set_at, set_by)
    select n.id, ${practiceId}, n.lens_id, n.least, ${at}, ${by}
    from unnest(${levels.map((l) => l.id)}::uuid[], ${levels.map((l) => l.lensId)}::uuid[], ${levels.map((l) => l.least)}::int[]) as n (id, lens_id, least)
    where n.least is distinct from (select t.least from trial_level t where t.practice_id = ${practiceId} and t.lens_id = n.lens_id order by t.sequence desc limit 1)`;
}

/** Lenses asked of a supplier for the drawer. */
export async function insertRestock(
  sql: Db,
  practiceId: string,
  lines: readonly { readonly id: string; readonly lensId: string; readonly count: number }[],
  { at, by }: Moved,
): Promise<void> {
  await sql`insert into trial_restock ${sql(lines.map((l) => ({ ...l, practiceId, askedAt: at, askedBy: by })))}`;
}
