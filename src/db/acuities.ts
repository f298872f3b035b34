import 'server-only';
import type { Eye } from '../core';
import type { Db } from './client';

/** Best acuity of each eye in some visits, logMAR, as it stands after corrections; null where none was read. */
export async function findBestAcuities(sql: Db, practiceId: string, visitIds: readonly string[]): Promise<Readonly<Record<Eye, number | null>>> {
  const ids = [...visitIds];
  const rows = await sql<{ readonly eye: Eye; readonly best: number }[]>`
    select eye, min(acuity) as best from (
      select f.eye, f.acuity_log_mar as acuity from refraction f left join refraction c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id = any (${ids}) and not f.voided and c.id is null
      union all select f.eye, f.acuity_log_mar from over_refraction f left join over_refraction c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id = any (${ids}) and not f.voided and c.id is null
      union all select f.eye, f.number_value from lens_finding f left join lens_finding c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id = any (${ids}) and not f.voided and c.id is null and f.sign in ('acuityLens', 'acuityPinhole')
      union all select f.eye, f.acuity_log_mar from eye_acuity f left join eye_acuity c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id = any (${ids}) and not f.voided and c.id is null
    ) a where acuity is not null group by eye`;
  const of = (eye: Eye): number | null => rows.find((r) => r.eye === eye)?.best ?? null;
  return { right: of('right'), left: of('left') };
}
