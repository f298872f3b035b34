import 'server-only';
import { FACT_KINDS, FACT_KIND_NAMES, formatRefraction, type AnyFact, type FactKind, type FactRows } from '../core';
import type { ChangedFact } from '../lib/outcome';
import { factRows, factsByKind } from './fact';
import { listLenses } from './lens';
import type { Db } from './client';

/** What of a visit is no correctable fact, and what it says. */
const others = (sql: Db, practiceId: string, visitId: string, version: number) => sql<(ChangedFact & { readonly visitVersion: number })[]>`
  select c.what, c.eye, p.display_name as by, c.at, c.text, c.visit_version from (
    select practice_id, visit_id, visit_version, 'choice' as what, null::text as eye, chosen_by as by, chosen_at as at, why as text from lens_choice
    union all select practice_id, visit_id, visit_version, 'prescription', null, signed_by, issued_at, number::text from prescription
    union all select practice_id, visit_id, visit_version, 'order', null, placed_by, placed_at, number::text from lens_order
    union all select practice_id, visit_id, visit_version, 'history', null, recorded_by, recorded_at, question from history_answer
    union all select practice_id, visit_id, visit_version, 'stop', null, opened_by, opened_at, rule from safety_stop
    union all select practice_id, visit_id, visit_version, 'override', null, overridden_by, overridden_at, reason from stop_override
    union all select practice_id, visit_id, visit_version, 'decision', null, decided_by, decided_at, coalesce(reason, '') from kind_decision
    union all select practice_id, visit_id, visit_version, 'referral', null, opened_by, opened_at, addressed_to from referral
    union all select practice_id, visit_id, visit_version, 'picture', eye, recorded_by, recorded_at, title from picture
  ) c join person p on p.id = c.by
  where c.practice_id = ${practiceId} and c.visit_id = ${visitId} and c.visit_version > ${version}`;

/** What was recorded in a visit after a version, oldest first: shown to whoever comes second. */
export async function listChangedSince(sql: Db, practiceId: string, visitId: string, version: number): Promise<ChangedFact[]> {
  const rows = await factRows(sql, FACT_KIND_NAMES, practiceId, () => sql`f.visit_id = ${visitId} and f.visit_version > ${version}`);
  const facts = factsByKind(FACT_KIND_NAMES, rows);
  const powers = new Map(
    (
      await listLenses(
        sql,
        practiceId,
        facts.lensOnEye.flatMap((f) => f.lensId ?? []),
      )
    ).map((l) => [l.id, l]),
  );
  const told = <K extends FactKind>(kind: K, row: FactRows[K]): string => {
    const lens = kind === 'lensOnEye' && 'lensId' in row && row.lensId ? powers.get(row.lensId) : undefined;
    const said = FACT_KINDS[kind].told(row);
    return said === '' && lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : said;
  };
  const changed = FACT_KIND_NAMES.flatMap((kind) =>
    (facts[kind] as unknown as readonly (AnyFact & { readonly visitVersion: number })[]).map((row) => ({
      what: kind,
      eye: row.eye,
      by: row.recordedByName,
      at: row.recordedAt,
      text: told(kind, row as never),
      visitVersion: row.visitVersion,
    })),
  );
  const all = [...changed, ...(await others(sql, practiceId, visitId, version))];
  const place = (c: (typeof all)[number]): string => `${String(c.visitVersion).padStart(9, '0')}${c.eye === 'right' ? 0 : c.eye === 'left' ? 1 : 2}`;
  return all.sort((a, b) => place(a).localeCompare(place(b))).map(({ visitVersion: _version, ...rest }) => rest);
}
