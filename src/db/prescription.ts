import 'server-only';
import type { CopyGiven, PracticeSettings, PrescriptionEyeRow, Prescriber, PrescriptionRow, Prescription } from '../core';
import { bundle } from './bundle';
import type { Db } from './client';
import { countingOrders, type Newest } from './newest';

/** Prescriptions of a wearer, newest first, and those that orders in hand were under: numbers are given in the order of signing. */
const rowsOf = (sql: Db, practiceId: string, wearerId: string, newest: Newest | null) => sql<PrescriptionRow[]>`
  select id, number, visit_id, wearer_id, examined_on, issued_at, issued_on, expires_on, prescriber, wait_note, days_per_week,
    supersedes_id, overrides, purpose, expiry_reason
  from prescription where practice_id = ${practiceId} and wearer_id = ${wearerId}
    ${
      newest === null
        ? sql``
        : sql`and (visit_id = ${newest.visitId}::uuid or id in (select n.id from prescription n
      where n.practice_id = ${practiceId} and n.wearer_id = ${wearerId} order by n.number desc limit ${newest.most})
      or id in (select k.prescription_id from lens_order k where k.id in (${countingOrders(sql, practiceId, wearerId, newest)})))`
    }
  order by number desc`;

/** Prescriptions and their eyes as parts of a bundle; `asPrescriptions` puts them together. */
export const prescriptionParts = (sql: Db, practiceId: string, wearerId: string, newest: Newest | null) => ({
  prescriptions: rowsOf(sql, practiceId, wearerId, newest),
  prescriptionCopies: sql<(CopyGiven & { readonly prescriptionId: string })[]>`
    select distinct on (c.prescription_id) c.prescription_id, c.how, c.given_at, p.display_name as given_by_name
    from prescription_copy c join person p on p.id = c.given_by
    where c.practice_id = ${practiceId} and c.prescription_id in (select x.id from (${rowsOf(sql, practiceId, wearerId, newest)}) x)
    order by c.prescription_id, c.sequence desc`,
  prescriptionEyes: sql<(PrescriptionEyeRow & { readonly prescriptionId: string })[]>`
    select prescription_id, eye, mode, lens_id, raw, tried_lens_on_eye_id, base_curve_tried_mm, base_curve_ordered_mm, aim, working
    from prescription_eye where practice_id = ${practiceId} and prescription_id in (select x.id from (${rowsOf(sql, practiceId, wearerId, newest)}) x)`,
});
export const asPrescriptions = (parts: {
  readonly prescriptionCopies: readonly (CopyGiven & { readonly prescriptionId: string })[];
  readonly prescriptions: readonly PrescriptionRow[];
  readonly prescriptionEyes: readonly (PrescriptionEyeRow & { readonly prescriptionId: string })[];
}): Prescription[] =>
  parts.prescriptions.map((row) => ({
    ...row,
    eyes: parts.prescriptionEyes.filter((e) => e.prescriptionId === row.id),
    copy: parts.prescriptionCopies.find((c) => c.prescriptionId === row.id) ?? null,
  }));

/** How many prescriptions a wearer has. */
export const countPrescriptions = (sql: Db, practiceId: string, wearerId: string) => sql<{ readonly count: number }[]>`
  select count(*) as count from prescription where practice_id = ${practiceId} and wearer_id = ${wearerId}`;

/** All prescriptions of a wearer, newest first. */
export const listPrescriptions = async (sql: Db, practiceId: string, wearerId: string): Promise<Prescription[]> =>
  asPrescriptions(await bundle(sql, prescriptionParts(sql, practiceId, wearerId, null)));

/** One prescription with who signed it; null when the practice has no such one. */
export async function findPrescription(sql: Db, practiceId: string, id: string): Promise<(Prescription & { readonly signedBy: string }) | null> {
  const [row] = await sql<{ wearerId: string; signedBy: string }[]>`
    select wearer_id, signed_by from prescription where practice_id = ${practiceId} and id = ${id}`;
  if (!row) return null;
  const found = (await listPrescriptions(sql, practiceId, row.wearerId)).find((p) => p.id === id);
  return found ? { ...found, signedBy: row.signedBy } : null;
}

export async function insertPrescription(
  sql: Db,
  p: Omit<PrescriptionRow, 'prescriber'> & {
    prescriber: Prescriber;
    practiceId: string;
    visitVersion: number;
    signedBy: string;
    settings: PracticeSettings;
    ruleVersion: string;
  },
  eyes: readonly PrescriptionEyeRow[],
): Promise<boolean> {
  const row = {
    ...p,
    prescriber: sql.json({ ...p.prescriber }),
    settings: sql.json({ ...p.settings }),
    overrides: sql.json(p.overrides.map((o) => ({ ...o }))),
  };
  const made = await sql`insert into prescription ${sql(row)} on conflict do nothing returning id`;
  if (made.length === 0) return false;
  for (const eye of eyes) {
    await sql`insert into prescription_eye ${sql({
      ...eye,
      prescriptionId: p.id,
      practiceId: p.practiceId,
      raw: eye.raw === null ? null : sql.json({ ...eye.raw, worn: { ...eye.raw.worn }, overRefraction: { ...eye.raw.overRefraction } }),
      aim: eye.aim === null ? null : sql.json({ ...eye.aim }),
      working: sql.json({ ...eye.working }),
    })}`;
  }
  return true;
}

/** A copy was given, or refused. */
export async function insertPrescriptionCopy(
  sql: Db,
  c: {
    readonly id: string;
    readonly practiceId: string;
    readonly prescriptionId: string;
    readonly how: CopyGiven['how'];
    readonly givenAt: string;
    readonly givenBy: string;
  },
): Promise<void> {
  await sql`insert into prescription_copy ${sql({ ...c })}`;
}
