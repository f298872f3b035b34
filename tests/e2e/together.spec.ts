import type { Browser, Page } from '@playwright/test';
import { command, expect, newVisit, readRecord, say, signIn, test, type TestSite, typePowers, waitForLife, watch } from './site';

/** People at different desks, and one person with many tabs: each page shows what is so, without being asked to. */
test.use({ file: 'together' });
test.beforeEach(({ page }) => signIn(page));

interface Both {
  readonly facts: { readonly refractions: readonly unknown[] };
  readonly health: { readonly answers: readonly { readonly question: string }[] };
}

async function joss(browser: Browser, site: TestSite): Promise<Page> {
  const context = await browser.newContext({ baseURL: site.url, timezoneId: 'America/New_York' });
  const page = await context.newPage();
  watch(page);
  waitForLife(page);
  await signIn(page, 'joss');
  return page;
}

test('what the technician records stands on the prescriber’s page a moment later', async ({ page, browser, site }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/refraction`);
  const other = await joss(browser, site);
  await other.goto(`${visit}/refraction`);
  await typePowers(other, '-3.50 -1.00 x 90', null);
  await expect(page.getByTestId('recorded-right')).toHaveText('−3.50 −1.00 × 90', { timeout: 5000 });
  await other.context().close();
});

test('at different desks both record; who signs, decides or closes is told first', async ({ page, browser, site }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/refraction`);
  await page.getByLabel('Right eye, spectacle power').fill('-2.00');
  const other = await joss(browser, site);
  await other.goto(visit);
  await say(other, visit, { dryness: 'evening' });
  // The page was read before the history was recorded, and the powers are recorded all the same.
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL(/\/(kind|lens)$/);
  const record = await readRecord<Both>(page, visit.split('/').at(-1) ?? '');
  expect(record.facts.refractions).toHaveLength(1);
  expect(record.health.answers.some((a) => a.question === 'dryness')).toBe(true);
  await other.context().close();
});

test('today’s list follows what others open', async ({ page, browser, site }) => {
  await page.goto('/');
  const other = await joss(browser, site);
  await other.goto('/');
  const begun = other.locator('tr', { hasText: 'booked' }).first();
  const row = page.getByTestId((await begun.getAttribute('data-testid')) ?? '');
  await begun.getByRole('button', { name: 'Begin the visit' }).click();
  await other.waitForURL('**/history');
  await expect(row).toContainText('booked');
  // However often others press, the list is read anew every ten seconds at most.
  await page.clock.fastForward(11_000);
  await expect(row).not.toContainText('booked');
  await other.context().close();
});

test('eight tabs of one browser: all load, and all hear through one stream', async ({ page, site }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/refraction`);
  const tabs = [page];
  for (let i = 0; i < 7; i++) {
    const tab = await page.context().newPage();
    watch(tab);
    waitForLife(tab);
    await tab.goto(`${visit}/refraction`);
    tabs.push(tab);
  }
  const [streams] = await site.db.owner<{ n: number }[]>`
    select count(*)::int as n from pg_stat_activity where datname = current_database() and query ilike 'listen%'`;
  expect(streams?.n).toBe(1);
  const visitId = visit.split('/').at(-1) ?? '';
  const { version } = (await readRecord(page, visitId)).visit;
  await command(page, 'recordRefraction', { visitId, version, right: '-1.25', left: null, vertexMm: 12 });
  for (const tab of tabs) await expect(tab.getByTestId('recorded-right')).toHaveText('−1.25', { timeout: 5000 });
  for (const tab of tabs.slice(1)) await tab.close();
});

test('a page hears again when the server was away', async ({ page, browser, site }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/refraction`);
  await site.db
    .owner`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query ilike 'listen%' and pid <> pg_backend_pid()`;
  const other = await joss(browser, site);
  await other.goto(`${visit}/refraction`);
  await typePowers(other, '-6.00', null);
  await expect(page.getByTestId('recorded-right')).toHaveText('−6.00', { timeout: 15_000 });
  await other.context().close();
});
