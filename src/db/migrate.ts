import 'server-only';
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Sql } from './client';

const FOLDER = join(process.cwd(), 'src', 'db', 'migrations');
const LOCK = 7_260_417;

interface Migration {
  readonly name: string;
  readonly text: string;
  readonly checksum: string;
}

/** The migration files in order. */
export function readMigrations(folder = FOLDER): Migration[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.sql'))
    .sort()
    .map((name) => {
      if (!/^\d{4}_[a-z0-9_]+\.sql$/.test(name)) throw new Error(`Migration ${name}: the name must be NNNN_words.sql`);
      const text = readFileSync(join(folder, name), 'utf8');
      return { name, text, checksum: createHash('sha256').update(text).digest('hex') };
    });
}

/**
 * Brings a database up to date, forward only, each file in a transaction under one advisory lock.
 * Refuses an applied file that was edited or is missing, and a new one that sorts before an applied one.
 * @returns names applied now
 */
export async function migrate(sql: Sql, folder = FOLDER): Promise<string[]> {
  const files = readMigrations(folder);
  const connection = await sql.reserve();
  try {
    await connection`select pg_advisory_lock(${LOCK})`;
    await connection`create table if not exists schema_migration (
      name text primary key, checksum text not null, applied_at timestamptz not null default now())`;
    const applied = await connection<{ name: string; checksum: string }[]>`select name, checksum from schema_migration order by name`;
    for (const row of applied) {
      const file = files.find((f) => f.name === row.name);
      if (!file) throw new Error(`Migration ${row.name} was applied but its file is missing`);
      if (file.checksum !== row.checksum) throw new Error(`Migration ${row.name} was edited after it was applied`);
    }
    const last = applied.at(-1)?.name ?? '';
    const fresh = files.filter((f) => !applied.some((row) => row.name === f.name));
    const late = fresh.find((f) => f.name < last);
    if (late) throw new Error(`Migration ${late.name} sorts before ${last}, which is applied already`);
    for (const file of fresh) {
      await connection.unsafe(`begin;\n${file.text}\n;insert into schema_migration (name, checksum) values ('${file.name}', '${file.checksum}');\ncommit;`);
    }
    return fresh.map((f) => f.name);
  } catch (cause) {
    // A file that failed leaves its transaction open on this connection.
    await connection.unsafe('rollback').catch(() => undefined);
    throw cause;
  } finally {
    await connection`select pg_advisory_unlock(${LOCK})`.catch(() => undefined);
    connection.release();
  }
}
