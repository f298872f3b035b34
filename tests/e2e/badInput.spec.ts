import { expect, openVisit, signIn, test } from './site';

test.use({ file: 'badInput' });

test.beforeEach(async ({ page }) => {
  await signIn(page);
  await openVisit(page);
});

test('each slip is said at its field with a way to repair it, and what was typed stays', async ({ page }) => {
  const right = page.getByLabel('Right eye, spectacle power');
  const left = page.getByLabel('Left eye, spectacle power');
  const note = page.locator('#power-right-note');
  for (const [typed, says, repair, becomes] of [
    ['-1.00 -0.75 x 181', 'The axis 181 is not between 1 and 180.', 'Use −1.00 −0.75 × 1', '−1.00 −0.75 × 1'],
    ['300', '300 has no sign: minus or plus?', 'Use −3.00', '−3.00'],
    ['3.1', '3.1 is not on a quarter dioptre.', 'Use +3.00', '+3.00'],
    ['-1.00 0.75 x 20', 'The cylinder 0.75 has no sign: minus or plus?', 'Use −1.00 −0.75 × 20', '−1.00 −0.75 × 20'],
  ] as const) {
    await right.fill(typed);
    await left.focus();
    await expect(note).toContainText(says);
    await expect(right).toHaveValue(typed);
    await note.getByRole('button', { name: repair }).click();
    await expect(right).toHaveValue(becomes);
  }
  await right.fill('-1.00 -0.75');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await expect(note).toContainText('has a cylinder but no axis');
  await expect(right).toBeFocused();
  await right.fill('-3.o0');
  await left.focus();
  await expect(note).toContainText('“-3.o0” is not a number.');
  await right.fill('-1.00 -0.75 x 0');
  await expect(note).toContainText('Axis 0 is read as 180');
  await expect(note).toContainText('reads as −1.00 −0.75 × 180');
});

test('repairs and keeping by key', async ({ page }) => {
  const right = page.getByLabel('Right eye, spectacle power');
  await right.fill('300');
  await page.keyboard.press('Tab');
  await right.focus();
  await page.getByLabel('Left eye, spectacle power').focus();
  await right.focus();
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.keyboard.press('Alt+y');
  await expect(right).toHaveValue('−3.00');
  await right.fill('-14.00');
  await expect(page.locator('#power-right-note')).toContainText('Unusually strong sphere');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await expect(page).toHaveURL(/refraction$/);
  await right.focus();
  await page.keyboard.press('Alt+k');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL('**/lens');
});

test('vertex 0 is refused with the repair; nothing is recorded', async ({ page, site }) => {
  await page.getByLabel('Right eye, spectacle power').fill('-2.00');
  await page.getByLabel('Vertex, mm').fill('0');
  await expect(page.getByText('0 mm is outside 5 to 20 mm.')).toBeVisible();
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await expect(page.getByText('0 mm is outside 5 to 20 mm.')).toBeVisible();
  const visitId = /visits\/([^/]+)/.exec(page.url())?.[1] ?? '';
  expect(await site.db.owner`select 1 from refraction where visit_id = ${visitId}`).toHaveLength(0);
  await page.getByRole('button', { name: 'Use 12 mm' }).click();
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL('**/lens');
});

test('unfinished typing survives a reload, and says that it is kept', async ({ page }) => {
  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.');
  await page.getByLabel('Vertex, mm').fill('13');
  await page.reload();
  await expect(page.getByLabel('Right eye, spectacle power')).toHaveValue('-3.25 -1.');
  await expect(page.getByLabel('Vertex, mm')).toHaveValue('13');
  await expect(page.getByTestId('draft-state')).toHaveAttribute('data-state', 'saved');
});

test('a wearer without a birth date, or with two readings of it', async ({ page }) => {
  await page.goto('/wearers');
  await page.getByRole('button', { name: 'Add a wearer' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Maud Ellery');
  await page.getByRole('button', { name: 'Add the wearer' }).click();
  await expect(page.getByText('A birth date is needed')).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Maud Ellery');
  await page.getByLabel('Birth date').fill('3/4/1950');
  await page.getByRole('button', { name: 'Add the wearer' }).click();
  await expect(page.getByText('can be read as two dates')).toBeVisible();
  await page.getByRole('button', { name: 'Use 3 Apr 1950' }).click();
  await page.getByRole('button', { name: 'Add the wearer' }).click();
  await page.waitForURL('**/wearers/*');
  await expect(page.getByTestId('birth-date')).toContainText('born 3 Apr 1950');
});

test('a bare turn asks for its side', async ({ page }) => {
  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.75 x 20');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  await page.getByLabel('Right eye, mark rotation').fill('10');
  await expect(page.getByText('10 to which side?')).toBeVisible();
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(page.getByText('10 to which side?')).toBeVisible();
  await page.getByLabel('Right eye, mark rotation').fill('60l');
  await expect(page.getByText('Over 45°: is it right?')).toBeVisible();
  await page.getByLabel('Right eye, mark rotation').fill('95l');
  await expect(page.getByText('95° is past 90°.')).toBeVisible();
  await page.getByLabel('Right eye, mark rotation').fill('10');
  await page.getByRole('button', { name: 'Use 10° to your right' }).click();
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(page.getByTestId('blinks-right')).toContainText('10°to your right');
  await expect(page.getByText('1 blink recorded')).toBeVisible();
});
