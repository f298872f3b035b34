import { cpSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrate, readMigrations } from '../../src/db/migrate';
import { createDatabase, type TestDatabase } from '../support/database';

let db: TestDatabase;
const folder = mkdtempSync(join(tmpdir(), 'keenfit-migrations-'));
beforeAll(async () => {
  db = await createDatabase();
  cpSync(join(process.cwd(), 'src/db/migrations'), folder, { recursive: true });
});
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await db.close();
});

describe('migrations', () => {
  it('run once, forward; a second run does nothing', async () => {
    expect(readMigrations().length).toBeGreaterThan(3);
    expect(await migrate(db.owner, folder)).toEqual([]);
  });
  it('two at once: one waits for the other', async () => {
    writeFileSync(join(folder, '0100_more.sql'), 'create table more (id int);');
    const both = await Promise.all([migrate(db.owner, folder), migrate(db.owner, folder)]);
    expect(both.flat()).toEqual(['0100_more.sql']);
  });
  it('a file that fails leaves nothing behind', async () => {
    writeFileSync(join(folder, '0101_bad.sql'), 'create table half (id int); select 1/0;');
    await expect(migrate(db.owner, folder)).rejects.toThrow(/division/);
    expect(await db.owner`select to_regclass('half') as there`).toMatchObject([{ there: null }]);
    rmSync(join(folder, '0101_bad.sql'));
  });
  it('refuses an edited, a missing, a late and a badly named file', async () => {
    const first = join(folder, '0001_practice_and_people.sql');
    const text = readFileSync(first, 'utf8');
    writeFileSync(first, `${text}\n-- edited`);
    await expect(migrate(db.owner, folder)).rejects.toThrow(/edited/);
    writeFileSync(first, text);
    renameSync(join(folder, '0100_more.sql'), join(folder, 'aside'));
    await expect(migrate(db.owner, folder)).rejects.toThrow(/missing/);
    renameSync(join(folder, 'aside'), join(folder, '0100_more.sql'));
    writeFileSync(join(folder, '0050_late.sql'), 'select 1;');
    await expect(migrate(db.owner, folder)).rejects.toThrow(/sorts before/);
    rmSync(join(folder, '0050_late.sql'));
    writeFileSync(join(folder, 'Bad.sql'), 'select 1;');
    await expect(migrate(db.owner, folder)).rejects.toThrow(/NNNN_words/);
    rmSync(join(folder, 'Bad.sql'));
  });
});
