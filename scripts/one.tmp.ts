import { spawnSync } from 'node:child_process';
import { startThrowAwayCluster } from './lib/cluster';
import { ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { TEST_NOW } from '../tests/support/moment';
const cluster = await startThrowAwayCluster();
try {
  const template = 'keenfit_template';
  await ensureDatabase((name) => cluster.url(name), template);
  await prepareDatabase(cluster.url(template), { demoAt: TEST_NOW });
  spawnSync('node_modules/.bin/vitest', ['run', '--project', 'db', ...process.argv.slice(2)], { stdio: 'inherit', env: { ...process.env, NODE_OPTIONS: '', KEENFIT_TEST_SERVER: cluster.url('postgres'), KEENFIT_TEST_TEMPLATE: template, TZ: 'America/St_Johns' } });
} finally { await cluster.stop(); }
