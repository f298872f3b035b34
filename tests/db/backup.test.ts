import { copyFileSync, mkdtempSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../../src/db/client';
import { makeBackup, restoreBackup } from '../../scripts/lib/backup';
import { openBackup } from '../../scripts/lib/backupFile';
import { startThrowAwayCluster, type Cluster } from '../../scripts/lib/cluster';
import { ensureDatabase } from '../../scripts/lib/prepareDatabase';
import { createDatabase, type TestDatabase } from '../support/database';
import { TEST_NOW } from '../support/moment';

const folder = mkdtempSync(join(tmpdir(), 'keenfit-backup-'));
const file = join(folder, 'all.backup');
let source: TestDatabase;
let elsewhere: Cluster;
beforeAll(async () => {
  source = await createDatabase();
  await makeBackup(source.ownerUrl, file, TEST_NOW);
  elsewhere = await startThrowAwayCluster();
}, 60_000);
afterAll(async () => {
  await source.close();
  await elsewhere.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** What every table holds, in one word each. */
async function contents(url: string): Promise<Record<string, string>> {
  const sql = connect(url, { max: 1 });
  const tables = await sql<
    { name: string }[]
  >`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`;
  const found: Record<string, string> = {};
  for (const { name } of tables) {
    const [row] = await sql.unsafe<{ sum: string | null }[]>(`select md5(string_agg(x::text, '|' order by x::text)) as sum from "${name}" x`);
    found[name] = row?.sum ?? '';
  }
  await sql.end();
  return found;
}
const fresh = async (name: string): Promise<string> => {
  await ensureDatabase(elsewhere.url, name);
  return elsewhere.url(name);
};

describe('a backup on another machine', () => {
  it('restores everything on a server where nothing was, and the application can sign in to it', { timeout: 60_000 }, async () => {
    const url = await fresh('empty');
    const { appUrl, applied } = await restoreBackup(url, file);
    expect(applied).toBe(0);
    const before = await contents(source.ownerUrl);
    expect(Object.keys(before).length).toBeGreaterThan(40);
    expect(await contents(url)).toEqual(before);
    const app = connect(appUrl, { max: 1 });
    expect((await app<{ n: number }[]>`select count(*)::int as n from wearer`)[0]?.n).toBeGreaterThan(5);
    await expect(app`update prescription set number = 1`).rejects.toThrow(/permission denied/);
    await app.end();
  });
  it('an older backup takes the place of a newer database, with whatever that had more', { timeout: 60_000 }, async () => {
    const url = await fresh('newer');
    await restoreBackup(url, file);
    const owner = connect(url, { max: 1 });
    await owner.unsafe('create table later_noun (id uuid primary key, practice_id uuid references practice (id)); alter table wearer add column later text');
    await owner.unsafe('insert into later_noun select gen_random_uuid(), id from practice');
    await owner.end();
    await restoreBackup(url, file);
    expect(await contents(url)).toEqual(await contents(source.ownerUrl));
  });
});

describe('refused before anything is replaced', () => {
  const refused = async (broken: string, words: RegExp): Promise<void> => {
    const url = await fresh('kept');
    const owner = connect(url, { max: 1 });
    await owner.unsafe('create table if not exists mine (id int)');
    await owner.end();
    await expect(restoreBackup(url, broken)).rejects.toThrow(words);
    expect(Object.keys(await contents(url))).toEqual(['mine']);
  };
  const copy = (name: string): string => {
    const to = join(folder, name);
    copyFileSync(file, to);
    return to;
  };
  it('a file that was cut off', async () => {
    const cut = copy('cut');
    truncateSync(cut, statSync(file).size - 100);
    await refused(cut, /damaged: it has \d+ bytes of \d+/);
  });
  it('a file of which one byte differs', async () => {
    const changed = copy('changed');
    const bytes = readFileSync(changed);
    bytes[bytes.length - 50] = (bytes[bytes.length - 50] ?? 0) ^ 1;
    writeFileSync(changed, bytes);
    await refused(changed, /SHA-256/);
  });
  it('a file that is none', async () => {
    const none = join(folder, 'none');
    writeFileSync(none, 'hello\n');
    await refused(none, /is no backup/);
    await refused(join(folder, 'absent'), /there is no file/);
  });
  it('a file of a newer program', async () => {
    const { start, header } = await openBackup(file);
    const newer = join(folder, 'newer-file');
    writeFileSync(newer, Buffer.concat([Buffer.from(`${JSON.stringify({ ...header, schema: '9999_later.sql' })}\n`), readFileSync(file).subarray(start)]));
    await refused(newer, /made by a newer Keen Fit \(its database has 9999_later\.sql\)/);
  });
  it('while somebody is connected', async () => {
    const url = await fresh('kept');
    const busy = connect(url, { max: 1 });
    await busy`select 1`;
    await expect(restoreBackup(url, file)).rejects.toThrow(/1 others are connected/);
    await busy.end();
    expect(Object.keys(await contents(url))).toEqual(['mine']);
  });
  it('a dump that breaks half-way changes nothing', async () => {
    const { start, header } = await openBackup(file);
    const dump = readFileSync(file).subarray(start);
    const { createHash } = await import('node:crypto');
    const half = dump.subarray(0, Math.floor(dump.length * 0.7));
    const broken = join(folder, 'half');
    const said = { ...header, bytes: half.length, sha256: createHash('sha256').update(half).digest('hex') };
    writeFileSync(broken, Buffer.concat([Buffer.from(`${JSON.stringify(said)}\n`), half]));
    await refused(broken, /failed/);
  });
});
