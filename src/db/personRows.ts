import 'server-only';
import type { Db } from './client';

/** A foreign key as the catalogue has it. */
interface Reference {
  readonly child: string;
  readonly parent: string;
  readonly childColumns: readonly string[];
  readonly parentColumns: readonly string[];
}
/** A table: what tells its rows apart, its columns, and those that the database makes itself. */
interface Table {
  readonly name: string;
  readonly key: readonly string[];
  readonly columns: readonly string[];
  readonly made: readonly string[];
}
export interface Catalogue {
  readonly tables: ReadonlyMap<string, Table>;
  readonly references: readonly Reference[];
}
type Row = Readonly<Record<string, unknown>>;
/** Rows by table, as the database writes them, keys as columns are called. */
export type PersonRows = Readonly<Record<string, readonly Row[]>>;

/** What is of the house and of no wearer, of a moment, or secret: never part of a person's file. */
const LEFT_OUT: readonly string[] = [
  'audit_log',
  'draft',
  'session',
  'known_device',
  'device',
  'sign_in_attempt',
  'request_done',
  'wearer_link',
  'wearer_link_end',
  'trial_movement',
  'order_open',
  'family_turn',
  'supplier_secret',
  'supplier_change',
  'supplier_cursor',
  'eye_runway',
  'runway_stale',
  'catalogue_import',
  'catalogue_import_fault',
  'catalogue_import_family',
];
/** Nobody's password leaves. */
const SECRET: Readonly<Record<string, readonly string[]>> = { person: ['password_hash'] };
/** Tables that belong to a wearer although it is they that are referred to: a seller's request, by the row that says whose it is. */
const OWNED_BY_CHILD: readonly (readonly [child: string, parent: string])[] = [['request_wearer', 'request']];

/** Tables, their keys and how they refer to each other, from the database's own catalogue. */
export async function readCatalogue(sql: Db): Promise<Catalogue> {
  const tables = await sql<Table[]>`
    select k.relname::text as name,
      array(select a.attname::text from unnest(i.indkey::int2[]) with ordinality n(num, place) join pg_attribute a on a.attrelid = k.oid and a.attnum = n.num order by n.place) as key,
      array(select a.attname::text from pg_attribute a where a.attrelid = k.oid and a.attnum > 0 and not a.attisdropped order by a.attnum) as columns,
      array(select a.attname::text from pg_attribute a where a.attrelid = k.oid and a.attnum > 0 and not a.attisdropped and a.attgenerated <> '') as made
    from pg_class k join pg_namespace s on s.oid = k.relnamespace and s.nspname = current_schema() join pg_index i on i.indrelid = k.oid and i.indisprimary
    where k.relkind = 'r' order by 1`;
  const references = await sql<Reference[]>`
    select c.conrelid::regclass::text as child, c.confrelid::regclass::text as parent,
      array(select a.attname::text from unnest(c.conkey) with ordinality n(num, place) join pg_attribute a on a.attrelid = c.conrelid and a.attnum = n.num order by n.place) as child_columns,
      array(select a.attname::text from unnest(c.confkey) with ordinality n(num, place) join pg_attribute a on a.attrelid = c.confrelid and a.attnum = n.num order by n.place) as parent_columns
    from pg_constraint c join pg_namespace s on s.oid = c.connamespace and s.nspname = current_schema() where c.contype = 'f' order by c.conname`;
  return { tables: new Map(tables.filter((t) => !LEFT_OUT.includes(t.name)).map((t) => [t.name, t])), references };
}

const keyText = (table: Table, row: Row): string => JSON.stringify(table.key.map((column) => row[column]));

/** Rows found so far, by table and key. */
class Found {
  readonly rows = new Map<string, Map<string, Row>>();
  /** Adds rows; gives back those that are new. */
  add(table: Table, rows: readonly Row[]): readonly Row[] {
    const known = this.rows.get(table.name) ?? new Map<string, Row>();
    this.rows.set(table.name, known);
    return rows.filter((row) => {
      const key = keyText(table, row);
      if (known.has(key)) return false;
      known.set(key, row);
      return true;
    });
  }
}

/** Rows of a table that some columns of other rows point to, or are pointed at by. */
async function linked(sql: Db, table: Table, columns: readonly string[], from: readonly Row[], fromColumns: readonly string[]): Promise<readonly Row[]> {
  const wanted = [...new Set(from.map((row) => JSON.stringify(fromColumns.map((c) => row[c]))))]
    .map((text) => JSON.parse(text) as readonly unknown[])
    .filter((values) => values.every((v) => v !== null && v !== undefined));
  if (wanted.length === 0) return [];
  const given = wanted.map((values) => Object.fromEntries(columns.map((c, i) => [c, values[i]])));
  const hidden = [...table.made, ...(SECRET[table.name] ?? [])];
  const same = columns.map((c, i) => sql`${i === 0 ? sql`` : sql` and `}t.${sql(c)} = k.${sql(c)}`);
  const rows = await sql<{ row: string }[]>`
    select distinct (to_jsonb(t) - ${hidden}::text[])::text as row
    from jsonb_populate_recordset(null::${sql(table.name)}, ${sql.json(given as never)}) k join ${sql(table.name)} t on ${same}`;
  return rows.map((r) => JSON.parse(r.row) as Row);
}

type RowsByTable = ReadonlyMap<string, ReadonlyMap<string, Row>>;

