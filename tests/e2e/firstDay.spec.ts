import { command, expect, openVisit, signIn, test, typePowers } from './site';

test.use({ file: 'firstDay' });

test('an order that came is read box by box, handed over, and is what is worn now', async ({ page, site }) => {
  await signIn(page);
  const visit = await openVisit(page);
  await typePowers(page, '-2.00', '-2.25');
  const visitId = visit.split('/').pop() ?? '';
  const version = async (): Promise<number> => (await site.db.owner<{ version: number }[]>`select version from visit where id = ${visitId}`)[0]?.version ?? 0;
  const lens = { familyId: '', sphere: -2, cylinder: 0, axis: 180, add: null, baseCurve: 8.4, diameter: 14.2 };
  lens.familyId = (await site.db.owner<{ id: string }[]>`select id from lens_family_version where code = 'turnstone-30'`)[0]?.id ?? '';
  const eye = (sphere: number) => ({ mode: 'final', lens: { ...lens, sphere }, triedLensOnEyeId: null });
  const overrides = [
    { eye: null, code: 'dangerUnasked', reason: 'asked by telephone this morning' },
    ...['right', 'left'].flatMap((of) =>
      ['corneaUngraded', 'fitUnread', 'turnUnread', 'minusUnread'].map((code) => ({ eye: of, code, reason: 'looked at elsewhere today' })),
    ),
  ];
  await command(page, 'sign', {
    visitId,
    version: await version(),
    password: 'plain-sight',
    right: eye(-2),
    left: eye(-2.25),
    expiresOn: '2027-11-20',
    waitNote: 'sent away over the sea',
    daysPerWeek: 7,
    overrides,
  });
  await page.goto(`${visit}/supply`);
  await page.getByRole('button', { name: 'Place the order' }).click();
  const order = page.getByTestId('order');
  await expect(order).toHaveAttribute('data-state', 'acknowledged', { timeout: 30_000 });
  const right = page.getByTestId('box-right');
  await expect(right).toContainText('−2.00');
  await right.getByLabel('Lot, R').fill('R4711');
  await right.getByLabel('Expires, R').fill('1 Jan 2026');
  await page.getByLabel('Lot, L').fill('L4712');
  await page.getByLabel('Expires, L').fill('1 Mar 2029');
  await page.getByRole('button', { name: 'Record what came' }).click();
  await expect(right).toContainText('It expired on 1 Jan 2026');
  await right.getByLabel('Expires, R').fill('1 Mar 2029');
  await page.getByRole('button', { name: 'Record what came' }).click();
  const here = page.getByTestId('boxes-here');
  await expect(here).toContainText('lot R4711');
  await expect(here).toContainText('lot L4712');
  await expect(page.getByTestId('boxes-came')).toHaveCount(0);
  const go = page.getByRole('button', { name: 'Hand them over' });
  await expect(go).toBeDisabled();
  await here.getByRole('checkbox', { name: /Name and birth date asked: Wearer/ }).check();
  await go.click();
  await expect(page.getByText('No lenses go home before the lesson is signed off.')).toBeVisible();
  await page.getByRole('button', { name: 'Dismiss' }).click();
  await here.getByLabel('Handles lenses already: how do you know?').fill('has worn them since 2019');
  await go.click();
  await expect(page.getByTestId('boxes-gone-right')).toContainText('handed over');
  await expect(here).toHaveCount(0);
  await page.locator('.frame-strip').getByRole('link').first().click();
  await page.waitForURL('**/wearers/*');
  await expect(page.getByTestId('worn-right')).toHaveText('−2.00');
  await expect(page.getByTestId('worn-left')).toHaveText('−2.25');
});
