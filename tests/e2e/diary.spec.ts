import { expect, signIn, test } from './site';

test.use({ file: 'diary' });

test('booked by two presses from the wearer’s page, moved by hand and by keys, taken back', async ({ page }) => {
  await signIn(page, 'renny');
  await page.goto('/wearers');
  await page.getByRole('link', { name: 'Sunniva Holt' }).click();
  await page.getByRole('button', { name: 'Book', exact: true }).click();
  const panel = page.getByRole('dialog');
  await expect(panel).toContainText('born 28 Feb 2001');
  const first = panel.getByRole('region', { name: 'Next free' }).getByRole('button').first();
  await expect(first).toContainText('Tue 24 Nov');
  await first.click();
  await expect(panel).toBeHidden();
  const block = page.getByTestId('block-9');
  await expect(block).toContainText('Sunniva Holt');
  const row = page.getByTestId('today-9');
  const before = await row.locator('td').first().innerText();

  // By keys: half an hour later.
  await block.focus();
  await page.keyboard.press('Space');
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await expect(page.getByText('Sunniva Holt moved.')).toBeVisible();
  const minutes = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));
  await expect.poll(async () => minutes(await row.locator('td').first().innerText())).toBe(minutes(before) + 30);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row.locator('td').first()).toHaveText(before);

  // By hand, to the afternoon.
  const box = await block.boundingBox();
  const lanes = await page.locator('.strip-lanes').first().boundingBox();
  if (!box || !lanes) throw new Error('nothing to drag');
  const perMinute = lanes.width / 480;
  const to = (14 * 60 + 30 - minutes(before)) * perMinute;
  await page.mouse.move(box.x + 8, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 8 + to / 2, box.y + 20, { steps: 4 });
  await page.mouse.move(box.x + 8 + to, box.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect(row.locator('td').first()).toHaveText('14:30');
});

test('over another one: said, and only with a reason', async ({ page }) => {
  await signIn(page, 'renny');
  await page.goto('/diary');
  await page.getByRole('button', { name: 'Book', exact: true }).click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Wearer', { exact: true }).fill('bettina');
  await panel.getByRole('button', { name: /Bettina Marrowby/ }).click();
  await panel.getByLabel('Day').fill('24 Nov 2026');
  await panel.getByLabel('Time').fill('10:05');
  await panel.getByLabel('Room').selectOption('Room 2');
  await panel.getByRole('button', { name: 'Book this time' }).click();
  await expect(panel).toContainText('Nessa Quillby has this room from 10:00.');
  await panel.getByLabel('Book it all the same, because').fill('two minutes only, a lens to collect');
  await panel.getByRole('button', { name: 'Book all the same' }).click();
  await expect(panel).toBeHidden();
  await page.getByTestId('block-8').click();
  await expect(page.getByTestId('appointment-story')).toContainText('two minutes only, a lens to collect');
});

test('the day at the desk: arrived, late, a no-show who is called tomorrow, and all of it on the fitter’s page', async ({ page, site }) => {
  await signIn(page, 'renny');
  await page.goto('/');
  const change = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: `Change ${name}’s appointment` }).click();
    await expect(page.getByRole('dialog')).toContainText(name);
  };
  await change('Nessa Quillby');
  await page.getByRole('dialog').getByRole('button', { name: 'Arrived' }).click();
  await expect(page.getByTestId('today-1')).toContainText('arrived');
  await change('Iola Fenmore');
  await page.getByLabel('Minutes late').fill('20');
  await page.getByRole('button', { name: 'Said late' }).click();
  await expect(page.getByTestId('today-5')).toContainText('said 20 min late');
  await change('Caspian Udell');
  await page.getByRole('button', { name: 'No-show' }).click();
  await expect(page.getByRole('dialog')).toContainText('It is not time yet');
  await page.keyboard.press('Escape');
  // Three quarters of an hour later, signed in anew.
  await page.getByRole('button', { name: /sign out/ }).click();
  await page.waitForURL('**/sign-in');
  await site.move(45 * 60);
  await page.clock.setSystemTime(await site.now());
  await signIn(page, 'renny');
  await page.goto('/');
  await expect(page.getByTestId('today-2')).toContainText('min late');
  await change('Caspian Udell');
  await page.getByRole('button', { name: 'No-show' }).click();
  await expect(page.getByTestId('today-2')).toContainText('no-show');
  await page.goto('/tasks');
  const task = page.getByTestId('task');
  await expect(task).toContainText('Call: did not come');
  await expect(task).toContainText('25 Nov 2026');
  await page.getByRole('button', { name: 'Add a task' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(panel).toContainText('What is to be done? A few words.');
  await panel.getByLabel('What is to be done').fill('send the leaflet');
  await panel.getByLabel('Who').selectOption('Asha Penhallow');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByTestId('task')).toHaveCount(2);

  await page.getByRole('button', { name: /sign out/ }).click();
  await page.waitForURL('**/sign-in');
  await signIn(page);
  await page.goto('/');
  const due = page.getByTestId('due-ruler').getByRole('listitem');
  await expect(due.first()).toContainText('Nessa Quillby');
  await expect(page.getByTestId('tasks')).toContainText('send the leaflet');
  await page.getByTestId('tasks').getByRole('button', { name: 'Done' }).click();
  await expect(page.getByTestId('tasks')).toContainText('Nothing is due today.');
  await due.first().getByRole('button', { name: 'Start' }).click();
  await page.waitForURL('**/history');
});
