import 'server-only';
import type { AnyFact, Eye } from '../core';
import type { Db } from './client';

/** Tables of correctable clinical facts, and the columns that hold their values. */
export const FACT_TABLES = {
  refraction: [
    'sphere_d',
    'cylinder_d',
    'axis_deg',
    'vertex_mm',
    'typed_text',
    'source',
    'add_d',
    'add_source',
    'prism_text',
    'acuity_log_mar',
    'acuity_typed',
  ],
  lens_on_eye: ['lens_id', 'description', 'source', 'trial_number', 'trial_stock_id', 'lot', 'expires_on', 'put_on_at'],
  fit_check: ['lens_on_eye_id', 'verdict', 'provisional'],
  rotation_reading: ['lens_on_eye_id', 'rotation_left_deg', 'how', 'provisional', 'series_no', 'scale_reading', 'instrument_id'],
  over_refraction: [
    'lens_on_eye_id',
    'sphere_d',
    'cylinder_d',
    'axis_deg',
    'vertex_mm',
    'typed_text',
    'acuity_log_mar',
    'acuity_typed',
    'provisional',
    'cylinder_tested',
    'plus_half',
    'control',
  ],
  lens_finding: ['lens_on_eye_id', 'sign', 'number_value', 'word_value', 'typed_text', 'provisional'],
  acuity_both: ['right_lens_on_eye_id', 'left_lens_on_eye_id', 'acuity_log_mar', 'acuity_typed', 'provisional'],
  eye_acuity: ['way', 'acuity_log_mar', 'acuity_typed'],
  eye_finding: ['sign', 'number_value', 'word_value'],
  lesson_attempt: ['lesson_id', 'move', 'worked', 'unaided', 'miss'],
  lesson_topic: ['lesson_id', 'topic'],
  hand_over: [
    'wearer_id',
    'lens_id',
    'source',
    'lens_on_eye_id',
    'order_line_id',
    'lot',
    'expires_on',
    'opened_on',
    'lens_count',
    'teaching',
    'sign_off_id',
    'experience_note',
    'handed_on',
  ],
} as const;
export type FactTable = keyof typeof FACT_TABLES;

export interface FactMeta {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly eye: Eye | null;
  readonly observedAt: string;
  readonly recordedAt: string;
  readonly recordedBy: string;
}

export type FactValues = Readonly<Record<string, string | number | boolean | null>>;

/** Appends a fact. */
export async function insertFact(sql: Db, table: FactTable, meta: FactMeta, values: FactValues): Promise<void> {
  const row = { ...meta, rootId: meta.id, ...values };
  await sql`insert into ${sql(table)} ${sql(row)}`;
}

/**
 * Appends a correction of a fact: the values not named are carried over.
 * @returns false when the fact was corrected by somebody else before
 */
export async function insertCorrection(
  sql: Db,
  table: FactTable,
  meta: FactMeta,
  correction: { readonly correctsId: string; readonly reason: string; readonly voided: boolean },
  values: FactValues,
): Promise<boolean> {
  const [old] = await sql<Record<string, string | number | boolean | null>[]>`
    select root_id, eye, ${sql(FACT_TABLES[table])} from ${sql(table)}
    where practice_id = ${meta.practiceId} and id = ${correction.correctsId}`;
  if (!old) return false;
  const row = {
    ...old,
    ...values,
    id: meta.id,
    practiceId: meta.practiceId,
    visitId: meta.visitId,
    visitVersion: meta.visitVersion,
    observedAt: meta.observedAt,
    recordedAt: meta.recordedAt,
    recordedBy: meta.recordedBy,
    correctsId: correction.correctsId,
    reason: correction.reason,
    voided: correction.voided,
    ...(meta.eye === null ? {} : { eye: meta.eye }),
  };
  const made = await sql`insert into ${sql(table)} ${sql(row)} on conflict (corrects_id) do nothing returning id`;
  return made.length === 1;
}

/** Facts of one deed that have an order of their own: the blinks of a series, several findings at once. */
const inOrder = (sql: Db, table: FactTable) => (table === 'rotation_reading' || table === 'lens_finding' ? sql`, f.sequence` : sql``);

