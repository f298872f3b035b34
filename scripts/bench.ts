// npm run bench [-- search|steadiness|fuzz|pages|lamp|typing|record|wearers|size|kills|load|supply|planner|lives|crash|screen|focus|presbyopia|photo|letters [--against=REVISION] ...]: all or some parts. The search against plain enumeration in one run, and how fast the main pages answer. Ratios, not promises.
import { performance } from 'node:perf_hooks';
import { DEMO_PASSWORD } from '../demo/load';
import { nearestInEach, nearestPowers, rangeCount, toCornealPlane, toPowerVector, type LensFamily, type Refraction } from '../src/core';
import { connect } from '../src/db/client';
import { ensureBuild } from './lib/build';
import { catalogue, lensCount, MADE_TO_ORDER } from './lib/catalogue';
import { benchDrag, benchSteadiness } from './lib/benchLamp';
import { benchFuzz } from './lib/benchFuzz';
import { benchKills } from './lib/benchKills';
import { benchLoad } from './lib/benchLoad';
import { benchRecord } from './lib/benchRecord';
import { benchCrash } from './lib/benchCrash';
import { benchLives } from './lib/benchLives';
import { benchPresbyopia } from './lib/benchPresbyopia';
import { benchLetters } from './lib/benchLetters';
import { benchPhoto } from './lib/benchPhoto';
import { benchPlanner } from './lib/benchPlanner';
import { benchFocus } from './lib/benchFocus';
import { benchScreen } from './lib/benchScreen';
import { benchSupply } from './lib/benchSupply';
import { benchTyping, fillLibrary } from './lib/benchTyping';
import { benchWearers } from './lib/benchWearers';
import { budgetOf, pageSizes } from './lib/pageSizes';
import { startThrowAwayCluster } from './lib/cluster';
import { ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { startSite } from './lib/site';
import { TEST_NOW } from '../tests/support/moment';

const needs: readonly Refraction[] = Array.from({ length: 40 }, (_, i) =>
  toCornealPlane({ sphere: -8 + i * 0.3, cylinder: -(i % 9) * 0.31 - 0.1, axis: ((i * 37) % 180) + 1 }, 12),
);

/** Trigonometry of whole degrees, so that the slow way is as fast as it can be. */
const COS2 = Float64Array.from({ length: 181 }, (_, axis) => Math.cos((2 * axis * Math.PI) / 180));
const SIN2 = Float64Array.from({ length: 181 }, (_, axis) => Math.sin((2 * axis * Math.PI) / 180));

/** Every orderable lens of a family, curve and diameter included, tried one by one; nothing is made on the way. */
function enumerate(need: Refraction, family: LensFamily): { readonly blur: number; readonly tried: number } {
  const { m, j0, j45 } = toPowerVector(need);
  let least = Infinity;
  let tried = 0;
  for (const block of family.blocks) {
    const spheres = rangeCount(block.spheres);
    const axes = block.cylinders[0] === 0 ? 1 : rangeCount(block.axes);
    for (let curve = 0; curve < block.curves.length; curve++) {
      for (let s = 0; s < spheres; s++) {
        const sphere = block.spheres.from + s * block.spheres.step;
        for (let c = 0; c < block.cylinders.length; c++) {
          const half = -block.cylinders[c]! / 2;
          const dm = m - (sphere - half);
          for (let a = 0; a < axes; a++) {
            const axis = block.axes.from + a * block.axes.step;
            const d0 = j0 - half * COS2[axis]!;
            const d45 = j45 - half * SIN2[axis]!;
            const square = dm * dm + d0 * d0 + d45 * d45;
            if (square < least) least = square;
          }
        }
      }
    }
    tried += spheres * block.cylinders.length * axes * block.curves.length;
  }
  return { blur: Math.sqrt(least), tried };
}

/** One plain pass over all blocks: for each, the least blur that any of its lenses could leave. */
function plainPass(need: Refraction, families: readonly LensFamily[]): number {
  const { m, j0, j45 } = toPowerVector(need);
  const j = Math.sqrt(j0 * j0 + j45 * j45);
  let sum = 0;
  for (const family of families) {
    let least = Infinity;
    for (const block of family.blocks) {
      for (let i = 0; i < block.cylinders.length; i++) {
        const half = -block.cylinders[i]! / 2;
        const sphere = m + half;
        const { from, to } = block.spheres;
        const past = sphere < from ? from - sphere : sphere > to ? sphere - to : 0;
        const square = past * past + (j - half) * (j - half);
        if (square < least) least = square;
      }
    }
    sum += least;
  }
  return sum;
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

const count = (n: number): string => n.toLocaleString('en-US');
/** Mean of a repeated run, ms: single runs are too short for the clock. */
const repeated = (times: number, run: () => void): number => timed(() => Array.from({ length: times }, run)) / times;

function benchSearch(): void {
  const families = catalogue(500);
  const lenses = families.reduce((sum, f) => sum + lensCount(f), 0);
  const one = MADE_TO_ORDER;
  const search = (): void => needs.forEach((need) => nearestPowers(need, one.blocks, { limit: 1 }));
  const five = (): void => needs.forEach((need) => nearestPowers(need, one.blocks, { limit: 5 }));
  repeated(400, search);
  const fast = repeated(400, search) / needs.length;
  const fastFive = repeated(400, five) / needs.length;
  const some = needs.filter((_, i) => i % 8 === 0);
  some.forEach((need) => enumerate(need, one));
  const slow = median(some.map((need) => timed(() => enumerate(need, one))));
  for (const need of some) {
    const [best] = nearestPowers(need, one.blocks, { limit: 1 });
    if (Math.abs((best?.blur ?? Infinity) - enumerate(need, one).blur) > 0.0051) throw new Error('the search and the slow way disagree');
  }
  console.log(`One made-to-order family, ${count(lensCount(one))} lenses:`);
  console.log(`  every lens tried   ${slow.toFixed(1)} ms`);
  console.log(`  search, the best   ${(fast * 1000).toFixed(2)} µs: ${count(Math.round(slow / fast))} ×`);
  console.log(`  search, best five  ${(fastFive * 1000).toFixed(2)} µs: ${count(Math.round(slow / fastFive))} ×`);

  const all = (): void => needs.forEach((need) => nearestInEach(need, families, { limit: 1 }));
  let kept = 0;
  const pass = (): void => needs.forEach((need) => (kept += plainPass(need, families)));
  repeated(5, all);
  repeated(20, pass);
  const whole = repeated(20, all) / needs.length;
  const plain = repeated(60, pass) / needs.length;
  console.log(`A catalogue of ${families.length} families, ${count(lenses)} lenses, ${count(families.reduce((n, f) => n + f.blocks.length, 0))} blocks:`);
  console.log(`  search in all      ${whole.toFixed(3)} ms`);
  console.log(
    `  one plain pass     ${plain.toFixed(3)} ms over all blocks (${Number.isFinite(kept) ? 'fine' : 'empty'}): the search takes ${(whole / plain).toFixed(1)} × as long`,
  );
}

const wanted = process.argv.slice(2).filter((a) => !a.startsWith('--'));
const against = process.argv.find((a) => a.startsWith('--against='))?.split('=')[1] ?? null;
const asked = (part: string): boolean => wanted.length === 0 || wanted.includes(part);

async function benchPages(): Promise<void> {
  await ensureBuild('.next');
  const cluster = await startThrowAwayCluster();
  try {
    await ensureDatabase((name) => cluster.url(name), 'bench');
    const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: TEST_NOW });
    const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD });
    try {
      const headers = { origin: site.url, 'content-type': 'application/json' };
      const signIn = await fetch(`${site.url}/api/session`, { method: 'POST', headers, body: JSON.stringify({ account: 'asha', password: DEMO_PASSWORD }) });
      const cookie = signIn.headers.get('set-cookie')?.split(';')[0] ?? '';
      const call = async (path: string, input: object): Promise<unknown> => {
        const answer = await fetch(`${site.url}/api/${path}`, { method: 'POST', headers: { ...headers, cookie }, body: JSON.stringify(input) });
        return ((await answer.json()) as { value: unknown }).value;
      };
      const command = async (name: string, input: object) => (await call(`commands/${name}`, input)) as Record<string, string>;
      const { wearerId } = await command('createWearer', { name: 'Bench', birthDate: '1990-01-01' });
      const { visitId } = await command('openVisit', { wearerId, kind: 'firstFit' });
      await command('recordRefraction', { visitId, version: 1, right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165', vertexMm: 12 });
      if (asked('pages')) {
        console.log('\nServer response, median of 30 after 5 to warm up:');
        for (const path of [
          '/sign-in',
          '/',
          '/wearers',
          `/wearers/${wearerId ?? ''}`,
          `/visits/${visitId ?? ''}/refraction`,
          `/visits/${visitId ?? ''}/lens`,
        ]) {
          const times: number[] = [];
          for (let i = 0; i < 35; i++) {
            const start = performance.now();
            await (await fetch(`${site.url}${path}`, { headers: { cookie } })).text();
            if (i >= 5) times.push(performance.now() - start);
          }
          console.log(`  ${path.replace(/[0-9a-f]{8}-[0-9a-f-]+/, '…').padEnd(20)} ${median(times).toFixed(0)} ms`);
        }
      }
      const { library } = (await call('queries/readFamilies', {})) as { library: { families: { id: string; code: string }[] } };
      const familyId = library.families.find((f) => f.code === 'plover-30-toric')?.id;
      const trial = (sphere: number, cylinder: number, axis: number) => ({ familyId, sphere, cylinder, axis, add: null, baseCurve: 8.6, diameter: 14.2 });
      await command('putOnTrials', { visitId, version: 2, right: trial(-3, -1.75, 20), left: trial(-4.25, -1.25, 170) });
      if (asked('lamp')) await benchDrag(site.url, visitId ?? '');
      if (!asked('typing')) return;
      const more = 500;
      const owner = connect(cluster.url('bench'), { max: 1 });
      await fillLibrary(owner, more, TEST_NOW);
      const [{ count: families } = { count: 0 }] = await owner<{ count: number }[]>`select count(distinct code)::int as count from lens_family_version`;
      await owner.end();
      await benchTyping(site.url, visitId ?? '', families);
    } finally {
      await site.stop();
    }
  } finally {
    await cluster.stop();
  }
}

