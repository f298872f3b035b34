import { ensureBuild } from '../../scripts/lib/build';
import { DEMO_PASSWORD } from '../../demo/load';
import { expect, openVisit, signIn, test } from './site';

test.use({ file: 'interruptions' });

const right = 'Right eye, spectacle power';
const send = 'Record and choose a lens';

test.beforeEach(async ({ page }) => {
  await signIn(page);
  await openVisit(page);
  await page.getByLabel(right).fill('-3.25 -1.75 x 20');
  // The page is whole once its thread has ranked: what happens to the server afterwards happens to a page at rest.
  await expect(page.getByTestId('so-far').getByText('−3.00 −1.75 × 20').first()).toBeVisible();
});

test('sent after the session ended: sign in over the page, and it is recorded', async ({ page, context }) => {
  await context.clearCookies({ name: '__Host-keenfit' });
  await page.getByRole('button', { name: send }).click();
  await expect(page.getByRole('dialog')).toContainText('Sign in again');
  await page.getByRole('dialog').getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByText('Account and password do not go together.')).toBeVisible();
  await page.getByRole('dialog').getByLabel('Password').fill(DEMO_PASSWORD);
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.waitForURL('**/lens');
  await page.goBack();
  await expect(page.getByTestId('recorded-right')).toHaveText('−3.25 −1.75 × 20');
});

test('sent while the server is down: it says so, keeps the text, and sends once when it is back', async ({ page, site }) => {
  await site.web.stop();
  await page.getByLabel('Left eye, spectacle power').fill('-4.50 -1.25 x 165');
  await page.getByRole('button', { name: send }).click();
  await expect(page.getByRole('dialog')).toContainText('The server does not answer');
  await page.getByRole('button', { name: 'Back to the page' }).click();
  await expect(page.getByLabel(right)).toHaveValue('-3.25 -1.75 x 20');
  await expect(page.getByTestId('draft-state')).toHaveAttribute('data-state', 'waiting');
  await site.web.start();
  await page.getByRole('button', { name: send }).click();
  await page.waitForURL('**/lens');
  const visitId = /visits\/([^/]+)/.exec(page.url())?.[1] ?? '';
  expect(await site.db.owner`select 1 from refraction where visit_id = ${visitId}`).toHaveLength(2);
});

test('sent while the server’s disk is full: that is said, the text stays, and it is sent once there is room', async ({ page }) => {
  await page.route('**/api/commands/recordRefraction', (route) => route.fulfill({ status: 503, json: { outage: true, why: 'diskFull' } }), { times: 1 });
  await page.getByRole('button', { name: send }).click();
  await expect(page.getByRole('dialog')).toContainText('The server’s disk is full');
  await page.getByRole('button', { name: 'Send it again' }).click();
  await page.waitForURL('**/lens');
});

test('sent after the application was rebuilt: the open page still goes through', async ({ page, site }) => {
  test.setTimeout(240_000);
  await site.web.stop();
  const rebuilt = await ensureBuild('.next-test', { again: true });
  expect(rebuilt.built).toBe(true);
  await site.web.start();
  await page.getByRole('button', { name: send }).click();
  await expect(async () => {
    const visitId = /visits\/([^/]+)/.exec(page.url())?.[1] ?? '';
    expect(await site.db.owner`select 1 from refraction where visit_id = ${visitId}`).toHaveLength(1);
  }).toPass();
  await page.waitForURL('**/lens');
});

test('after a day open: locked, the page as it was, and sent after the password', async ({ page, site }) => {
  await page.clock.fastForward('24:00:00');
  await site.move(24 * 3600);
  await expect(page.getByRole('dialog')).toContainText('Locked');
  await expect(page.getByLabel(right)).toHaveValue('-3.25 -1.75 x 20');
  await page.getByRole('dialog').getByLabel('Password').fill(DEMO_PASSWORD);
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: send }).click();
  await page.waitForURL('**/lens');
  await site.move(-24 * 3600);
});

test('the idle lock hides the page, and what was typed stays behind it', async ({ page }) => {
  await page.clock.fastForward('11:00');
  await expect(page.getByRole('dialog')).toContainText('Locked');
  const veil = await page.locator('.veil').evaluate((e) => getComputedStyle(e).backgroundColor);
  // A colour without a fourth part is opaque.
  expect(veil).toMatch(/^rgb\(\d+, \d+, \d+\)$/);
  await expect(page.getByLabel(right)).toBeAttached();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeVisible();
});
