import type { Db, Sql } from '../../src/db/client';

/** Says in the database itself that the demo's data are being made, until they are whole: a start that was cut off is seen by the next one. */
export const beginHalfMade = (sql: Sql) => sql`create table demo_half_made ()`;
export const endHalfMade = (sql: Sql) => sql`drop table demo_half_made`;

/** Were the demo's data cut off while they were made? */
export async function isHalfMade(sql: Db): Promise<boolean> {
  const [row] = await sql<{ there: boolean }[]>`select to_regclass('demo_half_made') is not null as there`;
  return row?.there ?? false;
}
