import { expect, test } from '@playwright/test';
import { DEMO_PASSWORD } from '../../demo/load';
import { startSite } from '../../scripts/lib/site';
import { openRelease } from '../support/release';
import { TEST_NOW, TEST_TODAY } from '../support/moment';
import { waitForLife } from './site';

const STEPS = ['history', 'eye-health', 'kind', 'refraction', 'lens', 'on-eye', 'prescription', 'lesson', 'supply', 'print/summary', 'print/prescription'];

test('a database of the last release is migrated, and every screen opens on what it recorded', async ({ browser }) => {
  const { db } = await openRelease();
  await db.owner`update app_clock set offset_seconds = extract(epoch from (${TEST_NOW}::timestamptz - now()))::bigint`;
  const site = await startSite({ databaseUrl: db.appUrl, mode: 'test', distDir: '.next-test', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY });
  try {
    const context = await browser.newContext({ baseURL: site.url });
    const page = await context.newPage();
    const complaints: string[] = [];
    page.on('pageerror', (error) => complaints.push(error.message));
    page.on('console', (message) => (message.type() === 'error' ? complaints.push(message.text()) : undefined));
    waitForLife(page);
    await page.request.post('/api/session', { data: { account: 'asha', password: DEMO_PASSWORD }, headers: { origin: site.url } });
    const visits = await db.owner<{ id: string; wearerId: string }[]>`select id, wearer_id from visit where closed_at is null`;
    expect(visits.length).toBeGreaterThan(0);
    const addresses = [
      ...visits.flatMap((v) => [...STEPS.map((step) => `/visits/${v.id}/${step}`), `/wearers/${v.wearerId}`]),
      ...['/', '/wearers', '/library', '/library/plover-30-toric', '/settings', '/staff'],
    ];
    for (const address of addresses) {
      const answer = await page.goto(address);
      expect(answer?.status(), address).toBe(200);
      await expect(page.locator('main, [data-testid="paper"], .frame').first(), address).toBeVisible();
      await expect(page.getByText('This page could not be made'), address).toHaveCount(0);
    }
    // What it had recorded is there: the prescription it signed, the lens on the eye, what is worn now.
    const [first] = visits;
    await page.goto(`/visits/${first?.id ?? ''}/prescription`);
    await expect(page.getByTestId('signed')).toBeVisible();
    await page.goto(`/wearers/${first?.wearerId ?? ''}`);
    await expect(page.getByTestId('worn-right')).toHaveText('−3.00 −1.75 × 20');
    expect(complaints).toEqual([]);
    await context.close();
  } finally {
    await site.stop();
    await db.close();
  }
});