/** The rows that belong to a wearer: from the wearer's own down through all that refers to it. Empty where there is no such wearer. */
async function ownedRows(sql: Db, { tables, references }: Catalogue, practiceId: string, wearerId: string): Promise<Found> {
  const found = new Found();
  const wearers = tables.get('wearer');
  if (!wearers) throw new Error('no table of wearers');
  const root = found.add(wearers, await linked(sql, wearers, ['practice_id', 'id'], [{ practice_id: practiceId, id: wearerId }], ['practice_id', 'id']));
  const down: (readonly [Table, readonly Row[]])[] = [[wearers, root]];
  for (let next = down.shift(); next; next = down.shift()) {
    const [table, rows] = next;
    if (rows.length === 0) continue;
    for (const ref of references) {
      const child = ref.parent === table.name ? tables.get(ref.child) : undefined;
      if (child) down.push([child, found.add(child, await linked(sql, child, ref.childColumns, rows, ref.parentColumns))]);
      const owned = ref.child === table.name && OWNED_BY_CHILD.some(([c, p]) => c === ref.child && p === ref.parent) ? tables.get(ref.parent) : undefined;
      if (owned) down.push([owned, found.add(owned, await linked(sql, owned, ref.parentColumns, rows, ref.childColumns))]);
    }
  }
  return found;
}

/** What belongs to a wearer, by table: the keys of its rows. */
export async function listOwned(
  sql: Db,
  practiceId: string,
  wearerId: string,
): Promise<readonly { readonly table: string; readonly key: readonly string[]; readonly columns: readonly string[]; readonly rows: readonly Row[] }[]> {
  const catalogue = await readCatalogue(sql);
  const { rows } = await ownedRows(sql, catalogue, practiceId, wearerId);
  return [...rows].flatMap(([name, of]) => {
    const table = catalogue.tables.get(name);
    return table && of.size > 0 ? [{ table: name, key: table.key, columns: table.columns.filter((c) => !table.made.includes(c)), rows: [...of.values()] }] : [];
  });
}

/** Adds whatever the rows refer to: lenses, people who recorded them, the practice. */
async function withReferred(sql: Db, { tables, references }: Catalogue, found: Found): Promise<RowsByTable> {
  const up: (readonly [string, readonly Row[]])[] = [...found.rows].map(([name, rows]) => [name, [...rows.values()]]);
  for (let next = up.shift(); next; next = up.shift()) {
    const [name, rows] = next;
    if (rows.length === 0) continue;
    for (const ref of references) {
      const parent = ref.child === name ? tables.get(ref.parent) : undefined;
      if (parent) up.push([parent.name, found.add(parent, await linked(sql, parent, ref.parentColumns, rows, ref.childColumns))]);
    }
  }
  return found.rows;
}

/**
 * Everything that is held on a wearer, and what it refers to, each row once.
 * @returns null where the practice has no such wearer
 */
export async function readPersonRows(sql: Db, practiceId: string, wearerId: string): Promise<PersonRows | null> {
  await sql`select set_config('TimeZone', 'UTC', true)`;
  const catalogue = await readCatalogue(sql);
  const owned = await ownedRows(sql, catalogue, practiceId, wearerId);
  if (owned.rows.get('wearer')?.size !== 1) return null;
  const entries = [...(await withReferred(sql, catalogue, owned))].flatMap(([name, rows]): [string, readonly Row[]][] => {
    const sorted = [...rows].sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)).map(([, row]) => row);
    return sorted.length === 0 ? [] : [[name, sorted]];
  });
  return Object.fromEntries(entries);
}

/** Tables in such an order that a row comes after whatever it refers to; a table may refer to itself. */
export function inOrder(catalogue: Catalogue, names: readonly string[]): readonly string[] {
  const done: string[] = [];
  const left = new Set(names);
  while (left.size > 0) {
    const ready = [...left].filter((name) => catalogue.references.every((r) => r.child !== name || r.parent === name || !left.has(r.parent))).sort();
    if (ready.length === 0) throw new Error(`tables refer to each other in a circle: ${[...left].sort().join(', ')}`);
    for (const name of ready) {
      done.push(name);
      left.delete(name);
    }
  }
  return done;
}

/** A person who is brought in has a password that nothing opens. */
const NO_PASSWORD = '!';

/** Writes rows into a database that holds none of them. The caller's role owns the tables: their triggers rest meanwhile. */
export async function insertPersonRows(sql: Db, rows: PersonRows): Promise<void> {
  const catalogue = await readCatalogue(sql);
  await sql`select set_config('TimeZone', 'UTC', true)`;
  for (const name of inOrder(catalogue, Object.keys(rows))) {
    const table = catalogue.tables.get(name);
    const of = rows[name] ?? [];
    if (!table || of.length === 0) continue;
    const secret = SECRET[name] ?? [];
    const columns = table.columns.filter((c) => !table.made.includes(c));
    const whole = secret.length === 0 ? of : of.map((row) => ({ ...row, ...Object.fromEntries(secret.map((c) => [c, NO_PASSWORD])) }));
    const listed = columns.map((c, i) => sql`${i === 0 ? sql`` : sql`, `}${sql(c)}`);
    await sql`alter table ${sql(name)} disable trigger user`;
    await sql`
      insert into ${sql(name)} (${listed}) overriding system value
      select ${listed} from jsonb_populate_recordset(null::${sql(name)}, ${sql.json(whole as never)})`;
    await sql`alter table ${sql(name)} enable trigger user`;
  }
}
