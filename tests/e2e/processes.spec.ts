import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { startSite } from '../../scripts/lib/site';
import { createDatabase } from '../support/database';

/** The web processes that listen on a port: children of the one that starts them. */
function processesOn(port: string): number[] {
  const read = (path: string): string => {
    try {
      return readFileSync(path, 'utf8');
    } catch {
      return '';
    }
  };
  const all = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
  const parent = all.find((pid) => read(`/proc/${pid}/cmdline`).includes(`webProcesses.ts\0${port}\0`));
  const parentOf = (pid: string): string => /^\S+ \(.*\) \S (\d+)/s.exec(read(`/proc/${pid}/stat`))?.[1] ?? '';
  return all.filter((pid) => parent !== undefined && parentOf(pid) === parent && read(`/proc/${pid}/cmdline`).startsWith('next-server')).map(Number);
}

test('one of several web processes is killed: the others go on, it is replaced, and all end together', async () => {
  const db = await createDatabase();
  const site = await startSite({ databaseUrl: db.appUrl, mode: 'test', distDir: '.next-test', webProcesses: 2 });
  const port = new URL(site.url).port;
  const ask = () => fetch(`${site.url}/sign-in`, { headers: { connection: 'close' }, signal: AbortSignal.timeout(20_000) });
  // A connection that was on its way to what died is closed; a browser tries such a one once more.
  const answers = async (): Promise<number> => (await ask().catch(ask)).status;
  try {
    const before = processesOn(port);
    expect(before).toHaveLength(2);
    process.kill(before[0] ?? 0, 'SIGKILL');
    await expect.poll(() => processesOn(port).includes(before[0] ?? 0)).toBe(false);
    for (let i = 0; i < 10; i++) expect(await answers()).toBe(200);
    await expect.poll(() => processesOn(port).length, { timeout: 15_000 }).toBe(2);
    expect(processesOn(port)).toContain(before[1]);
    await expect.poll(answers).toBe(200);
  } finally {
    await site.stop();
    await db.close();
  }
  expect(processesOn(port)).toEqual([]);
});
