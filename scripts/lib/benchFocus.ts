import { chromium, type Page } from '@playwright/test';
import { DEMO_PASSWORD } from '../../demo/load';
import { connect } from '../../src/db/client';
import { fillDrawer } from '../../tests/support/drawer';
import { TEST_NOW, TEST_TODAY } from '../../tests/support/moment';
import { ensureBuild } from './build';
import { CHROMIUM } from './chromium';
import { startThrowAwayCluster } from './cluster';
import { ensureDatabase, prepareDatabase } from './prepareDatabase';
import { startSite } from './site';

const LONG_MS = 50;
const STEPS = 50;
const ROUNDS = 3;
const FAMILY = 'curlew-multifocal';

/** Sends a command as the signed-in page would. */
async function command(page: Page, name: string, input: object): Promise<Record<string, string>> {
  const answer = await page.request.post(`/api/commands/${name}`, {
    data: input,
    headers: { origin: new URL(page.url()).origin, 'x-request-key': crypto.randomUUID() },
  });
  const said = (await answer.json()) as { readonly ok: boolean; readonly value?: Record<string, string> };
  if (!said.ok) throw new Error(`${name}: ${JSON.stringify(said)}`);
  return said.value ?? {};
}

/** A presbyope whose pair was judged, with the curves on the screen. */
async function opened(page: Page, familyId: string): Promise<void> {
  const { wearerId } = await command(page, 'createWearer', { name: 'Bench Presbyope', birthDate: '1975-03-02' });
  const { visitId } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  const power = { right: '-2.00', left: '-2.25', vertexMm: 12, rightAdd: '+1.50', leftAdd: '+1.50', nearCm: 40 };
  await command(page, 'recordRefraction', { visitId, version: 1, ...power });
  const tasks = [
    { sign: 'road', value: 600 },
    { sign: 'screen', value: 63 },
    { sign: 'book', value: 40 },
    { sign: 'phone', value: 35 },
  ];
  await command(page, 'recordNearFindings', { visitId, version: 2, findings: tasks });
  const lens = (sphere: number) => ({ familyId, sphere, cylinder: 0, axis: 180, add: 'low', baseCurve: 8.6, diameter: 14.1 });
  await command(page, 'putOnTrials', { visitId, version: 3, right: lens(-1.75), left: lens(-2.25) });
  await page.goto(`/visits/${visitId}/on-eye`);
  await page.waitForFunction(() => document.documentElement.dataset.ready === 'yes');
  await page.getByRole('button', { name: 'Both', exact: true }).click();
  await page.getByRole('group', { name: 'Phone, satisfied' }).getByRole('button', { name: '4', exact: true }).click();
  await page.getByRole('button', { name: 'Record this pair' }).click();
  await page.getByText('Through focus').first().click();
  await page
    .getByRole('img', { name: /letters as they would look/ })
    .first()
    .waitFor();
}

/** Long tasks while a slider is moved by its keys, ms each. */
async function moved(page: Page, slider: string): Promise<readonly number[]> {
  await page.locator(slider).focus();
  await page.waitForTimeout(600);
  await page.evaluate(() => ((window as unknown as { longTasks: number[] }).longTasks.length = 0));
  for (let i = 0; i < STEPS; i++) {
    await page.keyboard.press(i % 20 < 10 ? 'ArrowRight' : 'ArrowLeft');
    await page.waitForTimeout(30);
  }
  await page.waitForTimeout(600);
  return page.evaluate(() => [...(window as unknown as { longTasks: number[] }).longTasks]);
}

/** How long the page is held while the pupil slider of the through-focus picture moves, beside a slider that does nothing. */
export async function benchFocus(): Promise<void> {
  await ensureBuild('.next');
  const cluster = await startThrowAwayCluster();
  await ensureDatabase((name) => cluster.url(name), 'bench');
  const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: TEST_NOW });
  const owner = connect(cluster.url('bench'), { max: 1 });
  await fillDrawer(owner, 5, { code: FAMILY });
  const [family] = await owner<{ id: string }[]>`select id from lens_family_version where code = ${FAMILY} order by version desc limit 1`;
  await owner.end();
  const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY });
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ baseURL: site.url, viewport: { width: 1280, height: 800 } });
    await page.goto('/sign-in');
    await page.request.post('/api/session', { data: { account: 'asha', password: DEMO_PASSWORD }, headers: { origin: site.url } });
    await opened(page, family?.id ?? '');
    await page.evaluate(() => {
      const kept: number[] = [];
      Object.assign(window, { longTasks: kept });
      new PerformanceObserver((list) => kept.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' });
      const empty = Object.assign(document.createElement('input'), { type: 'range', id: 'empty-slider' });
      document.querySelector('[data-testid=through-focus]')?.prepend(empty);
    });
    console.log(`\nThrough focus: ${STEPS} steps of a slider, one each 30 ms; tasks over ${LONG_MS} ms, in turn:`);
    for (let round = 1; round <= ROUNDS; round++) {
      const empty = await moved(page, '#empty-slider');
      const pupil = await moved(page, '[data-testid=through-focus] label input[type=range] >> nth=0');
      const words = (of: readonly number[]): string => `${of.length}${of.length > 0 ? ` (${of.map((ms) => Math.round(ms)).join(', ')} ms)` : ''}`;
      console.log(`  round ${round}   a slider that does nothing ${words(empty)}   pupil slider ${words(pupil)}`);
    }
  } finally {
    await browser.close();
    await site.stop();
    await cluster.stop();
  }
}
