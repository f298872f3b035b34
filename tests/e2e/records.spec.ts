import { command, expect, openVisit, signIn, test, typeBlinks, typePowers, watch } from './site';

test.use({ file: 'records' });
test.beforeEach(({ page }) => signIn(page));

test('finding wearers by name and by record number', async ({ page }) => {
  await page.goto('/wearers');
  await page.keyboard.press('/');
  await expect(page.getByLabel('Find by name or record number')).toBeFocused();
  await page.keyboard.type('quill');
  await expect(page.getByRole('link', { name: 'Nessa Quillby' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Dov Hartnoll' })).toHaveCount(0);
  await page.getByLabel('Find by name or record number').fill('0006');
  await expect(page.getByRole('link', { name: 'Dov Hartnoll' })).toBeVisible();
  await page.getByLabel('Find by name or record number').fill('100%_');
  await expect(page.getByText('Nobody called “100%_”.')).toBeVisible();
});

test('a record changed by somebody else meanwhile is not overwritten', async ({ page, browser, site }) => {
  await page.goto('/wearers');
  await page.getByRole('link', { name: 'Bettina Marrowby' }).click();
  await page.waitForURL('**/wearers/*');
  await page.getByRole('button', { name: 'Edit the record' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Telephone').fill('555 7777');
  const other = await browser.newContext({ baseURL: site.url });
  const renny = await other.newPage();
  watch(renny);
  await signIn(renny, 'renny');
  await renny.goto(page.url());
  await renny.getByRole('button', { name: 'Edit the record' }).click();
  await renny.getByRole('dialog').getByLabel('Work').fill('printer');
  await renny.getByRole('button', { name: 'Save' }).click();
  await expect(renny.getByRole('dialog')).toHaveCount(0);
  await other.close();
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel).toContainText('Somebody changed this record meanwhile');
  await expect(panel).toContainText('Work is now “printer”');
  await expect(panel.getByLabel('Telephone')).toHaveValue('555 7777');
});

test('another trial takes the first off; lenses mixed up change places with one reason', async ({ page }) => {
  await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', '-4.50 -1.25 x 165');
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await typeBlinks(page, 'Right', '10l', '10l', '10l');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(page.getByTestId('blinks-right')).toContainText('10°to your left');
  await expect(page.getByText('provisional: read before it settled')).toBeVisible();
  await page.getByRole('button', { name: 'Another trial lens' }).click();
  await page.waitForURL('**/lens');
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await expect(page.getByTestId('candidate-plover-30-toric')).toContainText('−3.00 −1.75 × 30');
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByTestId('on-right')).toHaveText('−3.00 −1.75 × 30');
  await expect(page.getByTestId('station-right-1')).toContainText('10° left');
  await expect(page.getByText('Trial 2, Plover 30 Toric').first()).toBeVisible();
  await page.getByRole('button', { name: 'R and L mixed up?' }).first().click();
  await page.getByRole('dialog').getByLabel('Why').fill('boxes swapped');
  await page.getByRole('button', { name: 'Swap R and L' }).click();
  await expect(page.getByTestId('on-right')).toHaveText('−4.25 −1.25 × 160');
  await expect(page.getByTestId('on-left')).toHaveText('−3.00 −1.75 × 30');
});

test('one who handles lenses already takes the trial home on a note; a lot misread is corrected', async ({ page }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-2.00', null);
  await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  await page.goto(`${visit}/lesson`);
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.locator('.refusal')).toContainText('No lenses go home before the lesson is signed off.');
  await page.getByRole('button', { name: 'Dismiss' }).click();
  await page.getByLabel('Handles lenses already: how do you know?').fill('wears since 2019, shown today');
  await page.getByLabel('Expires, R').fill('1 Jan 2020');
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.getByText('It expired on 1 Jan 2020')).toBeVisible();
  await page.getByLabel('Expires, R').fill('1 Jan 2028');
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.getByTestId('handed-right')).toContainText('expires 1 Jan 2028');
  await page.getByTestId('correct-handOver-right').click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Lot').fill('T9999');
  await panel.getByLabel('Why').fill('misread the pack');
  await panel.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByTestId('handed-right')).toContainText('lot T9999');
  await expect(page.locator('del')).toHaveCount(1);
});

test('a lens that never went on is removed; only if it was not opened it is back in the drawer', async ({ page, site }) => {
  const inDrawer = async (): Promise<number> => (await site.db.owner<{ n: number }[]>`select sum(count)::int as n from trial_stock`)[0]?.n ?? 0;
  await openVisit(page);
  await typePowers(page, '-2.00', null);
  const before = await inDrawer();
  for (const unopened of [false, true]) {
    await page.goto(page.url().replace(/[^/]+$/, 'lens'));
    await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
    await page.getByRole('button', { name: 'Put it on R' }).click();
    await page.waitForURL('**/on-eye');
    await page.getByTestId('correct-lensOnEye-right').click();
    const panel = page.getByRole('dialog');
    await expect(panel).toContainText('it is removed, and stays to be read, struck');
    const check = panel.getByRole('checkbox', { name: 'The lens was not opened: put it back in the drawer' });
    await expect(check).not.toBeChecked();
    if (unopened) await check.check();
    await panel.getByLabel('Why').fill('meant for the next wearer');
    await panel.getByRole('button', { name: 'Correct it' }).click();
    await expect(panel).toHaveCount(0);
    // The first lens was opened and is lost; the second is back.
    expect(await inDrawer()).toBe(before - 1);
  }
});

