import 'server-only';
import type postgres from 'postgres';
import { FACT_KINDS, type Eye, type FactKind, type FactRows } from '../core';
import { revived } from './bundle';
import type { Db } from './client';

const tableOf = (kind: FactKind): string => FACT_KINDS[kind].table;
const columnsOf = (kind: FactKind): string[] => [...FACT_KINDS[kind].columns];

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

export type FactValues = Readonly<Record<string, string | number | boolean | null | readonly string[]>>;

/** A fact to be appended. */
export interface NewFact {
  readonly kind: FactKind;
  readonly meta: FactMeta;
  readonly values: FactValues;
}

/**
 * Appends a correction of a fact: the values not named are carried over.
 * @returns false when the fact was corrected by somebody else before
 */
export async function insertCorrection(
  sql: Db,
  kind: FactKind,
  meta: FactMeta,
  correction: { readonly correctsId: string; readonly reason: string; readonly voided: boolean },
  values: FactValues,
): Promise<boolean> {
  const [old] = await sql<Record<string, string | number | boolean | null>[]>`
    select root_id, eye, ${sql(columnsOf(kind))} from ${sql(tableOf(kind))}
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
  const made = await sql`insert into ${sql(tableOf(kind))} ${sql(row)} on conflict (corrects_id) do nothing returning id`;
  return made.length === 1;
}

/** Rows of several kinds of fact, oldest first within their kind. */
export type FactsByKind<K extends FactKind> = { readonly [Kind in K]: readonly FactRows[Kind][] };
/** A row of any kind, before it is known which. */
interface AnyRow {
  readonly kind: FactKind;
  readonly fact: object;
  readonly by: string;
}
/** Which rows of a kind are asked for. */
type Where = (sql: Db, kind: FactKind) => postgres.PendingQuery<postgres.Row[]>;

/** Rows of several kinds, in one statement, not yet sent: `factsByKind` reads what comes. */
export function factRows(sql: Db, kinds: readonly FactKind[], practiceId: string, where: Where) {
  const parts = kinds.map(
    (kind, index) => sql`${index === 0 ? sql`` : sql`union all `}
      select ${kind}::text as kind, to_jsonb(f) as fact, f.recorded_by, f.recorded_at, f.visit_version, f.eye::text as eye,
        ${FACT_KINDS[kind].sequenced ? sql`f.sequence` : sql`null::bigint as sequence`}
      from ${sql(tableOf(kind))} f where f.practice_id = ${practiceId} and ${where(sql, kind)} `,
  );
  return sql<AnyRow[]>`
    select a.kind, a.fact, p.display_name as by from (${parts}) a join person p on p.id = a.recorded_by
    order by a.recorded_at, a.visit_version, a.eye desc, a.sequence, a.fact->>'id'`;
}

/** Every row of a visit. */
export const ofVisit =
  (visitId: string): Where =>
  (sql) =>
    sql`f.visit_id = ${visitId}`;

export function factsByKind<K extends FactKind>(kinds: readonly K[], rows: readonly AnyRow[]): FactsByKind<K> {
  const of = (kind: K): object[] => rows.flatMap((r) => (r.kind === kind ? [{ ...revived(r.fact), recordedByName: r.by }] : []));
  return Object.fromEntries(kinds.map((kind) => [kind, of(kind)])) as unknown as FactsByKind<K>;
}

export async function findFact<K extends FactKind>(sql: Db, kind: K, practiceId: string, id: string): Promise<FactRows[K] | null> {
  const rows = await factRows(sql, [kind], practiceId, () => sql`f.id = ${id}`);
  return factsByKind([kind], rows)[kind][0] ?? null;
}

/** The value columns of one row, as `insertCorrection` takes them. */
export async function findFactValues(sql: Db, kind: FactKind, practiceId: string, id: string): Promise<FactValues> {
  const [row] = await sql<FactValues[]>`
    select ${sql(columnsOf(kind))} from ${sql(tableOf(kind))} where practice_id = ${practiceId} and id = ${id}`;
  return row ? { ...row } : {};
}
