import 'server-only';
import type { Eye, Override, PracticeSettings, Purpose, RawOrder } from '../core';
import type { Db } from './client';

export interface PrescriptionEyeRow {
  readonly eye: Eye;
  /** `final`: a lens is named; `raw`: what a laboratory works from, and no lens. */
  readonly mode: 'final' | 'raw';
  readonly lensId: string | null;
  readonly raw: RawOrder | null;
  readonly triedLensOnEyeId: string | null;
  readonly baseCurveTriedMm: number | null;
  readonly baseCurveOrderedMm: number;
  readonly working: Readonly<Record<string, string>>;
}

export interface Prescriber {
  readonly name: string;
  readonly title: string;
  readonly registerNumber: string;
  readonly practice: string;
  readonly address: string;
  readonly telephone: string;
}

export interface PrescriptionRow {
  readonly id: string;
  readonly number: number;
  readonly visitId: string;
  readonly wearerId: string;
  readonly examinedOn: string;
  readonly issuedAt: string;
  readonly issuedOn: string;
  readonly expiresOn: string;
  readonly prescriber: Prescriber;
  readonly waitNote: string | null;
  readonly daysPerWeek: number;
  readonly supersedesId: string | null;
  /** What the prescriber overrode, and why. */
  readonly overrides: readonly Override[];
  readonly purpose: Purpose;
}

export interface PrescriptionWithEyes extends PrescriptionRow {
  readonly eyes: readonly PrescriptionEyeRow[];
}

/** All prescriptions of a wearer, newest first: numbers are given in the order of signing. */
export async function listPrescriptions(sql: Db, practiceId: string, wearerId: string): Promise<PrescriptionWithEyes[]> {
  const rows = await sql<PrescriptionRow[]>`
    select id, number, visit_id, wearer_id, examined_on, issued_at, issued_on, expires_on, prescriber, wait_note, days_per_week,
      supersedes_id, overrides, purpose
    from prescription where practice_id = ${practiceId} and wearer_id = ${wearerId} order by number desc`;
  const eyes = await sql<(PrescriptionEyeRow & { prescriptionId: string })[]>`
    select prescription_id, eye, mode, lens_id, raw, tried_lens_on_eye_id, base_curve_tried_mm, base_curve_ordered_mm, working
    from prescription_eye where practice_id = ${practiceId} and prescription_id = any (${rows.map((r) => r.id)})`;
  return rows.map((row) => ({ ...row, eyes: eyes.filter((e) => e.prescriptionId === row.id) }));
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
      working: sql.json({ ...eye.working }),
    })}`;
  }
  return true;
}