test('a minor without a guardian is not taught until one is named', async ({ page }) => {
  const { wearerId } = await command(page, 'createWearer', { name: 'Tobin Ellery', birthDate: '2012-05-05' });
  const { visitId } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  await page.goto(`/visits/${visitId ?? ''}/refraction`);
  await typePowers(page, '-2.00', '-2.00');
  await page.getByTestId('candidate-dunlin-1-day').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await expect(page.locator('.refusal')).toContainText('No guardian has agreed');
  await page.goto(`/visits/${visitId ?? ''}/eye-health`);
  await page.getByTestId('reason-minorWithoutGuardian').getByRole('button', { name: 'Override with a reason' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('mother on the telephone');
  await page.getByRole('button', { name: 'Override with this reason' }).click();
  await expect(page.getByTestId('passed-minorWithoutGuardian')).toContainText('mother on the telephone');
  await page.goto(`/visits/${visitId ?? ''}/lens`);
  await page.getByTestId('candidate-dunlin-1-day').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await page.goto(`/visits/${visitId ?? ''}/lesson`);
  await page.getByRole('button', { name: 'Start the lesson' }).click();
  await expect(page.locator('.refusal')).toContainText('needs a guardian named');
  await page.getByRole('link', { name: 'Tobin Ellery', exact: true }).click();
  await page.getByRole('button', { name: 'Edit the record' }).click();
  await page.getByRole('dialog').getByLabel('Guardian').fill('Maud Ellery, mother');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Maud Ellery, mother')).toBeVisible();
  await page.goto(`/visits/${visitId ?? ''}/lesson`);
  await page.getByRole('button', { name: 'Start the lesson' }).click();
  await expect(page.getByTestId('lock')).toContainText('Sign-off locked');
  await expect(page.getByRole('checkbox', { name: 'Rub and rinse' })).toHaveCount(0);
});

test('every figure opens to its working, by click and by key', async ({ page }) => {
  await openVisit(page);
  await page.getByLabel('Right eye, spectacle power').fill('-8.00 -2.50 x 10');
  await page.getByTestId('corneal-right').click();
  await expect(page.getByTestId('working')).toHaveCount(0);
  await page.getByTestId('corneal-right').click();
  await expect(page.getByTestId('working')).toContainText('−8.00 ÷ 1.096 = −7.299');
  await typePowers(page, null, null);
  await page.getByRole('heading', { name: 'Reasoning' }).click();
  await expect(page.getByTestId('working')).toContainText('√(M² + J0² + J45²)');
  await page.keyboard.press('w');
  await expect(page.getByTestId('working')).toHaveCount(0);
  await page.keyboard.press('w');
  await expect(page.getByTestId('working')).toBeVisible();
});

test('a manager makes two records of one person one, and two again', async ({ page, site }) => {
  await page.context().clearCookies();
  await signIn(page, 'merle');
  await page.goto('/wearers');
  await page.getByRole('button', { name: 'Two records of one person' }).click();
  await page.waitForURL('**/wearers/merge');
  await page.getByLabel('Record to keep').fill('4');
  await page.getByLabel('Record that becomes part of it').fill('999');
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByText('There is no record 999.')).toBeVisible();
  await page.getByLabel('Record that becomes part of it').fill('0003');
  await page.getByRole('button', { name: 'Compare' }).click();
  const pair = page.getByTestId('merge-pair');
  await expect(pair.getByRole('row', { name: /Name/ })).toContainText('differs');
  await pair.getByRole('button', { name: 'Make 0003 part of 0004' }).click();
  await expect(pair.getByText('Say why in a few words')).toBeVisible();
  await pair.getByLabel('Why they are one person').fill('changed her name in spring');
  await pair.getByRole('button', { name: 'Make 0003 part of 0004' }).click();
  await expect(pair.getByText(/^Born .* usually two people/)).toBeVisible();
  await pair.getByLabel('Why one person has two birth dates').fill('a slip at the desk');
  await pair.getByRole('button', { name: 'Make 0003 part of 0004' }).click();
  await expect(page.getByText('0003 is part of 0004 now.')).toBeVisible();
  const merges = page.getByTestId('merges');
  await expect(merges).toContainText('Merle Vantongeren');
  await page.goto('/wearers');
  await page.getByLabel('Find by name or record number').fill('0003');
  await expect(page.getByRole('row')).toHaveCount(2);
  await expect(page.getByText('Pia Lindqvarn')).toBeVisible();
  await page.goto('/wearers/merge');
  await merges.getByRole('button', { name: 'Take apart' }).click();
  await merges.getByLabel('Why they are two people').fill('sisters');
  await merges.getByRole('button', { name: 'Take apart now' }).click();
  await expect(merges).toContainText('Taken apart by Merle Vantongeren');
  expect(await site.db.owner`select 1 from wearer where merged_into is not null`).toHaveLength(0);
});
