// npm run bench: the search against plain enumeration in one run, and how fast the main pages answer. Ratios, not promises.
import { performance } from 'node:perf_hooks';
import { DEMO_FAMILIES } from '../demo/families';
import { DEMO_PASSWORD } from '../demo/load';
import { blurBetween, compareRanked, nearestLenses, rangeValues, toCornealPlane, type LensFamily, type Ranked, type Refraction } from '../src/core';
import { ensureBuild } from './lib/build';
import { startThrowAwayCluster } from './lib/cluster';
import { ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { startSite } from './lib/site';
import { TEST_NOW } from '../tests/support/moment';

const families: readonly LensFamily[] = DEMO_FAMILIES.map((f) => ({ name: f.name, geometry: f.geometry, blocks: f.blocks }));
const needs: readonly Refraction[] = Array.from({ length: 40 }, (_, i) =>
  toCornealPlane({ sphere: -8 + i * 0.3, cylinder: -(i % 9) * 0.31 - 0.1, axis: ((i * 37) % 180) + 1 }, 12),
);

/** Every power of a family, tried one by one. */
function enumerate(need: Refraction, family: LensFamily): { best: Ranked[]; tried: number } {
  const best: Ranked[] = [];
  let tried = 0;
  for (const block of family.blocks) {
    for (const sphere of rangeValues(block.spheres)) {
      for (const cylinder of block.cylinders) {
        for (const axis of cylinder === 0 ? [180] : rangeValues(block.axes)) {
          tried += 1;
          const row = { power: { sphere, cylinder, axis }, blur: blurBetween(need, { sphere, cylinder, axis }) };
          const last = best[4];
          if (last && compareRanked(row, last) >= 0) continue;
          best.push(row);
          best.sort((a, b) => compareRanked(a, b));
          best.length = Math.min(5, best.length);
        }
      }
    }
  }
  return { best, tried };
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
}
function timed(run: () => void): number {
  const start = performance.now();
  run();
  return performance.now() - start;
}

function benchSearch(): void {
  let tried = 0;
  const fast: number[] = [];
  const slow: number[] = [];
  for (const need of needs) {
    for (const family of families) nearestLenses(need, family);
    fast.push(timed(() => families.forEach((family) => nearestLenses(need, family))));
    slow.push(timed(() => families.forEach((family) => (tried += enumerate(need, family).tried))));
  }
  console.log(`Nearest lenses over all ${families.length} demo families, ${needs.length} needs, median:`);
  console.log(`  search       ${median(fast).toFixed(3)} ms`);
  console.log(`  enumeration  ${median(slow).toFixed(3)} ms (${Math.round(tried / needs.length).toLocaleString('en-US')} powers each)`);
  console.log(`  ratio        ${(median(slow) / median(fast)).toFixed(0)} ×`);
}

async function benchPages(): Promise<void> {
  ensureBuild('.next');
  const cluster = await startThrowAwayCluster();
  try {
    await ensureDatabase((name) => cluster.url(name), 'bench');
    const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: TEST_NOW });
    const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD });
    try {
      const headers = { origin: site.url, 'content-type': 'application/json' };
      const signIn = await fetch(`${site.url}/api/session`, { method: 'POST', headers, body: JSON.stringify({ account: 'asha', password: DEMO_PASSWORD }) });
      const cookie = signIn.headers.get('set-cookie')?.split(';')[0] ?? '';
      const deed = async (name: string, input: object): Promise<Record<string, string>> => {
        const answer = await fetch(`${site.url}/api/deeds/${name}`, { method: 'POST', headers: { ...headers, cookie }, body: JSON.stringify(input) });
        return ((await answer.json()) as { value: Record<string, string> }).value;
      };
      const { wearerId } = await deed('createWearer', { name: 'Bench', birthDate: '1990-01-01' });
      const { visitId } = await deed('openVisit', { wearerId, kind: 'firstFit' });
      await deed('recordRefraction', { visitId, version: 1, right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165', vertexMm: 12 });
      console.log('\nServer response, median of 30 after 5 to warm up:');
      for (const path of ['/sign-in', '/', '/wearers', `/wearers/${wearerId ?? ''}`, `/visits/${visitId ?? ''}/power`, `/visits/${visitId ?? ''}/lens`]) {
        const times: number[] = [];
        for (let i = 0; i < 35; i++) {
          const start = performance.now();
          await (await fetch(`${site.url}${path}`, { headers: { cookie } })).text();
          if (i >= 5) times.push(performance.now() - start);
        }
        console.log(`  ${path.replace(/[0-9a-f]{8}-[0-9a-f-]+/, '…').padEnd(20)} ${median(times).toFixed(0)} ms`);
      }
    } finally {
      await site.stop();
    }
  } finally {
    await cluster.stop();
  }
}

benchSearch();
await benchPages();
