import type { Page } from '@playwright/test';
import { command, expect, newVisit, openVisit, readRecord, say, signIn, test } from './site';

test.use({ file: 'history' });
test.beforeEach(async ({ page }) => signIn(page));

/** Presses keys one by one and counts them. */
function counter(page: Page) {
  let keys = 0;
  return {
    press: async (...names: readonly string[]): Promise<void> => {
      for (const name of names) {
        await page.keyboard.press(name);
        keys += 1;
      }
    },
    type: async (text: string): Promise<void> => {
      await page.keyboard.type(text);
      keys += text.length;
    },
    keys: () => keys,
  };
}
const current = (page: Page, id: string) => expect(page.getByTestId(`q-${id}`)).toHaveAttribute('data-current', 'true');

// Keystroke-level model: 0.28 s a key for a typist who is no secretary, 1.35 s to make up one's mind before each
// unit of work (Card, Moran and Newell 1980, from memory). The wearer's own talking is not counted.
const KEY_S = 0.28;
const MIND_S = 1.35;

test('an ordinary new wearer by keyboard: under a minute, counted in keys', async ({ page }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/history`);
  const { press, type, keys } = counter(page);
  await current(page, 'danger');
  await press('0');
  await current(page, 'lastWorn');
  await press('1'); // never: the five questions about earlier lenses fall away
  await current(page, 'goals');
  await press('1', '2', 'Enter');
  await current(page, 'nights');
  await press('1');
  await press('1', 'Enter'); // works indoors
  await current(page, 'freeTime');
  await press('2', 'Enter');
  await type('5');
  await press('Enter');
  await type('10');
  await press('Enter');
  await current(page, 'dryness');
  await press('1');
  await current(page, 'medicines');
  await type('cetirizine');
  await expect(page.getByTestId('q-medicines')).toContainText('antihistamine, dries the eye');
  await press('Enter');
  await press('0'); // drops
  await press('0'); // allergy
  await press('0'); // health
  await press('0'); // skin
  await press('1'); // does not smoke
  await press('0'); // eyes before
  await press('1', '1', '1'); // handles them; hands; care
  await current(page, 'returns');
  await press('1', '2');
  await current(page, 'tell');
  await press('Enter');
  await expect(page.getByRole('button', { name: 'Record the history' })).toBeVisible();
  await press('Enter');
  await page.waitForURL('**/eye-health');
  await expect(page.getByRole('link', { name: /History/ })).toContainText('21 answers');
  const questions = 22;
  expect(keys()).toBeLessThanOrEqual(52);
  expect(keys() * KEY_S + questions * MIND_S).toBeLessThan(60);
});

test('three lines of what was heard stand at every step', async ({ page }) => {
  const visit = await newVisit(page);
  await say(page, visit, {
    lastWorn: 'now',
    whichLens: 'monthly',
    replacedEvery: 43,
    goals: ['outdoors'],
    nights: 'shifts',
    medicines: ['cetirizine'],
    dryness: 'evening',
    tell: 'buoy lamps ghost',
  });
  for (const step of ['history', 'eye-health', 'refraction', 'kind', 'lens', 'on-eye', 'prescription', 'lesson', 'supply']) {
    await page.goto(`${visit}/${step}`);
    await expect(page.getByTestId('wants'), step).toContainText('buoy lamps ghost');
    await expect(page.getByTestId('cautions'), step).toContainText('Medicine that dries the eye');
    await expect(page.getByTestId('wears-now'), step).toContainText('a pair every 43 days');
  }
});

test('a later visit: carried over, said again, changed', async ({ page, site }) => {
  const first = await newVisit(page);
  await say(page, first, { danger: ['none'], lastWorn: 'now', replacedEvery: 30, hoursPerDay: 12 });
  const record = await readRecord(page, first.split('/').pop() ?? '');
  await site.move(60);
  const { visitId } = await command(page, 'openVisit', { wearerId: record.wearer.id, kind: 'longFollowUp' });
  await page.goto(`/visits/${visitId ?? ''}/history`);
  // A danger sign is asked afresh; the rest is carried over and does not count as said.
  await expect(page.getByTestId('q-danger')).toHaveAttribute('data-origin', 'none');
  await expect(page.getByTestId('q-lastWorn')).toHaveAttribute('data-origin', 'carried');
  await page.keyboard.press('0');
  await current(page, 'lastWorn');
  await page.keyboard.press('Enter'); // said again
  await expect(page.getByTestId('q-lastWorn')).toHaveAttribute('data-origin', 'typing');
  await page.getByTestId('q-replacedEvery').getByText('30 days').last().click();
  await page.getByRole('textbox', { name: 'New pair every' }).fill('43');
  await expect(page.getByTestId('q-replacedEvery')).toContainText('changed');
  await expect(page.getByTestId('q-replacedEvery').locator('del')).toHaveText('30 days');
  await page.keyboard.press('Control+Enter');
  await page.waitForURL('**/eye-health');
  await page.goto(`/visits/${visitId ?? ''}/history`);
  await expect(page.getByTestId('q-replacedEvery')).toHaveAttribute('data-origin', 'said');
  await expect(page.getByTestId('q-hoursPerDay')).toHaveAttribute('data-origin', 'carried');
});

test('contradictory answers are said at their row, and what was typed stays', async ({ page }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/history`);
  await page.getByTestId('q-sleptIn').getByRole('button', { name: 'never' }).click();
  await page.getByTestId('q-nights').getByRole('button', { name: 'falls asleep in them' }).click();
  await expect(page.getByTestId('q-sleptIn')).toContainText('contradict each other');
  await page.keyboard.press('Control+Enter');
  await current(page, 'sleptIn');
  await expect(page).toHaveURL(/history$/);
  await page.reload();
  await expect(page.getByTestId('q-nights').getByRole('button', { name: 'falls asleep in them' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByTestId('q-sleptIn').getByRole('button', { name: 'some nights' }).click();
  await expect(page.getByTestId('q-sleptIn')).not.toContainText('contradict');
  await page.getByTestId('q-daysPerWeek').getByRole('button').first().click();
  await page.getByRole('textbox', { name: 'Days of wear' }).fill('9');
  await expect(page.getByTestId('q-daysPerWeek')).toContainText('9 is not between 1 and 7.');
  await page.getByRole('textbox', { name: 'Days of wear' }).fill('two');
  await expect(page.getByTestId('q-daysPerWeek')).toContainText('A whole number is needed.');
});

test('never worn after all: the answers about earlier lenses are taken back with one press', async ({ page }) => {
  const visit = await newVisit(page);
  await say(page, visit, { lastWorn: 'now', sleptIn: 'someNights' });
  await page.goto(`${visit}/history`);
  await page.getByTestId('q-lastWorn').getByRole('button', { name: 'never', exact: true }).click();
  await expect(page.getByTestId('q-lastWorn')).toContainText('contradict each other: one of them has to go');
  await page.keyboard.press('Control+Enter');
  await current(page, 'lastWorn');
  await page.getByRole('button', { name: 'Take back the answers about earlier lenses' }).click();
  await expect(page.getByTestId('q-lastWorn')).not.toContainText('contradict');
  await page.keyboard.press('Control+Enter');
  await page.waitForURL('**/eye-health');
  await expect(page.getByTestId('cautions')).toContainText('none reported');
});

test('a birth date tomorrow is refused at its field', async ({ page }) => {
  await page.goto('/wearers');
  await page.getByRole('button', { name: 'Add a wearer' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Not Yet Born');
  await page.getByLabel('Birth date').fill('2026-11-25');
  await page.getByRole('button', { name: 'Add the wearer' }).click();
  await expect(page.getByText('25 Nov 2026 is in the future.')).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Not Yet Born');
});

test('a danger sign heard is recorded at once, stands over every step, and a prescriber takes note of it', async ({ page, browser, site }) => {
  const visit = await openVisit(page);
  const heard = await browser.newPage({ baseURL: site.url });
  await heard.clock.install({ time: await site.now() });
  await signIn(heard, 'joss');
  await heard.goto(`${visit}/history`);
  await heard.getByTestId('q-danger').getByRole('button', { name: 'light hurts' }).click();
  await heard.getByTestId('q-lastWorn').getByRole('button', { name: 'Last worn' }).click();
  await expect(heard.getByRole('alert').filter({ hasText: 'Red-flag symptom reported' })).toContainText('light hurts');
  await expect(heard.getByRole('button', { name: 'Acknowledge' })).toHaveCount(0);
  await heard.close();
  for (const step of ['refraction', 'lens', 'lesson']) {
    await page.goto(`${visit}/${step}`);
    await expect(page.getByRole('alert').filter({ hasText: 'Red-flag symptom reported' })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Acknowledge' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Red-flag symptom reported' })).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('alert').filter({ hasText: 'Red-flag symptom reported' })).toHaveCount(0);
});