/** All rows of a fact table in a visit, oldest first. */
export async function listFacts<Row extends AnyFact>(sql: Db, table: FactTable, practiceId: string, visitIds: readonly string[]): Promise<Row[]> {
  return sql<Row[]>`
    select f.*, p.display_name as recorded_by_name from ${sql(table)} f join person p on p.id = f.recorded_by
    where f.practice_id = ${practiceId} and f.visit_id = any (${[...visitIds]})
    order by f.recorded_at, f.visit_version, f.eye desc${inOrder(sql, table)}`;
}

export async function findFact<Row extends AnyFact>(sql: Db, table: FactTable, practiceId: string, id: string): Promise<Row | null> {
  const [row] = await sql<Row[]>`
    select f.*, p.display_name as recorded_by_name from ${sql(table)} f join person p on p.id = f.recorded_by
    where f.practice_id = ${practiceId} and f.id = ${id}`;
  return row ?? null;
}

/** The value columns of one row, as `insertCorrection` takes them. */
export async function findFactValues(sql: Db, table: FactTable, practiceId: string, id: string): Promise<FactValues> {
  const [row] = await sql<FactValues[]>`
    select ${sql(FACT_TABLES[table])} from ${sql(table)} where practice_id = ${practiceId} and id = ${id}`;
  return row ? { ...row } : {};
}

export async function insertConfirmation(
  sql: Db,
  c: { practiceId: string; lensOnEyeId: string; how: 'putOnHere' | 'wearerSaid' | 'boxSeen'; at: string; by: string },
): Promise<void> {
  await sql`
    insert into lens_confirmation (lens_on_eye_id, practice_id, how, confirmed_at, confirmed_by)
    values (${c.lensOnEyeId}, ${c.practiceId}, ${c.how}, ${c.at}, ${c.by}) on conflict do nothing`;
}

export async function insertRemoval(sql: Db, r: { practiceId: string; lensOnEyeId: string; at: string; by: string }): Promise<void> {
  await sql`
    insert into lens_removal (lens_on_eye_id, practice_id, taken_off_at, taken_off_by)
    values (${r.lensOnEyeId}, ${r.practiceId}, ${r.at}, ${r.by}) on conflict do nothing`;
}

/** Withdraws a removal that was recorded by mistake. @returns false when there is none, or it is withdrawn already */
export async function withdrawRemoval(sql: Db, w: { practiceId: string; lensOnEyeId: string; at: string; by: string; reason: string }): Promise<boolean> {
  const rows = await sql`
    insert into lens_removal_withdrawn (lens_on_eye_id, practice_id, withdrawn_at, withdrawn_by, reason)
    select lens_on_eye_id, practice_id, ${w.at}, ${w.by}, ${w.reason} from lens_removal
    where practice_id = ${w.practiceId} and lens_on_eye_id = ${w.lensOnEyeId}
    on conflict do nothing returning lens_on_eye_id`;
  return rows.length === 1;
}

export interface OnEyeExtras {
  readonly lensOnEyeId: string;
  readonly how: 'putOnHere' | 'wearerSaid' | 'boxSeen' | null;
  readonly takenOffAt: string | null;
  /** A removal that was recorded by mistake, and why it was withdrawn. */
  readonly withdrawnOffAt: string | null;
  readonly withdrawnReason: string | null;
}

/** Confirmation and removal of each lens on an eye in a visit. */
export async function listOnEyeExtras(sql: Db, practiceId: string, visitIds: readonly string[]): Promise<OnEyeExtras[]> {
  return sql<OnEyeExtras[]>`
    select e.id as lens_on_eye_id, c.how, case when w.lens_on_eye_id is null then r.taken_off_at end as taken_off_at,
      case when w.lens_on_eye_id is not null then r.taken_off_at end as withdrawn_off_at, w.reason as withdrawn_reason
    from lens_on_eye e
    left join lens_confirmation c on c.lens_on_eye_id = e.id
    left join lens_removal r on r.lens_on_eye_id = e.id
    left join lens_removal_withdrawn w on w.lens_on_eye_id = e.id
    where e.practice_id = ${practiceId} and e.visit_id = any (${[...visitIds]}) and e.id = e.root_id`;
}
