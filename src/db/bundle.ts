import 'server-only';
import type postgres from 'postgres';
import type { Db } from './client';

const toCamel = (name: string): string => name.replace(/_([a-z])/g, (_all, letter: string) => letter.toUpperCase());

/** A row that came as JSON, as if it had come as columns: names in camel case, instants as ISO 8601 of UTC. Nothing inside jsonb is touched. */
export function revived<Row extends object>(json: object): Row {
  return Object.fromEntries(
    Object.entries(json).map(([key, value]: [string, unknown]) => {
      const name = toCamel(key);
      return [name, typeof value === 'string' && /(^at|At)$/.test(name) ? new Date(value).toISOString() : value];
    }),
  ) as Row;
}

/** Lists by name. */
type Lists = Record<string, object[]>;

/**
 * Asks several lists in one statement: one way to the database instead of many. Columns that hold instants end in `_at`.
 * @param parts queries not yet sent, by name
 */
export async function bundle<Parts extends Lists>(sql: Db, parts: { readonly [Name in keyof Parts]: postgres.PendingQuery<Parts[Name]> }): Promise<Parts> {
  const names = Object.keys(parts);
  const columns = names.map(
    (name, index) =>
      sql`${index === 0 ? sql`` : sql`, `}(select coalesce(jsonb_agg(to_jsonb(x)), '[]') from (${parts[name] as unknown as postgres.PendingQuery<postgres.Row[]>}) x) as ${sql(name)}`,
  );
  const [row] = await sql<Lists[]>`select ${columns}`;
  return Object.fromEntries(names.map((name) => [name, (row?.[name] ?? []).map((json) => revived(json))])) as Parts;
}
