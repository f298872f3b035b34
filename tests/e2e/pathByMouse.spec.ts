import { command, desk, dragMark, expect, signInOnPage, test } from './site';
import { endLesson, nameCareSystem, signOff } from './lesson';

test.use({ file: 'pathByMouse' });

// The whole job, thin, by mouse: from a spectacle prescription to dispensed, taught, ordered and dated lenses.
test('from the spectacle prescription to dated lenses', async ({ page, site }) => {
  test.setTimeout(180_000);
  await signInOnPage(page);
  await page.getByTestId('today-1').getByRole('button', { name: 'Begin the visit' }).click();
  await page.waitForURL('**/history');
  await page.locator('#q-danger').getByRole('button', { name: /^None/i }).click();
  await page.getByRole('button', { name: 'Record the history' }).click();
  await page.waitForURL('**/eye-health');
  await page.getByTestId('staining-right').click();
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, Staining` })
      .getByRole('button', { name: '0', exact: true })
      .click();
  await page.getByRole('button', { name: 'Record the findings' }).click();
  await expect(page.locator('.toast')).toContainText('Findings recorded');
  await page.getByRole('link', { name: /Refraction/ }).click();
  await page.waitForURL('**/refraction');
  await expect(page.getByText('Nessa Quillby')).toBeVisible();
  await expect(page.getByTestId('birth-date')).toContainText('born 14 Mar 1992');

  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.75 x 20');
  await page.getByLabel('Left eye, spectacle power').fill('-4.50/-1.25x165');
  await expect(page.getByTestId('corneal-right')).toHaveText('−3.13 −1.59 × 20');
  await expect(page.getByTestId('corneal-left')).toHaveText('−4.27 −1.11 × 165');
  await expect(page.getByTestId('working')).toContainText('−3.25 ÷ 1.039 = −3.128');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  // What was said two weeks ago still weighs: the kind of lens is decided before the lens.
  await page.waitForURL('**/kind');
  await expect(page.getByTestId('recommended')).toContainText('toric');
  await page.getByRole('button', { name: /^Choose among/ }).click();
  await page.waitForURL('**/lens');

  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await expect(page.getByTestId('candidate-plover-30-toric')).toContainText('−3.00 −1.75 × 20');
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByTestId('settling-right')).toContainText('settling, 0:0');
  await expect(page.getByTestId('on-left')).toHaveText('−4.25 −1.25 × 160');

  await dragMark(page, 'right', 10);
  await expect(page.getByLabel('Right eye, mark rotation')).toHaveValue('10l');
  for (const _ of [1, 2, 3]) await page.getByRole('button', { name: 'Right eye, Log blink' }).click();
  for (const _ of [1, 2, 3]) await page.getByRole('button', { name: 'Left eye, Log blink' }).click();
  await desk(page, 'Sight');
  const over = page.getByLabel('Right eye, over-refraction');
  await over.fill('-0.75 -0.75 x 160');
  await expect(page.locator('span[data-testid="routes-right"]')).toContainText('1.25 D apart, more than 0.76: measure again');
  await expect(page.getByTestId('order-right')).toHaveCount(0);
  await over.fill('+0.25 −0.50 × 70');
  await expect(page.getByTestId('need-right')).toHaveText('−3.09 −1.56 × 18');
  await expect(page.locator('span[data-testid="routes-right"]')).toContainText('agree, 0.07 D apart');
  await expect(page.getByTestId('order-right')).toContainText('18 + 10 = 28');
  await expect(page.getByTestId('order-right')).toContainText('−3.00 −1.75 × 30');
  await desk(page, 'Fit');
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, fit` })
      .getByRole('button', { name: 'fits' })
      .click();
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.getByRole('button', { name: 'To the prescription' }).click();
  await page.waitForURL('**/prescription');

  await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 30');
  await page.getByLabel('Your password, once more').fill('plain-sight');
  await page.getByRole('button', { name: 'Sign prescription' }).click();
  await expect(page.getByText('Say here why the order need not wait.')).toBeVisible();
  await page.getByLabel('Why the order need not wait for aftercare').fill('At sea from 2 December; wore soft lenses before.');
  await page.getByLabel('Your password, once more').fill('plain-sight');
  await page.getByRole('button', { name: 'Sign prescription' }).click();
  await expect(page.getByTestId('signed')).toContainText('24 Nov 2027');
  await expect(page.getByTestId('signed')).toContainText('Asha Penhallow, optometrist, register FQ 2231');

  await nameCareSystem(page);
  await page.getByRole('button', { name: 'To the lesson' }).click();
  await page.waitForURL('**/lesson');
  await page.getByRole('button', { name: 'Start the lesson' }).click();
  await expect(page.getByTestId('lock')).toContainText('Sign-off locked');
  for (const eye of ['R', 'L']) {
    for (const word of ['came off', 'went on', 'came off', 'went on']) await page.getByRole('button', { name: `${eye} ${word}` }).click();
  }
  await expect(page.getByTestId('count-left-on')).toHaveAttribute('data-done', '2');
  await expect(page.getByRole('button', { name: 'Care topics first' })).toBeDisabled();
  for (const topic of await page.getByRole('checkbox').all()) {
    await topic.click();
    await expect(topic).toHaveAttribute('aria-checked', 'true');
  }
  await expect(page.getByTestId('lock')).toContainText('acuity');
  await endLesson(page);
  await signOff(page);
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.getByTestId('handed-right')).toContainText('lot P');
  await expect(page.getByTestId('handed-left')).toContainText('expires');

  await page.getByRole('button', { name: 'To supply' }).click();
  await page.waitForURL('**/supply');
  await expect(page.getByTestId('run-out-right')).toHaveText('21 Jun 2027');
  await page.getByRole('button', { name: 'Place the order' }).click();
  await expect(page.getByTestId('order')).toHaveAttribute('data-state', 'acknowledged', { timeout: 15_000 });
  await expect(page.getByTestId('order')).toContainText('due 29 Nov 2026');
  await expect(page.getByText('if opened on 24 Dec 2026').first()).toBeVisible();
  await expect(page.getByTestId('reorder-left')).toHaveText('9 Jun 2027');
  const [orders] = await site.db.owner<{ n: number }[]>`select count(*)::int as n from lens_order`;
  expect(orders?.n).toBe(1);

  await page.getByRole('button', { name: 'Close the visit' }).click();
  await page.waitForURL('**/wearers/**');
  await expect(page.getByTestId('worn-right')).toHaveText('−3.00 −1.75 × 20');
  await expect(page.getByText('not the lens worn now').first()).toBeVisible();

  // A week later the lens that went home is on the eye again: the same lens, with how it turned before.
  const [worn] = await site.db.owner<{ wearerId: string }[]>`select wearer_id from lens_order limit 1`;
  await site.move(7 * 24 * 3600);
  await page.context().clearCookies();
  await signInOnPage(page);
  const { visitId = '' } = await command(page, 'openVisit', { wearerId: worn?.wearerId, kind: 'longFollowUp' });
  await page.goto(`/visits/${visitId}/on-eye`);
  await page.getByRole('button', { name: 'Worn since hand-over' }).click();
  await page.waitForURL('**/worn-now');
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye: is this it?` })
      .getByRole('button', { name: 'Yes, this lens' })
      .click();
  await page.getByRole('group', { name: 'In since, o’clock' }).getByRole('button', { name: '7' }).click();
  await expect(page.getByTestId('said-left')).toContainText('Yes, in since 07:00');
  await page.goto(`/visits/${visitId}/on-eye`);
  await expect(page.getByTestId('on-right')).toHaveText('−3.00 −1.75 × 20');
  await expect(page.getByTestId('on-right').locator('..')).toContainText('worn home, Plover 30 Toric');
  await expect(page.getByTestId('turn-before-right')).toContainText('24 Nov 2026, same lens: 10° to your left');
});
