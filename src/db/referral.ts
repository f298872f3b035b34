import 'server-only';
import type { ReferralStep, ReferralRow } from '../core';
import type { Db } from './client';
import type { Meta } from './recordMeta';

export function listReferrals(sql: Db, practiceId: string, wearerId: string) {
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
