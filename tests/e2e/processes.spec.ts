import { expect, test } from '@playwright/test';
import { startSite } from '../../scripts/lib/site';
import { createDatabase } from '../support/database';
import { childrenOf, findProcess } from '../support/processes';

/** The web processes that listen on a port: children of the one that starts them. */
function processesOn(port: string): number[] {
  const parent = findProcess(`webProcesses.ts ${port} `);
  return parent === undefined ? [] : childrenOf(parent, 'next-server');
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
