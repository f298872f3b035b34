import type { Page } from '@playwright/test';
import { violations } from './accessible';
import { desk, expect, newVisit, signIn, test, typeBlinks, type TestSite } from './site';

test.use({ file: 'irregular' });
test.beforeEach(async ({ page }) => signIn(page));

/** Says the shape of the right cornea, and puts a lens of a set on it. */
async function putOn(page: Page, visit: string, shape: 'prolate' | 'oblate', number: string | null): Promise<void> {
  await page.goto(`${visit}/diagnostic-set`);
  await page.getByRole('group', { name: 'Right eye, corneal shape' }).getByRole('button', { name: shape }).click();
  await expect(page.getByRole('button', { name: 'Put it on R' })).toBeVisible();
  if (number !== null) await rung(page, number).click();
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
}
/** A lens of the set for cones, as a button of the right eye. */
const rung = (page: Page, number: string) => page.getByTestId('set-row-heron-cone').getByRole('button', { name: new RegExp(`^${number} .*right eye`) });
const fits = async (page: Page, word: 'fits' | 'loose') => page.getByRole('group', { name: 'Right eye, fit' }).getByRole('button', { name: word }).click();
const path = (page: Page) => page.getByTestId('path-right');
/** Comes back to a page some minutes later. */
async function later(page: Page, site: TestSite, minutes: number, address: string): Promise<void> {
  await site.move(minutes * 60);
  await page.context().clearCookies();
  await signIn(page);
  await page.goto(address);
}

test('a stabilised lens over a cone: fit, mark, up gaze, a walk, the sphere; its turn is worked out to the order', async ({ page, site }) => {
  test.setTimeout(120_000);
  const visit = await newVisit(page);
  await page.goto(`${visit}/diagnostic-set`);
  await page.getByRole('group', { name: 'Right eye, corneal shape' }).getByRole('button', { name: 'prolate' }).click();
  await page.getByRole('group', { name: 'Right eye, stage' }).getByRole('button', { name: '2' }).click();
  await expect(page.getByTestId('proposed-heron-cone-right')).toContainText('Begins with 4, 8.2 / 14.5, by its own table');
  await page.setViewportSize({ width: 1280, height: 1600 });
  expect(await violations(page)).toEqual([]);
  await page.setViewportSize({ width: 1280, height: 800 });
  await rung(page, '8').click();
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByTestId('on-right')).toHaveText('−1.50 stabilised');
  await expect(page.getByText('Lens 8 of Heron Cone, 8.2 / 14.5')).toBeVisible();
  await expect(path(page)).toContainText('10 min until the fit is judged');
  await later(page, site, 11, `${visit}/on-eye`);
  await expect(path(page)).toContainText('judge the fit now');
  await desk(page, 'Fit');
  await fits(page, 'fits');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(path(page)).toContainText('read the mark over three blinks');
  await desk(page, 'Rotation');
  await typeBlinks(page, 'Right', '8l', '8l', '8l');
  await desk(page, 'Fit');
  await page.getByRole('group', { name: 'Right eye, Mark, up gaze' }).getByRole('button', { name: 'wanders' }).click();
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(path(page)).toContainText('A walk: 19 min');
  await expect(path(page)).toContainText('order 0.1 to 0.2 mm steeper, 8.1 mm');
  await later(page, site, 20, `${visit}/on-eye`);
  await expect(path(page)).toContainText('a spherical over-refraction first');
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('+0.25 -1.25 x 112');
  await page.getByLabel('Right eye, VA with the lens').fill('20/60');
  await page.getByLabel('Right eye, VA with the over-refraction').fill('20/30');
  await expect(page.getByTestId('need-right')).toHaveText('−1.25 −1.24 × 112');
  await expect(page.getByTestId('order-right')).toContainText('112 + 8 = 120');
  await expect(page.getByTestId('order-right')).toContainText('−1.25 −1.25 × 120');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('prescribed-right')).toHaveText('−1.25 −1.25 × 120');
});

