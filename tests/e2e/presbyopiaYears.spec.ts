import type { Page } from '@playwright/test';
import { sideways, violations } from './accessible';
import { BORN, boxes, codeOf, does, monovisionOn } from './presbyopes';
import { command, desk, expect, newVisit, say, signIn, test } from './site';

test.use({ file: 'presbyopiaYears' });
test.beforeEach(async ({ page }) => signIn(page));

const YEAR = 365 * 24 * 3600;

/** Fitted a year ago with monovision; worn and liked. */
async function setApart(page: Page, name: string): Promise<string> {
  const { wearerId, visitId } = await monovisionOn(page, name);
  await does(page, visitId, 'recordDriving', { said: 'doesNotDrive' });
  await does(page, visitId, 'handOver', { ...(await boxes(page, visitId)), experienceNote: 'wears since 2004' });
  await does(page, visitId, 'closeVisit', {});
  return wearerId;
}

test('a happy monovision wearer is kept as such through an annual examination', async ({ page, site }) => {
  test.setTimeout(120_000);
  const wearerId = await setApart(page, 'Isolde Penmere');
  await site.move(YEAR);
  await page.context().clearCookies();
  await signIn(page);
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'fullAnnual' });
  const visit = `/visits/${visitId}`;
  await page.goto(`${visit}/worn-now`);
  for (const key of ['7', 'y', 'y']) await page.keyboard.press(key);
  await expect(page.getByTestId('said-left')).toContainText('Yes, in since 07:00');
  // The refraction says nothing of near this time: the addition of a year ago stands.
  await does(page, visitId, 'recordRefraction', { right: '-2.00', left: '-2.00', vertexMm: 12 });
  await page.goto(`${visit}/near-vision`);
  await expect(page.getByTestId('way-decided')).toContainText('Monovision');
  await expect(page.getByText('measured, at 33 cm, of 24 Nov 2026').first()).toBeVisible();
  await page.goto(`${visit}/on-eye`);
  await expect(page.getByTestId('on-right')).toHaveText('−0.50');
  await desk(page, 'Fit');
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, fit` })
      .getByRole('button', { name: 'fits' })
      .click();
  await desk(page, 'Sight');
  // At distance the near eye gives its far power back: that is no change, and its lens alone may read badly there.
  await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('-1.50');
  await page.getByLabel('Left eye, over-refraction', { exact: true }).fill('0');
  await expect(page.getByTestId('order-right')).toContainText('−0.50');
  await expect(page.getByTestId('order-left')).toContainText('−2.00');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('prescribed-right')).toHaveText('−0.50');
  await expect(page.getByTestId('prescribed-left')).toHaveText('−2.00');
  await expect(page.getByTestId('aim-right')).toHaveText('near 33 cm');
  await expect(page.getByTestId('aim-left')).toHaveText('far');
});

test('a first-time presbyope: the accepted pair of the second visit is signed, and driving was asked before it went home', async ({ page, site }) => {
  test.setTimeout(180_000);
  const { wearerId = '' } = await command(page, 'createWearer', { name: 'Morwenna Skerry', birthDate: BORN });
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  await does(page, visitId, 'recordRefraction', { right: '-2.00', left: '-2.00', vertexMm: 12, rightAdd: '+1.75', leftAdd: '+1.75', nearCm: 40 });
  await page.goto(`/visits/${visitId}/near-vision`);
  for (const task of ['Road', 'Phone']) {
    await page.getByRole('button', { name: task, exact: true }).click();
    await expect(page.getByLabel(`${task}, distance in cm`)).toBeVisible();
  }
  await page.getByRole('group', { name: 'Dominance by blur' }).getByRole('button', { name: 'R', exact: true }).click();
  await page.getByRole('button', { name: 'Decide: multifocals' }).click();
  await page.waitForURL('**/lens');
  await page.getByTestId('candidate-curlew-multifocal').getByRole('radio').click();
  await expect(page.getByTestId('start-line')).toContainText('Curlew Multifocal begins by');
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await page.goto(`/visits/${visitId}/lesson`);
  await page.getByLabel('Handles lenses already: how do you know?').fill('single vision since 2004');
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.getByText('Ask about driving first').first()).toBeVisible();
  await page.getByTestId('driving').getByRole('button', { name: 'not until used to them' }).click();
  await expect(page.getByTestId('driving')).toContainText('not until used to them, said 24 Nov');
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.getByTestId('handed-right')).toContainText('Curlew Multifocal');
  await does(page, visitId, 'closeVisit', {});

  // A week later: worn, judged at the wearer's own tasks, kept.
  await site.move(7 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page);
  const { visitId: second = '' } = await command(page, 'openVisit', { wearerId, kind: 'shortFollowUp' });
  await page.goto(`/visits/${second}/worn-now`);
  for (const key of ['7', 'y', 'y']) await page.keyboard.press(key);
  await expect(page.getByTestId('said-left')).toContainText('Yes, in since 07:00');
  await page.goto(`/visits/${second}/on-eye`);
  await page.getByRole('button', { name: 'Both', exact: true }).click();
  const pair = page.getByTestId('pair-desk');
  for (const [task, letters] of [
    ['Road', '20/20'],
    ['Phone', '20/25'],
  ]) {
    await pair.getByLabel(`${task}, acuity with both eyes`).fill(letters ?? '');
    await pair
      .getByRole('group', { name: `${task}, satisfied` })
      .getByRole('button', { name: '9', exact: true })
      .click();
  }
  await pair.getByRole('button', { name: 'Record this pair' }).click();
  await expect(page.getByTestId('task-said-phone')).toContainText('9 of 10 20/25');
  await desk(page, 'Sight');
  for (const eye of ['Right', 'Left']) await page.getByLabel(`${eye} eye, over-refraction`, { exact: true }).fill('0');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.goto(`/visits/${second}/prescription`);
  await expect(page.getByTestId('aim-right')).toHaveText('far and near 40 cm');
  const worn = await page.getByTestId('prescribed-right').textContent();
  expect(worn).toMatch(/^−1\.75|^−2\.00/);
});

test('a toric multifocal: turn and centre both count, an eye is covered to find the culprit, the model is looked at', async ({ page }) => {
  test.setTimeout(120_000);
  const visit = await newVisit(page, 'firstFit', { birthDate: BORN });
  const visitId = visit.split('/').pop() ?? '';
  await does(page, visitId, 'recordRefraction', {
    right: '-2.00 -1.25 x 180',
    left: '-2.00 -1.25 x 180',
    vertexMm: 12,
    rightAdd: '+2.00',
    leftAdd: '+2.00',
    nearCm: 40,
  });
  await page.goto(`${visit}/near-vision`);
  await expect(page.getByTestId('way-recommended')).toContainText('Toric multifocals');
  await page.getByRole('button', { name: 'Decide: toric multifocals' }).click();
  await page.waitForURL('**/lens');
  const avocet = page.getByTestId('candidate-avocet-30-multifocal-toric');
  await avocet.getByRole('radio').click();
  const lens = {
    ...{ familyId: await codeOf(page, visitId, 'avocet-30-multifocal-toric'), sphere: -2, cylinder: -1.25, axis: 180, add: 'CD +2.00' },
    ...{ baseCurve: 8.6, diameter: 14.4, inHand: { lot: 'A-200', expiresOn: '1 Mar 2032' } },
  };
  await does(page, visitId, 'putOnTrials', { right: lens, left: lens, despiteReason: 'brought by the maker today' });
  await page.goto(`${visit}/on-eye`);
  await expect(page.getByLabel('Right eye, mark rotation')).toBeVisible();
  await desk(page, 'Fit');
  await page.getByLabel('Right eye, Centre from the pupil’s, nasal').fill('0.8');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(page.getByTestId('seen-right-pupilNose')).toContainText('0.8');
  await page.getByRole('button', { name: 'Both', exact: true }).click();
  const pair = page.getByTestId('pair-desk');
  await pair.getByLabel('Phone, acuity with both eyes').fill('20/50');
  await pair.getByRole('group', { name: 'Phone, satisfied' }).getByRole('button', { name: '4', exact: true }).click();
  await pair.getByRole('button', { name: 'Record this pair' }).click();
  await expect(page.getByTestId('centre-right')).toContainText('R: centre 0.8 mm off the pupil’s');
  await pair.getByRole('button', { name: 'L covered' }).click();
  await pair.getByLabel('Phone, acuity with both eyes').fill('20/63');
  await pair.getByRole('group', { name: 'Phone, satisfied' }).getByRole('button', { name: '2', exact: true }).click();
  await pair.getByRole('button', { name: 'Record this pair' }).click();
  await expect(page.getByTestId('task-said-phone')).toContainText('4 of 10 20/50');
  await expect(page.getByTestId('task-said-phone')).toContainText('L covered: 2 of 10 20/63');
  await pair.getByText('Through focus').click();
  const focus = page.getByTestId('through-focus');
  await expect(focus.getByRole('img', { name: 'Right eye, Phone: letters as they would look' })).toBeVisible();
  const before = await focus.getByRole('row', { name: /^Phone/ }).textContent();
  await focus.getByLabel('Add, R').selectOption('none');
  await focus.getByLabel('Add, L').selectOption('none');
  await expect.poll(() => focus.getByRole('row', { name: /^Phone/ }).textContent()).not.toBe(before);
  // The whole desk in one view, in both lights; then a narrow tablet, and 1280 at 200 %.
  await page.setViewportSize({ width: 1280, height: 3200 });
  expect(await violations(page)).toEqual([]);
  await page.locator('main').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('d');
  await expect(page.locator('html')).toHaveAttribute('data-lights', 'down');
  expect(await violations(page)).toEqual([]);
  for (const width of [768, 640]) {
    await page.setViewportSize({ width, height: 1024 });
    // The chart follows its room a moment later.
    await expect.poll(() => sideways(page), { message: `at ${width}` }).toBeLessThanOrEqual(0);
  }
});

test('an only good eye: readers over one lens, and the other eye is left alone', async ({ page }) => {
  const visit = await newVisit(page, 'firstFit', { birthDate: BORN });
  const visitId = visit.split('/').pop() ?? '';
  await say(page, visit, { danger: ['none'], eyeHistory: ['onlyGoodEye'] });
  await does(page, visitId, 'recordRefraction', { right: '-2.00', left: null, vertexMm: 12, rightAdd: '+1.75', nearCm: 40 });
  await page.goto(`${visit}/near-vision`);
  await expect(page.getByTestId('way-recommended')).toContainText('Distance lenses with readers');
  await page.getByText('Not offered').click();
  await expect(page.getByText('Only one good eye').first()).toBeVisible();
  await page.getByRole('button', { name: 'Decide: distance lenses with readers' }).click();
  await page.waitForURL(/kind|lens/);
  await page.goto(`${visit}/lens`);
  await expect(page.getByTestId('sees-right')).toHaveText('for far');
  // The only good eye is a stop: a prescriber passes it with a sentence, and it goes on.
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await expect(page.getByText('The only good eye: treat it first, or a prescriber overrides it')).toBeVisible();
  await does(page, visitId, 'overrideStop', { rule: 'onlyGoodEye', reason: 'wears glasses over it at work' });
  await page.reload();
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByTestId('on-right')).toHaveText('−2.00');
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('aim-right')).toHaveText('far');
});
