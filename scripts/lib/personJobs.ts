import { addYears, dayIn } from '../../src/core';
import { connect, type Sql } from '../../src/db/client';
import { eraseIdentity, erasureRow, whatHoldsErasure, type Erasure } from '../../src/db/erasure';
import { insertPersonRows, readPersonRows } from '../../src/db/personRows';
import { findOnlyPractice, findPractice } from '../../src/db/practice';
import { insertAudit } from '../../src/db/audit';
import { readPersonFile, writePersonFile, type PersonFile } from '../../src/formats/personFile';

/** A record by its number; only where the database holds one practice is it clear whose number it is. */
async function wearerOf(sql: Sql, recordNumber: number) {
  const practice = await findOnlyPractice(sql);
  if (!practice) throw new Error('this database holds no practice, or several');
  const [wearer] = await sql<{ id: string; mergedInto: string | null; name: string; telephone: string | null; guardian: string | null; birthDate: string }[]>`
    select w.id, w.merged_into, i.name, i.telephone, i.guardian, i.birth_date from wearer w join wearer_identity i on i.wearer_id = w.id
    where w.practice_id = ${practice.id} and w.record_number = ${recordNumber}`;
  if (!wearer) throw new Error(`no wearer has the number ${recordNumber}`);
  if (wearer.mergedInto !== null) throw new Error(`record ${recordNumber} is part of another record: name that one`);
  return { practice, wearer };
}

/** All that is held on a person, as a document. */
export async function exportRecord(sql: Sql, recordNumber: number): Promise<string> {
  const { practice, wearer } = await wearerOf(sql, recordNumber);
  const tables = await sql.begin(async (tx) => {
    await tx`set transaction isolation level repeatable read read only`;
    return readPersonRows(tx, practice.id, wearer.id);
  });
  if (!tables) throw new Error('the record went meanwhile');
  return writePersonFile({ format: 'keen-fit-person', version: 1, wearer: wearer.id, tables } as PersonFile);
}

/** Brings a person's document into a database in which no practice is: all of it, or nothing. */
export async function importRecord(ownerUrl: string, text: string): Promise<{ readonly wearerId: string; readonly practiceId: string }> {
  const file = readPersonFile(text);
  if (!file) throw new Error('this is no person’s document of Keen Fit, or not of version 1');
  const sql = connect(ownerUrl, { max: 1 });
  try {
    return await sql.begin(async (tx) => {
      const [held] = await tx`select 1 from practice limit 1`;
      if (held) throw new Error('this database holds a practice: a person’s document is brought into an empty one');
      await insertPersonRows(tx, file.tables);
      const [row] = await tx<{ practiceId: string }[]>`select practice_id from wearer where id = ${file.wearer}`;
      if (!row) throw new Error('the document does not hold the wearer that it names');
      return { wearerId: file.wearer, practiceId: row.practiceId };
    });
  } finally {
    await sql.end();
  }
}

const HELD = {
  visitOpen: 'a visit is open: close it first',
  orderOnItsWay: 'an order is on its way: receive it first',
  stopOpen: 'an absolute stop is open: a prescriber ends it first',
} as const;

/**
 * Erases who a wearer is, and deletes pictures; facts stay under a pseudonym until the practice's time of keeping is over.
 * @param of whose, why, and who says so
 */
export async function eraseRecord(
  sql: Sql,
  of: { readonly recordNumber: number; readonly reason: string; readonly by: string; readonly now: string },
): Promise<Erasure> {
  const { practice, wearer } = await wearerOf(sql, of.recordNumber);
  if (of.reason.trim().length < 3) throw new Error('say why, in a sentence');
  if (of.by.trim() === '') throw new Error('say who you are');
  return sql.begin(async (tx) => {
    await tx`select 1 from wearer where id = ${wearer.id} for update`;
    if ((await erasureRow(tx, practice.id, wearer.id)).length > 0) throw new Error(`record ${of.recordNumber} was erased before`);
    const held = await whatHoldsErasure(tx, practice.id, wearer.id);
    if (held) throw new Error(HELD[held]);
    const [last] = await tx<{ at: string | null }[]>`select max(opened_at) as at from visit where practice_id = ${practice.id} and wearer_id = ${wearer.id}`;
    const settings = (await findPractice(tx, practice.id))?.settings;
    const keptUntil = addYears(dayIn(last?.at ?? of.now, practice.timeZone), settings?.retentionYears ?? 10);
    const id = crypto.randomUUID();
    const erasure = { pseudonym: `Pseudonym ${id.slice(0, 8).toUpperCase()}`, erasedAt: of.now, keptUntil };
    await eraseIdentity(tx, practice.id, wearer, { ...erasure, id, reason: of.reason.trim(), erasedBy: of.by.trim() });
    await insertAudit(tx, {
      id: crypto.randomUUID(),
      practiceId: practice.id,
      at: of.now,
      personId: null,
      action: 'eraseIdentity',
      subjectKind: 'wearer',
      subjectId: wearer.id,
    });
    return erasure;
  });
}