test('after surgery: a thick-centre set; the refraction of the bare eye does not stand in the way', async ({ page, site }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/refraction`);
  await page.getByLabel('Right eye, spectacle power').fill('-9.00 -6.00 x 80');
  await page.getByRole('button', { name: /^Record/ }).click();
  await page.waitForURL(/lens|kind/);
  await putOn(page, visit, 'oblate', null);
  await later(page, site, 35, `${visit}/on-eye`);
  await desk(page, 'Fit');
  await fits(page, 'fits');
  await page.getByRole('group', { name: 'Right eye, Mark, up gaze' }).getByRole('button', { name: 'steady' }).click();
  await desk(page, 'Rotation');
  await typeBlinks(page, 'Right', '15l', '15l', '15l');
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('-4.50 -3.00 x 35');
  await expect(page.getByTestId('need-right')).toHaveText('−4.27 −2.61 × 35');
  await expect(page.getByTestId('order-right')).toContainText('35 + 15 = 50');
  await expect(page.getByTestId('order-right')).toContainText('−4.25 −2.75 × 50');
});

test('too much movement: the next steeper lens of the same set; what was on goes on nobody until it is disinfected', async ({ page, site }) => {
  const visit = await newVisit(page);
  await putOn(page, visit, 'prolate', '6');
  await desk(page, 'Fit');
  await fits(page, 'loose');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await expect(path(page)).toContainText('One step steeper');
  // The desk says the same: no curve between the set's lenses is offered to be put on.
  await expect(page.getByRole('button', { name: 'Next lens of the set' })).toBeVisible();
  await path(page).getByRole('link', { name: 'Next lens of the set' }).click();
  await page.waitForURL('**/diagnostic-set');
  await expect(page.getByTestId('proposed-heron-cone-right')).toContainText('one step steeper, 5');
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  // The one that came off waits.
  const other = await newVisit(page);
  await page.goto(`${other}/diagnostic-set`);
  await page.getByRole('group', { name: 'Right eye, corneal shape' }).getByRole('button', { name: 'prolate' }).click();
  await rung(page, '6').click();
  await expect(rung(page, '6')).toHaveAttribute('aria-label', /not ready/);
  await expect(page.getByText('This lens is not ready')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put it on R' })).toBeDisabled();
  await page.goto('/drawer/sets');
  await expect(page.getByTestId('lens-heron-cone-6')).toHaveAttribute('data-state', 'used');
  await expect(page.getByTestId('lens-heron-cone-5')).toHaveAttribute('data-state', 'onEye');
  await page.setViewportSize({ width: 1280, height: 1900 });
  expect(await violations(page)).toEqual([]);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('button', { name: /^Disinfect (the lens|all)/ }).click();
  await expect(page.getByTestId('lens-heron-cone-6')).toHaveAttribute('data-state', 'soaking');
  await later(page, site, 361, '/drawer/sets');
  await expect(page.getByTestId('lens-heron-cone-6')).toHaveAttribute('data-state', 'ready');
  await page.getByRole('button', { name: 'Lens 6 of Heron Cone: its story' }).click();
  await expect(page.getByTestId('story')).toContainText('disinfected: peroxide, neutralised');
});

for (const { start, one, other, axis, answers, power } of [
  { start: '', one: '110', other: '40', axis: '75', answers: ['better', 'better', 'same'], power: '+1.50 −2.00 × 75' },
  { start: '8', one: '50', other: '150', axis: '10', answers: ['better', 'worse'], power: '+1.00 −1.00 × 10' },
])
  test(`an axis bracketed between ${one} and ${other}${start === '' ? '' : `, started at ${start}`}: ${axis}, its cylinder by answers, into the over-refraction`, async ({
    page,
  }) => {
    const visit = await newVisit(page);
    await putOn(page, visit, 'prolate', start === '' ? '2' : '3');
    await desk(page, 'Sight');
    await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('+0.50');
    await page.getByRole('button', { name: 'Cylinder by answers' }).click();
    const panel = page.getByRole('dialog');
    await panel.getByLabel('Started at axis').fill(start);
    await panel.getByLabel('Blurs at').fill(one);
    await panel.getByLabel('and at').fill(other);
    await expect(panel.getByTestId('bracket-axis')).toContainText(`axis ${axis}`);
    for (const answer of answers) await panel.getByRole('button', { name: answer }).click();
    expect(await violations(page)).toEqual([]);
    await panel.getByRole('button', { name: 'Use as over-refraction' }).click();
    await expect(panel).toHaveCount(0);
    await expect(page.getByLabel('Right eye, over-refraction', { exact: true })).toHaveValue(power);
    await expect(page.getByTestId('guided-right')).toContainText(`× ${axis}, blurred at ${one} and ${other}`);
  });

test('two blur points 90° apart ask for the start; an axis that is none is said at its field', async ({ page }) => {
  const visit = await newVisit(page);
  await putOn(page, visit, 'prolate', '7');
  await desk(page, 'Sight');
  await page.getByRole('button', { name: 'Cylinder by answers' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Blurs at').fill('30');
  await panel.getByLabel('and at').fill('120');
  await expect(panel.getByTestId('bracket-axis')).toContainText('90° apart');
  await panel.getByLabel('Started at axis').fill('70');
  await expect(panel.getByTestId('bracket-axis')).toContainText('axis 75');
  await panel.getByLabel('and at').fill('200');
  await expect(panel.getByTestId('bracket-axis')).toContainText('between 0 and 180');
});

test('a lens that came for a set is added at the drawer: what is missing is said, a number that is taken too', async ({ page }) => {
  await page.goto('/drawer/sets');
  const form = page.getByTestId('add-set-lens');
  const add = form.getByRole('button', { name: 'Add this lens' });
  await expect(form).toContainText('Before it is added: the set, the number on its vial, its curve.');
  await expect(add).toBeDisabled();
  await form.getByRole('combobox').first().selectOption({ label: 'Heron Cone' });
  await form.getByLabel('Number').fill('1');
  await form.getByRole('combobox').last().selectOption({ label: '8.2 / 14.5' });
  await expect(form).toContainText('Heron Cone has a lens 1 already.');
  await expect(add).toBeDisabled();
  await form.getByLabel('Number').fill('77');
  await form.getByLabel('Sphere, D').fill('-2,50');
  await form.getByLabel('Expires').fill('yesterday');
  await add.click();
  await expect(form.getByLabel('Number')).toHaveValue('77');
  await form.getByLabel('Expires').fill('1 Mar 2030');
  await add.click();
  await expect(form).toContainText('Lens 77 added to Heron Cone');
  await expect(page.getByRole('button').filter({ hasText: /^77$/ })).toBeVisible();
});
