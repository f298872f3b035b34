// npm test: lint, types, layers, unit tests (in three time zones), database tests, browser tests.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild } from './lib/build';
import { startThrowAwayCluster } from './lib/cluster';
import { ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { TEST_NOW } from '../tests/support/moment';

interface Count {
  passed: number;
  failed: number;
}

const only = process.argv.slice(2).filter((a) => !a.startsWith('-'));
const wants = (part: string): boolean => only.length === 0 || only.includes(part);
const passOn = process.argv.slice(2).filter((a) => a.startsWith('-'));
const reports = mkdtempSync(join(tmpdir(), 'keenfit-reports-'));
const total: Count = { passed: 0, failed: 0 };

const bin = (name: string): string => join('node_modules', '.bin', name);

function run(title: string, command: string, args: readonly string[], env: Readonly<Record<string, string>> = {}): Promise<number> {
  console.log(`\n── ${title}`);
  return new Promise((resolve) => {
    const child = spawn(command, [...args], { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } });
    child.on('exit', (code) => resolve(code ?? 1));
  });
}

/** A tool that only says yes or no counts as one check. */
async function check(title: string, command: string, args: readonly string[]): Promise<void> {
  const code = await run(title, command, args);
  console.log(code === 0 ? `${title}: fine` : `${title}: FAILED`);
  total[code === 0 ? 'passed' : 'failed'] += 1;
}

function add(count: Count, code: number): void {
  total.passed += count.passed;
  // A runner that fell over without a failed test (a broken file, say) still failed.
  total.failed += count.failed === 0 && code !== 0 ? 1 : count.failed;
}

function vitestCount(file: string): Count {
  try {
    const report = JSON.parse(readFileSync(file, 'utf8')) as { numPassedTests: number; numFailedTests: number };
    return { passed: report.numPassedTests, failed: report.numFailedTests };
  } catch {
    return { passed: 0, failed: 1 };
  }
}

async function vitest(project: string, zone: string, env: Readonly<Record<string, string>> = {}): Promise<void> {
  const file = join(reports, `${project}-${zone.replace('/', '-')}.json`);
  const code = await run(
    `${project} tests, TZ=${zone}`,
    bin('vitest'),
    ['run', ...(project === 'unit' ? ['--project', 'drawn'] : []), '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${file}`],
    { ...env, TZ: zone },
  );
  add(vitestCount(file), code);
}

async function browser(env: Readonly<Record<string, string>>): Promise<void> {
  console.log('\n── building the application for the browser tests');
  const before = readFileSync('tsconfig.json', 'utf8');
  await ensureBuild('.next-test');
  const untouched = readFileSync('tsconfig.json', 'utf8') === before;
  console.log(untouched ? 'the build leaves the sources alone: fine' : 'the build rewrote tsconfig.json: FAILED');
  total[untouched ? 'passed' : 'failed'] += 1;
  const file = join(reports, 'browser.json');
  const code = await run('browser tests', bin('playwright'), ['test', '--reporter=list,json', ...passOn], {
    ...env,
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
    NODE_OPTIONS: '--conditions=react-server',
  });
  try {
    const { stats } = JSON.parse(readFileSync(file, 'utf8')) as { stats: { expected: number; unexpected: number; flaky: number } };
    add({ passed: stats.expected, failed: stats.unexpected + stats.flaky }, code);
  } catch {
    add({ passed: 0, failed: 1 }, code);
  }
}

async function main(): Promise<void> {
  // What an earlier build says of pages that are gone is no fault of the sources.
  for (const folder of ['.next', '.next-test', '.next-dev']) rmSync(join(folder, 'types'), { recursive: true, force: true });
  // One core's work for minutes: what else needs no database goes on beside it.
  const linted = wants('lint') ? check('lint', bin('eslint'), ['.', '--max-warnings', '0']) : Promise.resolve();
  if (wants('types')) await check('types', bin('tsc'), ['--noEmit', '-p', 'tsconfig.json']);
  if (wants('layers')) await check('no circular imports', bin('depcruise'), ['src', 'scripts', 'demo', '--config', '.dependency-cruiser.cjs']);
  if (wants('unit')) for (const zone of ['UTC', 'America/St_Johns', 'Pacific/Auckland']) await vitest('unit', zone);
  await linted;
  if (!wants('db') && !wants('e2e')) return;
  const cluster = await startThrowAwayCluster();
  try {
    const template = 'keenfit_template';
    await ensureDatabase((name) => cluster.url(name), template);
    await prepareDatabase(cluster.url(template), { demoAt: TEST_NOW });
    const env = { KEENFIT_TEST_SERVER: cluster.url('postgres'), KEENFIT_TEST_TEMPLATE: template };
    if (wants('db')) await vitest('db', 'America/St_Johns', env);
    if (wants('e2e')) await browser(env);
  } finally {
    await cluster.stop();
  }
}

let crashed = false;
try {
  await main();
} catch (cause) {
  console.error(cause);
  crashed = true;
  total.failed += 1;
}
rmSync(reports, { recursive: true, force: true });
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(crashed || total.failed > 0 ? 1 : 0);
