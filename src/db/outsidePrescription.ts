import 'server-only';
import type { ExchangedDocument, LeftAside } from '../core';
import type { Db } from './client';

/** A prescription of another system, as its file was understood. */
export interface OutsidePrescription {
  readonly id: string;
  readonly fileName: string;
  readonly format: 'fhir' | 'csv';
  readonly document: ExchangedDocument;
  readonly leftAside: readonly LeftAside[];
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/** The newest that were read for a wearer. */
export const listOutsidePrescriptions = (sql: Db, practiceId: string, wearerId: string, most: number) => sql<OutsidePrescription[]>`
  select o.id, o.file_name, o.format, o.document, o.left_aside, o.recorded_at, p.display_name as recorded_by_name
  from outside_prescription o join person p on p.id = o.recorded_by
  where o.practice_id = ${practiceId} and o.wearer_id = ${wearerId} order by o.recorded_at desc limit ${most}`;

export async function insertOutsidePrescription(
  sql: Db,
  o: Omit<OutsidePrescription, 'recordedByName'> & {
    readonly practiceId: string;
    readonly wearerId: string;
    readonly despiteReason: string | null;
    readonly recordedBy: string;
  },
): Promise<void> {
  const json = (value: object) => sql.json(JSON.parse(JSON.stringify(value)) as Parameters<typeof sql.json>[0]);
  await sql`insert into outside_prescription ${sql({ ...o, document: json(o.document), leftAside: json(o.leftAside) })}`;
}
