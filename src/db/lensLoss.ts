import 'server-only';
import type { Eye, LensLoss, LossReason } from '../core';
import type { Db } from './client';

/** Lenses that some wearers said are gone, oldest first; those told in error are left out. */
export const listLosses = (sql: Db, practiceId: string, wearerIds: readonly string[]) => sql<(LensLoss & { readonly wearerId: string })[]>`
  select l.id, l.wearer_id, l.eye, l.lenses, l.why, l.lost_on, l.told_at, p.display_name as told_to_name
  from lens_loss l join person p on p.id = l.told_to
  where l.practice_id = ${practiceId} and l.wearer_id = any (${[...wearerIds]}::uuid[])
    and not exists (select 1 from lens_loss_withdrawal w where w.lens_loss_id = l.id)
  order by l.lost_on, l.sequence`;

export interface NewLoss {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly eye: Eye;
  readonly lenses: number;
  readonly why: LossReason;
  readonly lostOn: string;
  readonly toldAt: string;
  readonly toldTo: string;
}
export async function insertLoss(sql: Db, loss: NewLoss): Promise<void> {
  await sql`insert into lens_loss ${sql({ ...loss })}`;
}

/** Whose loss it is; null where the practice knows none such. */
export async function findLoss(sql: Db, practiceId: string, id: string): Promise<{ readonly wearerId: string } | null> {
  const [row] = await sql<{ wearerId: string }[]>`select wearer_id from lens_loss where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}

/** A loss that was told in error; twice is once. */
export async function withdrawLoss(sql: Db, of: { readonly id: string; readonly practiceId: string; readonly at: string; readonly by: string }): Promise<void> {
  await sql`
    insert into lens_loss_withdrawal (lens_loss_id, practice_id, withdrawn_at, withdrawn_by) values (${of.id}, ${of.practiceId}, ${of.at}, ${of.by})
    on conflict do nothing`;
}
