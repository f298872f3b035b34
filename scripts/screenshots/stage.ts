// Where the pictures are taken: a throw-away database with the demo data, the application, one page, one fixed moment that goes on when told to.
import { chromium, type Page } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PASSWORD } from '../../demo/load';
import { connect } from '../../src/db/client';
import { setClockSetting } from '../../src/db/clockSetting';
import { TEST_NOW, TEST_TODAY } from '../../tests/support/moment';
import { ensureBuild } from '../lib/build';
import { CHROMIUM } from '../lib/chromium';
import { startThrowAwayCluster } from '../lib/cluster';
import { ensureDatabase, prepareDatabase } from '../lib/prepareDatabase';
import { startSite } from '../lib/site';

const folder = join('docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const cluster = await startThrowAwayCluster();
await ensureDatabase((name) => cluster.url(name), 'pictures');
const { appUrl } = await prepareDatabase(cluster.url('pictures'), { demoAt: TEST_NOW });
const owner = connect(cluster.url('pictures'), { max: 1 });
let now = Date.parse(TEST_NOW);
await setClockSetting(owner, { frozenAt: TEST_NOW, offsetSeconds: 0 });
await ensureBuild('.next');
const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY, camera: true });
const browser = await chromium.launch(CHROMIUM);
export const page = await browser.newPage({
  viewport: { width: 1280, height: 800 },
  timezoneId: 'America/New_York',
  reducedMotion: 'reduce',
  baseURL: site.url,
});
await page.clock.install({ time: now });

/** Both clocks go on by some minutes. */
export async function wait(minutes: number): Promise<void> {
  now += minutes * 60_000;
  await setClockSetting(owner, { frozenAt: new Date(now).toISOString(), offsetSeconds: 0 });
  await page.clock.setSystemTime(now);
}
export async function shot(name: string, on: Page = page): Promise<void> {
  await on.evaluate(() => document.fonts.ready);
  await on.waitForTimeout(250);
  await on.screenshot({ path: join(folder, `${name}.png`) });
  console.log(`  ${name}.png`);
}
export const key = async (...keys: readonly string[]): Promise<void> => {
  for (const k of keys) {
    await page.keyboard.press(k);
    await page.waitForTimeout(60);
  }
};
export const press = (name: string | RegExp) => page.getByRole('button', { name }).click();
export const quiet = async (): Promise<void> => {
  await page.locator('.toast').waitFor({ state: 'detached', timeout: 15_000 });
  await page.mouse.move(4, 4);
};

/** Asks for a use case as the signed-in page would. */
async function call<Value>(path: string, input: object): Promise<Value> {
  const answer = await page.evaluate(
    async ([path, body]) =>
      (await fetch(path as string, { method: 'POST', headers: { 'content-type': 'application/json' }, body: body as string })).json() as Promise<unknown>,
    [`/api/${path}`, JSON.stringify(input)],
  );
  const result = answer as { ok: boolean; value: Value };
  if (!result.ok) throw new Error(`${path}: ${JSON.stringify(answer)}`);
  return result.value;
}
export const command = (name: string, input: object) => call<{ readonly visitId: string; readonly wearerId: string }>(`commands/${name}`, input);
export const versionOf = async (visit: string): Promise<number> => {
  const input = { visitId: visit.split('/').pop(), page: 'history' };
  return (await call<{ part: { head: { visit: { version: number } } } }>('queries/readVisit', input)).part.head.visit.version;
};
export type Grades = Readonly<Record<string, number | string>>;
export const listed = (all: Grades) => Object.entries(all).map(([sign, value]) => ({ sign, value }));
export const graded = (right: Grades, left: Grades = right) => ({ right: listed(right), left: listed(left) });

/** A visit of somebody, opened here, with what was said and found. */
export async function seen(name: string, answers: Readonly<Record<string, unknown>>, right: Grades, left: Grades): Promise<string> {
  await page.goto('/wearers');
  await page.getByRole('link', { name }).first().click();
  await page.waitForURL('**/wearers/*');
  const { visitId } = await command('openVisit', { wearerId: page.url().split('/').pop(), kind: 'refit' });
  const list = Object.entries(answers).map(([question, value]) => ({ question, value, note: null }));
  await command('recordHistory', { visitId, version: 1, answers: list });
  await command('recordFindings', { visitId, version: 2, ...graded(right, left) });
  return `/visits/${visitId}`;
}

export async function signIn(who: RegExp): Promise<void> {
  await page.goto('/sign-in');
  await press(who);
  await page.getByLabel('Password').fill(DEMO_PASSWORD);
  await press('Sign in');
  await page.waitForURL('**/');
}

/** Puts everything away. */
export async function strike(): Promise<void> {
  await browser.close();
  await site.stop();
  await owner.end();
  await cluster.stop();
}