if (asked('search')) benchSearch();
if (asked('steadiness')) benchSteadiness();
if (asked('fuzz')) benchFuzz();
if (asked('pages') || asked('lamp') || asked('typing')) await benchPages();

if (asked('size')) {
  await ensureBuild('.next');
  console.log('\nScripts of a page, as its first view asks for them, gzipped:');
  for (const { page, gzipped, bytes } of pageSizes('.next')) {
    const over = gzipped > budgetOf(page) ? `, over its budget of ${budgetOf(page) / 1000} kB` : '';
    console.log(`  ${page.padEnd(28)} ${(gzipped / 1000).toFixed(0).padStart(4)} kB (${(bytes / 1000).toFixed(0)} kB plain)${over}`);
  }
}
if (asked('record') || asked('wearers')) {
  const cluster = await startThrowAwayCluster();
  try {
    await ensureDatabase((name) => cluster.url(name), 'bench');
    const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: TEST_NOW });
    const owner = connect(cluster.url('bench'), { max: 1 });
    if (asked('record')) await benchRecord(owner, appUrl);
    if (asked('wearers')) await benchWearers(owner, appUrl);
    await owner.end();
  } finally {
    await cluster.stop();
  }
}

// Takes minutes: only when it is asked for by name.
if (wanted.includes('supply')) await benchSupply();
if (wanted.includes('crash')) await benchCrash();
if (wanted.includes('screen')) await benchScreen();
if (wanted.includes('focus')) await benchFocus();
if (wanted.includes('lives')) benchLives();
if (wanted.includes('planner')) await benchPlanner();
// Takes half an hour. `--pictures=N`: how many of each range and layout.
if (wanted.includes('letters')) benchLetters();
if (wanted.includes('photo')) benchPhoto(Number(process.argv.find((arg) => arg.startsWith('--pictures='))?.slice(11) ?? 250));
// Takes half an hour. `--wearers=N`: how many in each world.
if (wanted.includes('presbyopia')) benchPresbyopia(Number(process.argv.find((arg) => arg.startsWith('--wearers='))?.slice(10) ?? 625));

// Takes minutes: only when it is asked for by name. `--kills=N`: how many.
if (wanted.includes('kills')) {
  await ensureBuild('.next');
  await benchKills(Number(process.argv.find((arg) => arg.startsWith('--kills='))?.slice(8) ?? 100));
}

// Takes minutes, and with another revision a second build: only when it is asked for by name.
if (wanted.includes('load')) await benchLoad(against);
