import 'server-only';
import type { Kind, PracticeSettings, Recommendation, DecisionRow, VisitRow } from '../core';
import type { Db } from './client';
import type { Meta } from './recordMeta';
import { earlierVisits } from './visit';

/** Decisions of a visit about the kind of lens, oldest first: the last holds. */
export function listDecisions(sql: Db, practiceId: string, visitId: string) {
  return sql<DecisionRow[]>`
    select d.id, d.visit_id, d.recommended, d.chosen, d.as_recommended, d.reason, d.rule_version, d.decided_at, p.display_name as decided_by_name
    from kind_decision d join person p on p.id = d.decided_by
    where d.practice_id = ${practiceId} and d.visit_id = ${visitId} order by d.sequence`;
}

/** How lenses were decided to be worn last, at the visits before one. */
export const wearBefore = (sql: Db, visit: VisitRow) => sql<{ readonly wear: Kind['wear'] }[]>`
  select d.chosen->>'wear' as wear from kind_decision d
  where d.practice_id = ${visit.practiceId} and d.visit_id in (${earlierVisits(sql, visit)}) order by d.decided_at desc, d.sequence desc limit 1`;

export async function insertDecision(
  sql: Db,
  m: Meta,
  d: {
    readonly recommendation: Recommendation;
    readonly chosen: Kind;
    readonly asRecommended: boolean;
    readonly reason: string | null;
    readonly inputs: unknown;
    readonly settings: PracticeSettings;
    readonly ruleVersion: string;
  },
): Promise<void> {
  const inputs = { facts: d.inputs, recommendation: d.recommendation };
  await sql`
    insert into kind_decision (id, practice_id, visit_id, visit_version, recommended, chosen, as_recommended, reason, inputs, settings, rule_version, decided_at, decided_by)
    values (${m.id}, ${m.practiceId}, ${m.visitId}, ${m.visitVersion},
      ${d.recommendation.recommended ? sql.json({ ...d.recommendation.recommended.kind }) : null}, ${sql.json({ ...d.chosen })}, ${d.asRecommended}, ${d.reason},
      ${sql.json(inputs as never)}, ${sql.json({ ...d.settings })}, ${d.ruleVersion}, ${m.at}, ${m.by})`;
}
