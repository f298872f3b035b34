import 'server-only';
import { FACT_KINDS, type ConfirmedHow } from '../core';
import type { Db } from './client';
import type { NewFact } from './fact';

/** What hangs on a lens on an eye, once. */
export type Hung =
  | {
      readonly table: 'lens_confirmation';
      readonly row: {
        readonly lensOnEyeId: string;
        readonly practiceId: string;
        readonly how: ConfirmedHow;
        readonly confirmedAt: string;
        readonly confirmedBy: string;
      };
    }
  | {
      readonly table: 'lens_removal';
      readonly row: { readonly lensOnEyeId: string; readonly practiceId: string; readonly takenOffAt: string; readonly takenOffBy: string };
    };

/** A draft that is let go: what was typed is recorded. */
export interface DraftDone {
  readonly practiceId: string;
  readonly visitId: string;
  readonly step: string;
  readonly authorId: string;
}

/** What a command writes down, sent together: one way to the database instead of many. */
export interface Pending {
  readonly facts: readonly NewFact[];
  readonly hung?: readonly Hung[];
  readonly drafts?: readonly DraftDone[];
}

/** Appends facts in the order in which they are given within their kind, what hangs on them, and lets go of drafts: in one statement. */
export async function sendPending(sql: Db, { facts, hung = [], drafts = [] }: Pending): Promise<void> {
  const kinds = [...new Set(facts.map((f) => f.kind))];
  const ofKinds = kinds.map((kind) => {
    const of = facts.filter((f) => f.kind === kind);
    const names = [...new Set(of.flatMap((f) => Object.keys(f.values)))];
    const rows = of.map(({ meta, values }) => ({ ...meta, rootId: meta.id, ...Object.fromEntries(names.map((n) => [n, values[n] ?? null])) }));
    return sql`insert into ${sql(FACT_KINDS[kind].table)} ${sql(rows)} returning 1`;
  });
  const tables = [...new Set(hung.map((h) => h.table))];
  const ofTables = tables.map((table) => {
    const rows = hung.flatMap((h) => (h.table === table ? [h.row] : []));
    return sql`insert into ${sql(table)} ${sql(rows)} on conflict do nothing returning 1`;
  });
  const ofDrafts = drafts.map(
    (d) => sql`
      delete from draft where practice_id = ${d.practiceId} and visit_id = ${d.visitId} and step = ${d.step} and author_id = ${d.authorId} returning 1`,
  );
  const parts = [...ofKinds, ...ofTables, ...ofDrafts];
  if (parts.length === 0) return;
  const written = parts.map((part, index) => sql`${index === 0 ? sql`` : sql`, `}${sql(`part_${index}`)} as (${part})`);
  await sql`with ${written} select 1`;
}
