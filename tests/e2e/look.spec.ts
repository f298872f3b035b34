import { sideways, violations } from './accessible';
import { desk, expect, openVisit, readRecord, signIn, test, typePowers } from './site';

test.use({ file: 'look' });

test('every main view, in both lights, wide, narrow and at 200 %', async ({ page }) => {
  test.setTimeout(240_000);
  await page.goto('/sign-in');
  expect(await violations(page), 'sign-in').toEqual([]);
  await signIn(page);
  const visit = await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', '-4.50 -1.25 x 165');
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  const { wearer } = await readRecord(page, visit.split('/').pop() ?? '');
  const views = [
    '/',
    '/diary',
    '/tasks',
    '/orders',
    '/reorders',
    '/outbox',
    '/recalls',
    '/figures',
    '/figures/lessons',
    '/lessons',
    '/drawer/plan',
    '/drawer/order',
    '/drawer/sets',
    '/reorders?lapsed',
    '/wearers',
    '/settings',
    '/settings/rooms',
    '/library',
    '/library/plover-30-toric',
    `${visit}/worn-now`,
    `${visit}/history`,
    `${visit}/eye-health`,
    `${visit}/kind`,
    `${visit}/refraction`,
    `${visit}/near-vision`,
    `${visit}/lens`,
    `${visit}/diagnostic-set`,
    `${visit}/on-eye`,
    `${visit}/on-eye?fit`,
    `${visit}/on-eye?sight`,
    `${visit}/prescription`,
    `${visit}/lesson`,
    `${visit}/supply`,
    `/wearers/${wearer.id}`,
    `/wearers/${wearer.id}/reorder`,
  ];
  const html = page.locator('html');
  const lit = (): Promise<string | null> => html.getAttribute('data-lights');
  expect(await lit()).toBe('up');
  for (const view of views) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(view);
    await page.locator('main').waitFor();
    if (view.includes('?fit')) {
      await desk(page, 'Fit');
      await page.getByRole('button', { name: 'In full' }).click();
    } else if (view.includes('?sight')) await desk(page, 'Sight');
    // A tall page for the long desk: what lies half behind the bar is no target until it is scrolled to.
    if (view.includes('?fit')) await page.setViewportSize({ width: 1280, height: 2400 });
    // As the page before it was left, then the other way round.
    expect(await violations(page), `${view}, lights ${String(await lit())}`).toEqual([]);
    const other = (await lit()) === 'up' ? 'down' : 'up';
    await page.locator('main').click({ position: { x: 5, y: 5 } });
    await page.keyboard.press('d');
    await expect(html).toHaveAttribute('data-lights', other);
    expect(await violations(page), `${view}, lights ${other}`).toEqual([]);
    // 640 × 400 is 1280 × 800 at 200 %; 768 × 1024 a narrow tablet.
    for (const [width, height] of [
      [768, 1024],
      [640, 400],
    ] as const) {
      await page.setViewportSize({ width, height });
      expect(await sideways(page), `${view} at ${width}`).toBeLessThanOrEqual(0);
    }
  }
});

test('headers: policy with a nonce, nothing sniffed, no address handed on', async ({ page, site }) => {
  const response = await page.goto('/sign-in');
  const headers = response?.headers() ?? {};
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['referrer-policy']).toBe('no-referrer');
  expect(headers['x-powered-by']).toBeUndefined();
  for (const [origin, path] of [
    ['http://elsewhere.test', '/api/session'],
    ['http://elsewhere.test', '/api/queries/readToday'],
  ] as const) {
    const refused = await fetch(`${site.url}${path}`, { method: 'POST', headers: { origin, 'content-type': 'application/json' }, body: '{}' });
    expect(refused.status).toBe(403);
  }
  const long = await fetch(`${site.url}/api/session`, {
    method: 'POST',
    headers: { origin: site.url, 'content-type': 'application/json' },
    body: JSON.stringify({ account: 'x'.repeat(400_000) }),
  });
  expect(long.status).toBe(422);
  const nul = await fetch(`${site.url}/api/session`, {
    method: 'POST',
    headers: { origin: site.url, 'content-type': 'application/json' },
    body: '{"account":"a\\u0000b","password":"x"}',
  });
  expect(nul.status).toBe(422);
  // What a proxy says came by https comes by nothing else again.
  const secure = await fetch(`${site.url}/sign-in`, { headers: { 'x-forwarded-proto': 'https' } });
  expect(secure.headers.get('strict-transport-security')).toMatch(/max-age=\d{8}/);
  expect(headers['strict-transport-security']).toBeUndefined();
  for (const path of ['/wearers/%00', '/visits/%E0%A4%A/lens', '/visits/%ff/lens', '/library/%00', '/%c0%ae%c0%ae/']) {
    expect((await fetch(`${site.url}${path}`, { redirect: 'manual' })).status, path).toBeLessThan(500);
  }
  const signedOut = await fetch(`${site.url}/api/queries/searchWearers`, { method: 'POST', headers: { origin: site.url }, body: '{}' });
  expect(signedOut.status).toBe(401);
});

test('before signing in no wearer is named, and a page elsewhere is not a way back', async ({ page }) => {
  await page.goto('/wearers');
  await expect(page).toHaveURL(/sign-in\?to=%2Fwearers/);
  await expect(page.getByText('Nessa Quillby')).toHaveCount(0);
  const gone = await page.goto('/nothing-here');
  expect(gone?.status()).toBe(404);
  await expect(page.getByRole('heading', { name: 'Not found' })).toBeVisible();
  await page.goto('/sign-in?to=/%09/elsewhere.test/');
  await page.getByLabel('Password').fill('plain-sight');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL((url) => url.pathname === '/');
  await page.goto('/staff');
  await expect(page.getByRole('heading', { name: 'Not for your role' })).toBeVisible();
  await page.goto('/wearers/nobody');
  await expect(page.getByRole('heading', { name: 'Not found' })).toBeVisible();
});

test('the practice manager runs the practice and opens no record', async ({ page }) => {
  await signIn(page, 'merle');
  await page.goto('/');
  const row = page.getByTestId('today-1');
  await expect(row).toContainText('Nessa Quillby');
  await expect(row.getByRole('link')).toHaveCount(0);
  await expect(row.getByRole('button')).toHaveCount(0);
  await page.goto('/wearers');
  await expect(page.getByText('Nessa Quillby')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Nessa Quillby' })).toHaveCount(0);
  await page.goto('/drawer');
  await expect(page.getByTestId('receive')).toBeVisible();
});
