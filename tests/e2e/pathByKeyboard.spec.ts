import { expect, test } from './site';

test.use({ file: 'pathByKeyboard' });

// The same path with no mouse at all: every step has its keys.
test('the whole path by keyboard', async ({ page }) => {
  test.setTimeout(180_000);
  const press = async (...keys: string[]): Promise<void> => {
    for (const key of keys) await page.keyboard.press(key);
  };
  const type = (text: string) => page.keyboard.type(text);
  /** Tabs on until the focused control has this accessible name. */
  const tabTo = async (name: RegExp, key = 'Tab'): Promise<void> => {
    for (let i = 0; i < 80; i++) {
      const label = await page.evaluate(() => {
        const a = document.activeElement as HTMLElement | null;
        return a ? (a.getAttribute('aria-label') ?? (a as HTMLInputElement).labels?.[0]?.textContent ?? a.textContent ?? '') : '';
      });
      if (name.test(label)) return;
      await page.keyboard.press(key);
    }
    throw new Error(`nothing called ${String(name)} can be reached`);
  };
  const leave = () => page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());

  await page.goto('/sign-in');
  await expect(page.getByLabel('Password')).toBeFocused();
  await type('plain-sight');
  await press('Enter');
  await page.waitForURL('**/');
  await tabTo(/^Wearers/);
  await press('Enter');
  await page.waitForURL('**/wearers');
  await press('n');
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
  await type('Wilmot Ferris');
  await press('Tab');
  await type('9 Feb 1999');
  await press('Enter');
  await page.waitForURL('**/wearers/*');
  await press('n');
  await tabTo(/^First fit/);
  await press('Enter');
  await page.waitForURL('**/history');
  // The danger signs, asked first: none.
  await leave();
  await press('0', 'Control+Enter');
  await page.waitForURL('**/eye-health');
  // Down to the stain, graded eye by eye.
  await leave();
  for (let i = 0; i < 5; i++) await press('ArrowDown');
  await press('0', 'l', '0', 'Enter');
  await expect(page.getByText('Findings recorded').first()).toBeVisible();
  await leave();
  await press(']');
  await page.waitForURL('**/refraction');

  await expect(page.getByLabel('Right eye, spectacle power')).toBeFocused();
  await type('-325-175x20');
  await press('Tab');
  await expect(page.getByLabel('Left eye, spectacle power')).toBeFocused();
  await press('=');
  await expect(page.getByLabel('Left eye, spectacle power')).toHaveValue('-325-175x20');
  await press('Enter');
  await page.waitForURL('**/kind');
  await leave();
  await press('Enter');
  await page.waitForURL('**/lens');
  await expect(page.getByTestId('candidate-plover-30-toric')).toBeVisible();
  await leave();
  await press('ArrowDown', 'ArrowUp');
  await expect(page.getByTestId('candidate-plover-30-toric').getByRole('radio')).toHaveAttribute('aria-checked', 'true');
  await press('Enter');
  await page.waitForURL('**/on-eye');

  await expect(page.getByTestId('rotation-eye-right')).toBeVisible();
  await leave();
  await press('r');
  await expect(page.getByTestId('rotation-eye-right')).toBeFocused();
  for (let i = 0; i < 10; i++) await press('ArrowLeft');
  await expect(page.getByTestId('rotation-eye-right')).toHaveAttribute('aria-valuetext', '10° to your left');
  await press('Space', 'Space', 'Space', 'l');
  await expect(page.getByTestId('rotation-eye-left')).toBeFocused();
  await press('Space', 'Space', 'Space');
  await leave();
  await press('f');
  for (const eye of ['Right', 'Left']) {
    const fits = page.getByRole('group', { name: `${eye} eye, fit` }).getByRole('button', { name: 'fits' });
    await fits.focus();
    await press('Enter');
  }
  await leave();
  await press('s');
  await tabTo(/^Right eye, over-refraction/);
  await type('+025-050x70');
  await leave();
  await press('Enter');
  await expect(page.getByTestId('over-recorded-right')).toHaveText('+0.25 −0.50 × 70');
  await leave();
  await press('Enter');
  await page.waitForURL('**/prescription');

  await tabTo(/^Why the order need not wait/);
  await type('Going to sea.');
  await tabTo(/^Your password/);
  await type('plain-sight');
  await press('Enter');
  await expect(page.getByTestId('signed')).toHaveCount(0);
  await press('Control+Enter');
  await expect(page.getByTestId('signed')).toContainText('24 Nov 2027');
  await leave();
  await press('Enter');
  await page.waitForURL('**/lesson');
  await expect(page.getByText('The lesson has not begun')).toBeVisible();
  await press('Enter');
  await expect(page.getByTestId('lock')).toBeVisible();
  await press('2');
  await expect(page.getByText('Off: blinked')).toBeVisible();
  await expect(page.getByTestId('coaching')).toContainText('both eyes open');
  for (const eye of ['right', 'left']) {
    for (const [move, done] of [
      ['off', 1],
      ['on', 1],
      ['off', 2],
      ['on', 2],
    ] as const) {
      await leave();
      await press('Enter');
      await expect(page.getByTestId(`count-${eye}-${move}`)).toHaveAttribute('data-done', String(done));
    }
  }
  for (let i = 0; i < 12; i++) {
    const topic = page.getByRole('checkbox', { checked: false }).first();
    await topic.focus();
    await press('Space');
    await expect(page.getByRole('checkbox', { checked: true })).toHaveCount(i + 1);
  }
  await page.getByRole('button', { name: 'All of these said back again' }).focus();
  await press('Space');
  await expect(page.getByTestId('asked-again')).toContainText('4 of 4');
  for (const eye of ['Right', 'Left']) {
    await page
      .getByTestId('lesson-sight')
      .getByLabel(new RegExp(`${eye} eye`))
      .focus();
    await type('20/20');
    await press('Enter');
    await expect(page.getByTestId('lesson-sight').getByText('20/20')).toHaveCount(eye === 'Right' ? 1 : 2);
  }
  await page.getByRole('button', { name: 'Prescribe Tidewash' }).focus();
  await press('Space');
  await expect(page.getByTestId('care-card')).toBeVisible();
  await leave();
  await press('Enter');
  // The common press has the focus by itself.
  await expect(
    page
      .getByRole('dialog')
      .getByRole('button', { name: /^Sign off(, seen| and book) / })
      .first(),
  ).toBeFocused();
  await press('Enter');
  await expect(page.getByText('Trial pair', { exact: true })).toBeVisible();
  await leave();
  await press('Enter');
  await expect(page.getByTestId('handed-right')).toBeVisible();
  await leave();
  await press('Enter');
  await page.waitForURL('**/take-home/**');
  await page.getByRole('link', { name: 'To supply' }).focus();
  await press('Enter');
  await page.waitForURL('**/supply');
  await expect(page.getByLabel('Boxes, R')).toBeVisible();
  await leave();
  await press('Enter');
  await expect(page.getByTestId('order')).toHaveCount(0);
  await press('Control+Enter');
  await expect(page.getByTestId('order')).toHaveAttribute('data-state', 'acknowledged', { timeout: 15_000 });
  await leave();
  await press('BracketLeft');
  await page.waitForURL('**/lesson');
});
