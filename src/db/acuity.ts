import 'server-only';
import { EYES, type Eye, type VisitRow } from '../core';
import type { Db } from './client';
import { visitsBefore } from './visit';

export interface BestAcuityRow {
  readonly eye: Eye;
  readonly best: number;
}

/** Best acuity of each eye at the visits before one, logMAR, as it stands after corrections. */
export function listBestAcuities(sql: Db, visit: VisitRow) {
  const { practiceId } = visit;
  const before = visitsBefore(sql, visit);
  return sql<BestAcuityRow[]>`
    select eye, min(acuity) as best from (
      select f.eye, f.acuity_log_mar as acuity from refraction f left join refraction c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id in (${before}) and not f.voided and c.id is null
      union all select f.eye, f.acuity_log_mar from over_refraction f left join over_refraction c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id in (${before}) and not f.voided and c.id is null
      union all select f.eye, f.number_value from lens_finding f left join lens_finding c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id in (${before}) and not f.voided and c.id is null and f.sign in ('acuityLens', 'acuityPinhole')
      union all select f.eye, f.acuity_log_mar from eye_acuity f left join eye_acuity c on c.corrects_id = f.id
      where f.practice_id = ${practiceId} and f.visit_id in (${before}) and not f.voided and c.id is null
    ) a where acuity is not null group by eye`;
}

export const bestAcuities = (rows: readonly BestAcuityRow[]): Readonly<Record<Eye, number | null>> =>
  Object.fromEntries(EYES.map((eye) => [eye, rows.find((r) => r.eye === eye)?.best ?? null])) as Record<Eye, number | null>;
