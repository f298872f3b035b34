import type { Page } from '@playwright/test';
import { sideways, violations } from './accessible';
import { expect, openVisit, signIn, test, typePowers, watch } from './site';

test.use({ file: 'lessonScreen' });
test.beforeEach(async ({ page }) => signIn(page));

/** Nothing that a program finds fault with, and nothing wider than its window: tablet, a narrow one, a telephone, and 200 %. */
async function accessible(screen: Page, what: string): Promise<void> {
  const before = screen.viewportSize();
  expect(await violations(screen), what).toEqual([]);
  for (const [width, height] of [
    [768, 1024],
    [390, 844],
    [590, 410],
  ] as const) {
    await screen.setViewportSize({ width, height });
    expect(await sideways(screen), `${what} at ${width}`).toBeLessThanOrEqual(0);
  }
  if (before) await screen.setViewportSize(before);
}

/** A pair on the eyes and its lesson begun. */
async function lessonBegun(page: Page): Promise<void> {
  const visit = await openVisit(page);
  await typePowers(page, '-2.00', '-2.25');
  await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await page.goto(`${visit}/lesson`);
  await page.getByRole('button', { name: 'Start the lesson' }).click();
  await expect(page.getByTestId('drawn-part')).toBeVisible();
}

test('the wearer’s screen: opened by a code, once; in step with the teacher, through reloads; by oneself and back', async ({ page, browser, site }) => {
  await lessonBegun(page);
  await page.getByRole('button', { name: 'Wearer’s screen' }).click();
  const code = page.getByTestId('screen-code');
  await expect(code).toHaveText(/^[A-Z2-9]{6}$/);
  const typed = (await code.textContent()) ?? '';
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  const wearers = await browser.newContext({ viewport: { width: 1180, height: 820 } });
  const screen = await wearers.newPage();
  await screen.goto(new URL('/show', page.url()).href);
  await accessible(screen, 'a code is asked for');
  await screen.getByLabel('Code').fill('ABCDEF');
  await screen.getByRole('button', { name: 'Open' }).click();
  await expect(screen.getByText('This code opens nothing.')).toBeVisible();
  await screen.getByLabel('Code').fill(typed.toLowerCase());
  await screen.getByRole('button', { name: 'Open' }).click();
  const shown = screen.getByTestId('wearer-screen');
  await expect(shown).toHaveAttribute('data-scene', 'theTable');

  // Every page that the teacher turns arrives, in order.
  for (const scene of ['washHands', 'dryHands', 'rubLens']) {
    await page.keyboard.press('ArrowRight');
    await expect(page.getByTestId('drawn-part').getByRole('img')).toBeVisible();
    await expect(page.getByTestId('drawn-part')).toHaveAttribute('data-scene', scene);
    await expect(shown).toHaveAttribute('data-scene', scene);
  }
  await page.keyboard.press('ArrowLeft');
  await expect(shown).toHaveAttribute('data-scene', 'dryHands');
  await screen.reload();
  await expect(shown).toHaveAttribute('data-scene', 'dryHands');
  await page.reload();
  await expect(page.getByTestId('drawn-part')).toBeVisible();
  await expect(shown).toHaveAttribute('data-scene', 'theTable');

  // The exercises: a wrong answer says why and comes back.
  await screen.getByRole('button', { name: 'Is it safe?' }).click();
  const safe = screen.getByTestId('is-it-safe');
  await expect(safe).toHaveAttribute('data-scenario', 'redEye');
  await screen.getByRole('button', { name: 'Wait until tomorrow' }).click();
  await expect(safe).toContainText('No. Lenses off and not back on.');
  await accessible(screen, 'is it safe');
  await screen.getByRole('button', { name: 'Next' }).click();
  await expect(safe).toHaveAttribute('data-scenario', 'lightHurts');
  await screen.getByRole('button', { name: 'Lenses off, and call today' }).click();
  await screen.getByRole('button', { name: 'Next' }).click();
  await expect(safe).toHaveAttribute('data-scenario', 'redEye');
  await screen.getByRole('button', { name: 'Back to the lesson' }).click();
  await page.getByTestId('drawn-part').getByRole('button', { name: 'Which way out' }).click();
  await screen.getByRole('button', { name: 'Try it: which way out?' }).click();
  await expect(screen.getByTestId('which-way-out')).toContainText('Lens 1 of 5');
  await screen.getByRole('button', { name: 'A bowl: right way out' }).click();
  await expect(screen.getByTestId('which-way-out')).toContainText(/Yes, a bowl|It was a saucer/);
  await screen.getByRole('button', { name: 'Back to the lesson' }).click();
  await page.getByTestId('drawn-part').getByRole('button', { name: 'Care', exact: true }).click();
  await expect(shown).toHaveAttribute('data-scene', 'theTable');

  // A lost network: what was shown stays, and what was missed arrives by itself.
  await wearers.setOffline(true);
  await page.getByTestId('drawn-part').getByRole('button', { name: 'On', exact: true }).click();
  await expect(page.getByTestId('drawn-part').getByRole('heading')).toHaveText('Hold the lids, no lens yet');
  await expect(shown).toHaveAttribute('data-scene', 'theTable');
  await wearers.setOffline(false);
  await expect(shown).toHaveAttribute('data-scene', 'rehearseLids', { timeout: 20_000 });
  await expect(screen.getByText('Your right eye')).toBeVisible();
  await expect(screen.getByText('As you see it in the mirror')).toBeVisible();
  await accessible(screen, 'a step');

  // The server itself is started again: both pages stand, and what is shown next arrives.
  await site.web.stop();
  await expect(shown).toHaveAttribute('data-scene', 'rehearseLids');
  await site.web.start();
  await page.keyboard.press('ArrowRight');
  await expect(shown).toHaveAttribute('data-scene', 'comfortDrop', { timeout: 30_000 });
  await page.keyboard.press('ArrowLeft');
  await expect(shown).toHaveAttribute('data-scene', 'rehearseLids');

  await screen.getByRole('button', { name: 'Look at it by yourself' }).click();
  await screen.getByRole('button', { name: 'Next' }).click();
  await expect(shown).toHaveAttribute('data-scene', 'comfortDrop');
  await screen.getByRole('button', { name: 'With your teacher again' }).click();
  await expect(shown).toHaveAttribute('data-scene', 'rehearseLids');
  await expect(screen.getByText(/Quillby|0\d{3}|−2\.00/)).toHaveCount(0);

  // Used once: the same code opens no second screen.
  const again = await wearers.browser()?.newContext();
  const other = await again?.newPage();
  await other?.goto(new URL(`/show?code=${typed}`, page.url()).href);
  if (other) await expect(other.getByText('This code opens nothing.')).toBeVisible();
  await again?.close();
  await wearers.close();
});

