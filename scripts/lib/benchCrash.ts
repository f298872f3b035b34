import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { TEST_NOW } from '../../tests/support/moment';
import { startThrowAwayCluster } from './cluster';
import { ensureDatabase, prepareDatabase } from './prepareDatabase';

const TEMPLATE = 'keenfit_template';

/** The tests that kill supply on its way, at every one of its steps instead of some. */
export async function benchCrash(): Promise<void> {
  const cluster = await startThrowAwayCluster();
  try {
    await ensureDatabase((name) => cluster.url(name), TEMPLATE);
    await prepareDatabase(cluster.url(TEMPLATE), { demoAt: TEST_NOW });
    for (const KEENFIT_CRASH_EYES of ['both', 'one']) {
      console.log(`\nOrders of ${KEENFIT_CRASH_EYES === 'one' ? 'one eye' : 'both eyes'}`);
      const env = {
        ...process.env,
        NODE_OPTIONS: '',
        KEENFIT_CRASH_EVERY: '1',
        KEENFIT_CRASH_EYES,
        KEENFIT_TEST_SERVER: cluster.url('postgres'),
        KEENFIT_TEST_TEMPLATE: TEMPLATE,
      };
      spawnSync(join('node_modules', '.bin', 'vitest'), ['run', '--project', 'db', 'tests/db/crashSupply.test.ts'], { stdio: 'inherit', env });
    }
  } finally {
    await cluster.stop();
  }
}
