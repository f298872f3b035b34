import { command, desk, expect, openVisit, say, saySentences, see, signIn, test, typeBlinks, typePowers, watch } from './site';

test.use({ file: 'variations' });
test.beforeEach(({ page }) => signIn(page));

test('one eye only', async ({ page }) => {
  await openVisit(page);
  await typePowers(page, null, '-4.50 -1.25 x 165');
  await expect(page.getByText('not fitted').first()).toBeVisible();
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on L' }).click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByTestId('on-left')).toBeVisible();
  await typeBlinks(page, 'Left', '0', '0', '0');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.getByRole('button', { name: 'To the prescription' }).click();
  await page.getByLabel('Why the order need not wait for aftercare').fill('one eye');
  await saySentences(page);
  await page.getByLabel('Your password, once more').fill('plain-sight');
  await page.getByRole('button', { name: 'Sign prescription' }).click();
  await expect(page.getByTestId('signed')).toBeVisible();
  await expect(page.getByText('nothing prescribed')).toBeVisible();
});

test('R and L from different families', async ({ page }) => {
  await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', '-2.00');
  await page.getByRole('button', { name: 'Eyes apart' }).click();
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await page.getByRole('button', { name: 'Choose L' }).click();
  await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByTestId('on-right')).toHaveText('−3.00 −1.75 × 20');
  await expect(page.getByTestId('on-left')).toHaveText('−2.00');
  await expect(page.getByText('Trial 1, Turnstone 30')).toBeVisible();
  await expect(page.getByText('this lens has no mark')).toBeVisible();
  await page.getByRole('button', { name: 'Take it off' }).last().click();
  await page.getByRole('button', { name: 'It is still on' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('wrong button');
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByText('“wrong button”')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it off' })).toHaveCount(2);
});

test('a lens brought in: unknown it is not read through, known it is read like a trial', async ({ page }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', null);
  await page.goto(`${visit}/on-eye`);
  await page.getByRole('button', { name: 'A lens brought in' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByRole('button', { name: 'It is on the eye' }).click();
  await expect(panel).toContainText('What is it called?');
  await panel.getByLabel('What it is called').fill('Heron 30 Toric');
  await panel.getByRole('button', { name: 'nobody knows' }).click();
  await panel.getByRole('button', { name: 'It is on the eye' }).click();
  await expect(page.getByText('Nobody knows this lens')).toBeVisible();
  await expect(page.getByLabel('Right eye, over-refraction')).toHaveCount(0);
  await page.getByRole('button', { name: 'A lens brought in' }).click();
  await panel.getByLabel('What it is called').fill('Heron 30 Toric');
  await panel.getByLabel('Its power, if anybody knows').fill('-3.00 -1.75 x 20');
  await panel.getByRole('button', { name: 'I saw the box' }).click();
  await panel.getByRole('button', { name: 'It is on the eye' }).click();
  await expect(page.getByText('Brought in: Heron 30 Toric')).toBeVisible();
  await typeBlinks(page, 'Right', '10l', '10l', '10l');
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, over-refraction').fill('+0.25 -0.50 x 70');
  await expect(page.getByTestId('need-right')).toHaveText('−3.09 −1.56 × 18');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.getByRole('button', { name: 'To the prescription' }).click();
  await page.getByLabel('Right eye, lens family').selectOption('plover-30-toric');
  // The turn was read on a family that is not this one: it is not allowed for.
  await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 20');
  await expect(page.getByText('rotation was read on another family')).toBeVisible();
});

test('an eye out of range: each family says by how much, and what blur to expect where it is made', async ({ page }) => {
  await openVisit(page);
  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -3.50 x 45');
  // So much cylinder beside its sphere may be a power cross: asked once.
  await page.getByRole('button', { name: 'Keep it as typed' }).click();
  await typePowers(page, null, '-11.00 -1.25 x 165');
  const plover = page.getByTestId('candidate-plover-30-toric');
  await expect(plover.getByTestId('out-right')).toHaveText('out by 0.87 D of cylinder');
  await expect(plover.getByTestId('out-left')).toHaveText('out by 0.82 D of sphere');
  const made = page.getByTestId('candidate-godwit-made-toric');
  await expect(made.getByTestId('out-right')).toHaveCount(0);
  await made.getByRole('radio').click();
  await expect(page.getByTestId('working')).toContainText('rotation assumed, thin zones0° ± 7°');
  await expect(page.getByTestId('working')).toContainText('blur to expect0.38 D');
});

test('stopping half-way and coming back', async ({ page }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', '-4.50 -1.25 x 165');
  await page.goto('/');
  await page.goto('/wearers');
  await page.getByText('visit under way').last().click();
  await page.waitForURL('**/history');
  await page.goto(`${visit}/refraction`);
  await expect(page.getByTestId('recorded-left')).toHaveText('−4.50 −1.25 × 165');
  await page.locator('a.step', { hasText: 'Lens' }).click();
  await page.waitForURL('**/lens');
  await expect(page.getByTestId('candidate-plover-30-toric')).toBeVisible();
});

test('going home without lenses', async ({ page }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', null);
  await page.goto(`${visit}/supply`);
  await page.getByRole('button', { name: 'Close: no lenses go home' }).click();
  await page.waitForURL('**/wearers/**');
  await expect(page.getByText('nothing known').first()).toBeVisible();
  await page.goto(`${visit}/refraction`);
  await expect(page.getByText('This visit is closed')).toBeVisible();
  await expect(page.getByLabel('Right eye, spectacle power')).toBeDisabled();
});

test('two people at once: the second is told what differs and keeps what was typed', async ({ page, browser, site }) => {
  const visit = await openVisit(page);
  await page.getByLabel('Right eye, spectacle power').fill('-2.00');
  // Kept on the server, a moment after it was typed.
  await expect(page.getByTestId('draft-state')).toHaveAttribute('data-state', 'saved');
  const other = await browser.newContext({ baseURL: site.url, timezoneId: 'America/New_York' });
  const joss = await other.newPage();
  watch(joss);
  await signIn(joss, 'joss');
  await joss.goto(`${visit}/refraction`);
  await expect(joss.getByText('Asha Penhallow has unfinished typing in this step')).toBeVisible();
  await typePowers(joss, '-3.50 -1.00 x 90', null);
  await other.close();
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await expect(page.getByRole('dialog')).toContainText('Somebody recorded something meanwhile');
  await expect(page.getByRole('dialog')).toContainText('−3.50 −1.00 × 90');
  await expect(page.getByRole('dialog')).toContainText('Joss Merriday');
  await page.getByRole('button', { name: 'Show it, and keep what I typed' }).click();
  await expect(page.getByTestId('recorded-right')).toHaveText('−3.50 −1.00 × 90');
  await expect(page.getByLabel('Right eye, spectacle power')).toHaveValue('-2.00');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL('**/lens');
});

test('correct, exchange, undo', async ({ page }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', '-4.50 -1.25 x 165');
  await page.goto(`${visit}/refraction`);
  await page.getByTestId('correct-refraction-right').click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('New value').fill('-3.50 -1.75 x 20');
  await panel.getByRole('button', { name: 'Correct it' }).click();
  await expect(panel).toContainText('Say why in a few words');
  await panel.getByLabel('Why').fill('read the wrong line');
  await panel.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByTestId('recorded-right')).toHaveText('−3.50 −1.75 × 20');
  await expect(page.locator('del', { hasText: '−3.25 −1.75 × 20' })).toBeVisible();
  await expect(page.getByText('“read the wrong line”')).toBeVisible();
  await page.getByRole('button', { name: 'R and L mixed up?' }).click();
  await panel.getByLabel('Why').fill('charts swapped');
  await panel.getByRole('button', { name: 'Swap R and L' }).click();
  await expect(page.getByTestId('recorded-right')).toHaveText('−4.50 −1.25 × 165');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('recorded-right')).toHaveText('−3.50 −1.75 × 20');
});

test('a press while the first is on its way, and a supplier that is down', async ({ page, site }) => {
  const visit = await openVisit(page, 'longFollowUp');
  await typePowers(page, '-2.00', '-2.00');
  await say(page, visit, { danger: ['none'] });
  await see(page, visit, { staining: 0 });
  const visitId = /visits\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const [family] = await site.db.owner<{ id: string }[]>`select id from lens_family_version where code = 'turnstone-30'`;
  const lens = { familyId: family?.id, sphere: -2, cylinder: 0, axis: 180, add: null, baseCurve: 8.4, diameter: 14.2 };
  await command(page, 'sign', {
    visitId,
    version: 4,
    password: 'plain-sight',
    right: { mode: 'final', lens, triedLensOnEyeId: null },
    left: { mode: 'final', lens, triedLensOnEyeId: null },
    expiresOn: '2027-11-24',
    daysPerWeek: 7,
  });
  await site.fault('down');
  await page.goto(`/visits/${visitId}/supply`);
  await page.getByRole('button', { name: 'Place the order' }).dblclick();
  await expect(page.getByTestId('order')).toHaveAttribute('data-state', 'sendFailed', { timeout: 15_000 });
  await expect(page.getByText('it cannot be ordered twice')).toBeVisible();
  await site.jobs.stop('SIGKILL');
  await site.fault('none');
  await site.jobs.start();
  await page.getByRole('button', { name: 'Try now' }).click();
  await expect(page.getByTestId('order')).toHaveAttribute('data-state', 'acknowledged', { timeout: 20_000 });
  const { orders } = (await (await fetch(`${site.supplierUrl}/orders`)).json()) as { orders: unknown[] };
  expect(orders).toHaveLength(1);
});

test('roles: who may not sign is told, who may not fit sees no fit to begin', async ({ page }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-2.00', null);
  await signIn(page, 'joss');
  await page.goto(`${visit}/prescription`);
  await expect(page.getByText('A prescriber signs.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Sign prescription' })).toBeDisabled();
  await signIn(page, 'merle');
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Begin the visit' })).toHaveCount(0);
  await page.goto('/staff');
  await page.getByRole('button', { name: 'Add a person' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Name', { exact: true }).fill('Ines Calloway');
  await panel.getByLabel('Account name').fill('ines');
  await panel.getByLabel('Title').fill('technician');
  await panel.getByLabel('Password').fill('short');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel).toContainText('At least ten characters.');
  await panel.getByLabel('Password').fill('long enough now');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Ines Calloway')).toBeVisible();
  await page
    .getByRole('row', { name: /Ines Calloway/ })
    .getByRole('button', { name: 'End access' })
    .click();
  await panel.getByRole('button', { name: 'End access' }).click();
  await expect(page.getByRole('row', { name: /Ines Calloway/ })).toContainText('ended');
});