test('coaching for the very miss, a technique that gives way, and the lesson stopped with another day booked', async ({ page }) => {
  await lessonBegun(page);
  await page.getByRole('button', { name: 'R came off' }).click();
  await expect(page.getByTestId('count-right-off')).toHaveAttribute('data-done', '1');
  for (let i = 0; i < 4; i++) {
    await page.keyboard.press('1');
    await expect(page.getByText('On: finger wet')).toHaveCount(i + 1);
  }
  await expect(page.getByTestId('coaching')).toContainText('Dry the finger');
  await expect(page.getByTestId('lesson-way')).toContainText('one hand, on the lower white');
  await page.getByRole('button', { name: 'Change how it is taught' }).click();
  await page.getByRole('group', { name: 'Hand', exact: true }).getByRole('button', { name: 'left-handed' }).click();
  await expect(page.getByTestId('lesson-way')).toContainText('left-handed');
  await page.getByRole('button', { name: 'Stop and rebook' }).click();
  const panel = page.getByRole('dialog');
  const stopAndBook = panel.getByRole('button', { name: /^Stop and book/ }).first();
  await stopAndBook.click();
  await expect(panel).toContainText('Take the lens off first');
  await page.keyboard.press('Escape');
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'L came off' }).click();
  await expect(page.getByTestId('count-left-off')).toHaveAttribute('data-done', '1');
  await page.getByRole('button', { name: 'Stop and rebook' }).click();
  await panel.getByRole('button', { name: 'Stop without a booking' }).click();
  await expect(panel).toContainText('Book the next visit, or say why nothing is booked.');
  await stopAndBook.click();
  await expect(panel).toHaveCount(0);
  await expect(page.getByText('Stopped for today', { exact: true })).toBeVisible();
});

test('several lessons at once: what worked is logged by one press, a figure opens the lesson', async ({ page }) => {
  await lessonBegun(page);
  const lesson = page.url();
  await page.getByRole('link', { name: 'All lessons now' }).click();
  await page.waitForURL('**/lessons');
  const cards = page.getByTestId('lesson-now');
  const mine = cards.last();
  await expect(mine).toContainText('R: 0 on, 0 off');
  expect(await violations(page)).toEqual([]);
  await mine.getByRole('button', { name: 'R came off' }).click();
  await expect(mine).toContainText('R: 0 on, 1 off');
  await mine.getByRole('button', { name: 'R went on' }).click();
  await expect(mine).toContainText('R: 1 on, 1 off');
  const place = await cards.count();
  await page.keyboard.press(String(place));
  await page.waitForURL(lesson);
  await expect(page.getByTestId('count-right-off')).toHaveAttribute('data-done', '1');
});

test('somebody else handles the lenses only by a prescriber’s consent, and is told so in words', async ({ page, browser }) => {
  const visit = await openVisit(page);
  await typePowers(page, '-1.50', '-1.75');
  await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  const other = await browser.newContext();
  const joss = await other.newPage();
  watch(joss);
  await signIn(joss, 'joss');
  await joss.goto(`${visit}/lesson`);
  await joss.getByLabel('Somebody else handles the lenses: who').fill('Ada Quillby');
  await joss.getByRole('button', { name: 'Start the lesson' }).click();
  await expect(joss.getByRole('alert').filter({ hasText: 'only when a prescriber agreed' })).toBeVisible();
  await expect(joss.getByLabel('Somebody else handles the lenses: who')).toHaveValue('Ada Quillby');

  await page.goto(`${visit}/lesson`);
  await page.getByText('A prescriber adds something').click();
  const form = page.getByTestId('instructions');
  await form.getByRole('button', { name: 'Somebody else handles them' }).click();
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(form.getByText('Why does somebody else handle them?')).toBeVisible();
  await form.getByRole('textbox').fill('Ada Quillby');
  await form.getByRole('button', { name: 'tremor', exact: true }).click();
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(form).toContainText('Ada Quillby');

  await joss.reload();
  await joss.getByLabel('Somebody else handles the lenses: who').fill('Ada Quillby');
  await joss.getByRole('button', { name: 'Start the lesson' }).click();
  await expect(joss.getByTestId('drawn-part')).toBeVisible();
  await other.close();
});
