// One side of the load bench: a cluster, a database and a site of whatever version this file stands in. Started by benchLoad.
import { availableParallelism } from 'node:os';
import { DEMO_PASSWORD } from '../demo/load';
import { ensureBuild } from './lib/build';
import { startThrowAwayCluster } from './lib/cluster';
import { ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { startSite } from './lib/site';

const [now = ''] = process.argv.slice(2);
await ensureBuild('.next');
const cluster = await startThrowAwayCluster();
await ensureDatabase((name) => cluster.url(name), 'bench');
const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: now });
const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, webProcesses: availableParallelism() });
process.stdout.write(`${JSON.stringify({ url: site.url, ownerUrl: cluster.url('bench'), password: DEMO_PASSWORD })}\n`);
process.stdin.resume();
process.stdin.on('end', () => {
  void site
    .stop()
    .then(() => cluster.stop())
    .then(() => process.exit(0));
});
