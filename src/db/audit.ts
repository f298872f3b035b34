import 'server-only';
import type { Db } from './client';

export interface AuditEntry {
  id: string;
  practiceId: string;
  at: string;
  personId: string | null;
  linkId?: string | null;
  action: string;
  subjectKind?: string | null;
  subjectId?: string | null;
  detail?: Record<string, string | number | boolean | null>;
}

/** One line of the audit, not yet sent. */
export const auditInsert = (sql: Db, entry: AuditEntry) => sql`
  insert into audit_log (id, practice_id, at, person_id, link_id, action, subject_kind, subject_id, detail)
    values (${entry.id}, ${entry.practiceId}, ${entry.at}, ${entry.personId}, ${entry.linkId ?? null}, ${entry.action},
      ${entry.subjectKind ?? null}, ${entry.subjectId ?? null}, ${sql.json(entry.detail ?? {})})`;

export async function insertAudit(sql: Db, entry: AuditEntry): Promise<void> {
  await auditInsert(sql, entry);
}
