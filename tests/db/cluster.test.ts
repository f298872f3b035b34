import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { connect } from '../../src/db/client';
import { startCluster } from '../../scripts/lib/cluster';
import { bringToToday } from '../../demo/lives/bringToToday';
import { ensureDatabase, prepareDatabase } from '../../scripts/lib/prepareDatabase';
import { TEST_NOW } from '../support/moment';

const parent = mkdtempSync(join(tmpdir(), 'keenfit-test-'));
const folder = join(parent, 'pg');
afterAll(() => rmSync(parent, { recursive: true, force: true }));
const quick = { settings: { fsync: 'off' } };

describe('the private database server', () => {
  it('keeps its data over a stop and a start, loads the demo once, and brings the diary to today', async () => {
    const first = await startCluster(folder, quick);
    await ensureDatabase(first.url, 'keenfit');
    expect(await prepareDatabase(first.url('keenfit'), { demoAt: TEST_NOW })).toMatchObject({ loaded: true });
    await first.stop();
    const second = await startCluster(folder, quick);
    const again = await prepareDatabase(second.url('keenfit'), { demoAt: TEST_NOW });
    expect(again).toMatchObject({ loaded: false, applied: 0 });
    const owner = connect(second.url('keenfit'), { max: 1 });
    expect(await bringToToday(owner, '2026-12-01T15:00:00.000Z')).toBe(7);
    const [diary] = await owner<
      { day: string; n: number }[]
    >`select min((starts_at at time zone 'America/New_York')::date) as day, count(*)::int as n from appointment`;
    expect(diary).toEqual({ day: '2026-12-01', n: 7 });
    await owner.end();
    const app = connect(again.appUrl, { max: 1 });
    await expect(app`create table x (id int)`).rejects.toThrow(/permission denied/);
    await expect(app`select * from schema_migration`).rejects.toThrow(/permission denied/);
    await app.end();
    await second.stop();
  });
  it('listens on this machine only and asks for its password', async () => {
    const cluster = await startCluster(folder, quick);
    const wrong = new URL(cluster.url('keenfit'));
    wrong.password = 'guess';
    const guess = connect(wrong.toString(), { max: 1 });
    await expect(guess`select 1`).rejects.toThrow(/password authentication failed/);
    await guess.end();
    const owner = connect(cluster.url('keenfit'), { max: 1 });
    const [listens] = await owner<{ listenAddresses: string }[]>`select setting as listen_addresses from pg_settings where name = 'listen_addresses'`;
    expect(listens?.listenAddresses).toBe('127.0.0.1');
    await owner.end();
    await cluster.stop();
  });
  it('gets over a lock file that a crash left behind', async () => {
    writeFileSync(join(folder, 'postmaster.pid'), '999999\n/nowhere\n');
    const cluster = await startCluster(folder, quick);
    await cluster.stop();
    expect(existsSync(join(folder, 'postmaster.pid'))).toBe(false);
  });
  it('takes over from a run that was killed, and refuses one that still works with it', { timeout: 60_000 }, async () => {
    const script = `
      import { startCluster } from './scripts/lib/cluster.ts';
      await startCluster(${JSON.stringify(folder)}, ${JSON.stringify(quick)});
      console.log('running');
      setInterval(() => {}, 1000);`;
    const killed = spawn(process.execPath, ['--import', 'tsx', '--conditions=react-server', '--input-type=module', '-e', script], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise<void>((done) => {
      killed.stdout.on('data', (chunk: Buffer) => (chunk.toString().includes('running') ? done() : undefined));
    });
    await expect(startCluster(folder, quick)).rejects.toThrow(/already runs/);
    killed.kill('SIGKILL');
    await new Promise((done) => killed.once('exit', done));
    const cluster = await startCluster(folder, quick);
    await expect(startCluster(folder, quick)).rejects.toThrow(/already runs/);
    await cluster.stop();
  });
  it('refuses data made by another PostgreSQL, in one line', async () => {
    const file = join(folder, 'PG_VERSION');
    const made = readFileSync(file, 'utf8');
    writeFileSync(file, '9\n');
    await expect(startCluster(folder, quick)).rejects.toThrow(/was made by PostgreSQL 9; this machine has/);
    writeFileSync(file, made);
  });
});
