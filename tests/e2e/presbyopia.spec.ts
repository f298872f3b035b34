import { sideways, violations } from './accessible';
import type { Page } from '@playwright/test';
import { expect, openVisit, signIn, test } from './site';

test.use({ file: 'presbyopia' });
test.beforeEach(async ({ page }) => signIn(page));

/** Powers of both eyes; whoever is of the age goes on to near vision. */
async function powers(page: Page): Promise<void> {
  for (const eye of ['Right', 'Left']) await page.getByLabel(`${eye} eye, spectacle power`).fill('-2.00');
  await page.getByRole('button', { name: 'Record, then near vision' }).click();
  await page.waitForURL('**/near-vision');
}

const BORN = { birthDate: '1974-05-06' };

test('a first-time presbyope: tasks, dominance, the way, a starting pair by its table, judged by both eyes, the one change', async ({ page }) => {
  test.setTimeout(120_000);
  const visit = await openVisit(page, 'firstFit', BORN);
  await page.getByRole('button', { name: 'Use the estimate' }).click();
  await powers(page);
  await expect(page.getByTestId('way-recommended')).toContainText('Multifocals');
  for (const task of ['Road', 'Phone']) {
    await page.getByRole('button', { name: task, exact: true }).click();
    await expect(page.getByLabel(`${task}, distance in cm`)).toBeVisible();
  }
  const phone = page.getByLabel('Phone, distance in cm');
  await phone.fill('5');
  await expect(page.getByText('Between 20 and 600 cm.')).toBeVisible();
  await phone.press('Enter');
  await expect(phone).toHaveValue('5');
  await phone.fill('33');
  await phone.press('Enter');
  await expect(page.getByTestId('demand-phone')).toHaveText('3.03 D');
  await page.getByRole('group', { name: 'Dominance by blur' }).getByRole('button', { name: 'R', exact: true }).click();
  await expect(page.getByTestId('dominance')).toContainText('R is dominant, by blur.');
  await page.getByRole('group', { name: 'Dominance by sighting' }).getByRole('button', { name: 'L', exact: true }).click();
  await expect(page.getByTestId('dominance')).toContainText('Blur decides');
  expect(await violations(page)).toEqual([]);
  expect(await sideways(page)).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: 'Decide: multifocals' }).click();
  await page.waitForURL('**/lens');

  const curlew = page.getByTestId('candidate-curlew-multifocal');
  await curlew.getByRole('radio').click();
  await expect(curlew).toContainText('medium add');
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await page.getByRole('button', { name: 'Both', exact: true }).click();
  const desk = page.getByTestId('pair-desk');
  await expect(desk).toContainText('Record at least one task');
  await desk.getByLabel('Phone, acuity with both eyes').fill('20/50');
  await expect(desk.getByText('Say how satisfied, 0 to 10.')).toBeVisible();
  await expect(desk.getByRole('button', { name: 'Record this pair' })).toBeDisabled();
  await desk.getByRole('group', { name: 'Phone, satisfied' }).getByRole('button', { name: '3', exact: true }).click();
  await desk.getByLabel('Road, acuity with both eyes').fill('20/20');
  await desk.getByRole('group', { name: 'Road, satisfied' }).getByRole('button', { name: '9', exact: true }).click();
  await desk.getByText('A quarter held before each eye').click();
  await desk.getByRole('group', { name: 'Left eye, +0.25 D, Phone' }).getByRole('button', { name: 'better' }).click();
  await desk.getByRole('group', { name: 'Left eye, +0.25 D, Road' }).getByRole('button', { name: 'same' }).click();
  await desk.getByRole('button', { name: 'Record this pair' }).click();
  await expect(page.getByTestId('proposed')).toHaveText('L: +0.25 D');
  await expect(page.getByTestId('next-change')).toContainText('Phone: 20/50');
  // All of it in one view: what lies half under a bar would count as too small to hit.
  const view = page.viewportSize() ?? { width: 1280, height: 800 };
  await page.setViewportSize({ width: view.width, height: 2400 });
  expect(await violations(page)).toEqual([]);
  await page.setViewportSize(view);
  expect(await sideways(page)).toBeLessThanOrEqual(0);
  await page.getByRole('button', { name: 'Keep the forecast and put it on' }).first().click();
  await expect(page.getByTestId('on-left')).toHaveText('−1.50');
  await expect(page.getByTestId('on-right')).toHaveText('−1.75');

  // Judged once more: satisfied at every task, the pair is kept.
  for (const task of ['Phone', 'Road'])
    await desk
      .getByRole('group', { name: `${task}, satisfied` })
      .getByRole('button', { name: '9', exact: true })
      .click();
  await desk.getByRole('button', { name: 'Record this pair' }).click();
  await expect(page.getByTestId('next-change')).toContainText('keep this pair');
  await page.goto(`${visit}/near-vision`);
  await expect(page.getByTestId('way-decided')).toContainText('Multifocals');
});

test('prism before: monovision is barred, and chosen with a prescriber’s sentence', async ({ page }) => {
  await openVisit(page, 'firstFit', BORN);
  await powers(page);
  await page.getByRole('group', { name: 'Squint, patching or prism before' }).getByRole('button', { name: 'prism' }).click();
  await page.getByText('Not offered').click();
  await expect(page.getByText('set apart, the eyes may see double').first()).toBeVisible();
  await page.getByText('Another way').click();
  await page.getByRole('combobox', { name: 'Another way' }).selectOption({ label: 'Monovision' });
  await page.getByRole('button', { name: 'Decide this way' }).click();
  await expect(page.getByText('Say in a sentence why this way.')).toBeVisible();
  await page.getByLabel('Why this way').fill('wore it for ten years, no double vision');
  await page.getByRole('button', { name: 'Decide this way' }).click();
  await expect(page.getByTestId('way-decided')).toContainText('wore it for ten years');
});
