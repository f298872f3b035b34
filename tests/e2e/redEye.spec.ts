import { command, expect, readRecord, signIn, test } from './site';

test.use({ file: 'redEye' });

test('from any step in one press: sight, what is seen on the cornea by drag and keys, sight in danger said large, the letter', async ({ page }) => {
  await signIn(page);
  const { wearerId = '' } = await command(page, 'createWearer', { name: 'Kerra Venn', birthDate: '1988-03-04' });
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'longFollowUp' });
  await page.goto(`/visits/${visitId}/refraction`);
  await page.getByRole('link', { name: 'Red eye' }).click();
  await page.waitForURL('**/red-eye');
  await page.getByLabel('Right eye, VA unaided').fill('20/60');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('sees-right-unaided')).toHaveText('20/63+1');
  await page.getByLabel('Right eye, VA with pinhole').fill('no');
  await page.keyboard.press('Enter');
  await expect(page.getByText('no is not an acuity').first()).toBeVisible();
  await page.getByRole('group', { name: 'Right eye, Pain', exact: true }).getByRole('button', { name: '6' }).click();
  await page.getByRole('group', { name: 'Right eye, Anterior chamber cells' }).getByRole('button', { name: '1', exact: true }).click();
  await expect(page.getByTestId('threat')).toContainText('Right eye: cells in the anterior chamber, 1 or more');
  await expect(page.getByTestId('threat')).toContainText('no patch, no steroid, no drops');
  // What was typed stays while other things are kept.
  await expect(page.getByLabel('Right eye, VA with pinhole')).toHaveValue('no');
  await page.getByRole('group', { name: 'Right eye: what is drawn' }).getByRole('button', { name: 'Infiltrate' }).click();
  const map = page.getByTestId('cornea-map-right');
  await map.scrollIntoViewIfNeeded();
  const box = await map.boundingBox();
  if (!box) throw new Error('no cornea');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.75, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  // A quarter of 16 mm to the examiner's right of a right eye: 4 mm towards the nose.
  await expect(map).toHaveAttribute('aria-valuetext', /^Infiltrate 1\.0 × 1\.0 mm, 3\.[456] mm from the centre$/);
  await map.focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  await expect(map).toHaveAttribute('aria-valuetext', /^Infiltrate 2\.0 × 2\.0 mm, 2\.[456] mm from the centre$/);
  await page.getByLabel('Across it, mm').fill('3');
  await expect(page.getByText('Across it (3 mm) cannot be longer than its longest measure (2 mm).')).toBeVisible();
  await page.getByLabel('Across it, mm').fill('1');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByTestId('lesion-right')).toContainText('Infiltrate 2.0 × 1.0 mm');
  await expect(page.getByTestId('threat')).toContainText('infiltrate or ulcer of 2 mm or more');
  const { health } = await readRecord<{ health: { lesions: readonly { current: { nasalMm: number; upMm: number } | null }[] } }>(page, visitId);
  expect(health.lesions[0]?.current?.nasalMm).toBeCloseTo(3.5, 0);
  expect(health.lesions[0]?.current?.upMm).toBeCloseTo(0, 0);
  await page.getByRole('button', { name: 'Refer today: letter' }).click();
  await page.waitForURL('**/print/referral');
  await expect(page.getByTestId('drawn')).toContainText(
    /R Infiltrate, 2\.0 × 1\.0 mm; its middle 3\.\d mm nasal and 0\.\d mm (above|below) the corneal centre/,
  );
  await expect(page.getByTestId('drawn')).toContainText('Sight in danger: Right eye');
  await expect(page.getByTestId('sight')).toContainText('20/63+1');
});

test('whoever answers the telephone: six signs, what to say, booked today, and a call for tomorrow on Today', async ({ page, site }) => {
  await signIn(page);
  await command(page, 'createWearer', { name: 'Lowen Tregear', birthDate: '1979-07-08' });
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto('/');
  await page.getByRole('button', { name: 'Red eye' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Wearer').fill('Lowen');
  await panel.getByRole('button', { name: /Lowen Tregear/ }).click();
  await expect(panel.getByRole('button', { name: 'Book it, raise the alert' })).toBeDisabled();
  await panel.getByRole('group', { name: 'What is reported, one press each' }).getByRole('button', { name: 'Redness' }).click();
  await expect(panel.getByTestId('urgency')).toHaveText('To be seen today');
  await panel.getByRole('group', { name: 'What is reported, one press each' }).getByRole('button', { name: 'Pain' }).click();
  await expect(panel.getByTestId('urgency')).toHaveText('To be seen at once');
  await expect(panel).toContainText('Lenses out now, both. If one sticks: do not pull');
  await panel.getByLabel('Comes here today at').fill('7:00');
  await panel.getByRole('button', { name: 'Book it, raise the alert' }).click();
  await expect(panel.getByText('This time is over: from now on, today.')).toBeVisible();
  await panel.getByLabel('Comes here today at').fill('23:00');
  await panel.getByRole('button', { name: 'Book it, raise the alert' }).click();
  await expect(panel).toBeHidden();
  await expect(page.getByRole('row', { name: /Lowen Tregear/ })).toContainText('Red eye');
  await site.move(24 * 3600);
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto('/');
  await expect(page.getByRole('listitem').filter({ hasText: 'Lowen Tregear' })).toContainText('how is the red eye today? Seen, treated, better?');
});
