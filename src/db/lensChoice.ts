import 'server-only';
import type { LensChoice } from '../core';
import type { Db } from './client';

/** Lenses of a visit that were taken up again, in that order. */
export function listChoices(sql: Db, practiceId: string, visitId: string) {
  return sql<LensChoice[]>`
    select c.lens_on_eye_id, c.why, c.chosen_at, p.display_name as chosen_by_name
    from lens_choice c join person p on p.id = c.chosen_by
    where c.practice_id = ${practiceId} and c.visit_id = ${visitId} order by c.sequence`;
}

export interface NewChoice {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly lensOnEyeId: string;
  readonly why: string;
  readonly chosenAt: string;
  readonly chosenBy: string;
}
export async function insertChoice(sql: Db, choice: NewChoice): Promise<void> {
  await sql`insert into lens_choice ${sql({ ...choice })}`;
}
