import 'server-only';
import { formatRefraction, type Eye } from '../core';
import type { ChangedFact } from '../lib/outcome';
import type { Db } from './client';

interface ChangeRow {
  readonly what: string;
  readonly eye: Eye | null;
  readonly by: string;
  readonly at: string;
  readonly text: string | null;
  readonly sphereD: number | null;
  readonly cylinderD: number | null;
  readonly axisDeg: number | null;
}

/** What was recorded in a visit after a version, oldest first: shown to whoever comes second. */
export async function listChangedSince(sql: Db, practiceId: string, visitId: string, version: number): Promise<ChangedFact[]> {
  const rows = await sql<ChangeRow[]>`
    select c.what, c.eye, p.display_name as by, c.recorded_at as at, c.text, c.sphere_d, c.cylinder_d, c.axis_deg from (
      select practice_id, visit_id, visit_version, 'refraction' as what, eye, recorded_by, recorded_at, null::text as text,
        sphere_d, cylinder_d, axis_deg from refraction
      union all select practice_id, visit_id, visit_version, 'overRefraction', eye, recorded_by, recorded_at, null,
        sphere_d, cylinder_d, axis_deg from over_refraction
      union all select e.practice_id, visit_id, visit_version, 'lensOnEye', eye, recorded_by, recorded_at, description,
        l.sphere_d, l.cylinder_d, l.axis_deg from lens_on_eye e left join lens l on l.id = e.lens_id
      union all select practice_id, visit_id, visit_version, 'fit', eye, recorded_by, recorded_at, verdict, null, null, null from fit_check
      union all select practice_id, visit_id, visit_version, 'rotation', eye, recorded_by, recorded_at,
        abs(rotation_left_deg) || '°' || case when rotation_left_deg > 0 then ' L' when rotation_left_deg < 0 then ' R' else '' end,
        null, null, null from rotation_reading
      union all select practice_id, visit_id, visit_version, 'lensFinding', eye, recorded_by, recorded_at,
        sign || ' ' || coalesce(typed_text, number_value::text, word_value), null, null, null from lens_finding
      union all select practice_id, visit_id, visit_version, 'acuityBoth', null, recorded_by, recorded_at, acuity_typed, null, null, null from acuity_both
      union all select practice_id, visit_id, visit_version, 'eyeAcuity', eye, recorded_by, recorded_at, acuity_typed, null, null, null from eye_acuity
      union all select practice_id, visit_id, visit_version, 'choice', null, chosen_by, chosen_at, why, null, null, null from lens_choice
      union all select practice_id, visit_id, visit_version, 'lessonAttempt', eye, recorded_by, recorded_at, null, null, null, null from lesson_attempt
      union all select practice_id, visit_id, visit_version, 'lessonTopic', eye, recorded_by, recorded_at, null, null, null, null from lesson_topic
      union all select practice_id, visit_id, visit_version, 'handOver', eye, recorded_by, recorded_at, lot, null, null, null from hand_over
      union all select practice_id, visit_id, visit_version, 'prescription', null, signed_by, issued_at, number::text, null, null, null from prescription
      union all select practice_id, visit_id, visit_version, 'order', null, placed_by, placed_at, number::text, null, null, null from lens_order
      union all select practice_id, visit_id, visit_version, 'history', null, recorded_by, recorded_at, question, null, null, null from history_answer
      union all select practice_id, visit_id, visit_version, 'finding', eye, recorded_by, recorded_at,
        sign || ' ' || coalesce(number_value::text, word_value), null, null, null from eye_finding
      union all select practice_id, visit_id, visit_version, 'stop', null, opened_by, opened_at, rule, null, null, null from safety_stop
      union all select practice_id, visit_id, visit_version, 'pass', null, passed_by, passed_at, reason, null, null, null from rule_pass
      union all select practice_id, visit_id, visit_version, 'decision', null, decided_by, decided_at, coalesce(reason, ''), null, null, null from kind_decision
      union all select practice_id, visit_id, visit_version, 'referral', null, opened_by, opened_at, addressed_to, null, null, null from referral
      union all select practice_id, visit_id, visit_version, 'picture', eye, recorded_by, recorded_at, title, null, null, null from picture
    ) c join person p on p.id = c.recorded_by
    where c.practice_id = ${practiceId} and c.visit_id = ${visitId} and c.visit_version > ${version}
    order by c.visit_version, c.eye desc`;
  return rows.map((row) => ({
    what: row.what,
    eye: row.eye,
    by: row.by,
    at: row.at,
    text:
      row.text ??
      (row.sphereD !== null && row.cylinderD !== null && row.axisDeg !== null
        ? formatRefraction({ sphere: row.sphereD, cylinder: row.cylinderD, axis: row.axisDeg })
        : ''),
  }));
}
