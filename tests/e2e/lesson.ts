import { expect, type Page } from '@playwright/test';

/** A prescriber names the care system that is proposed, on the page of the prescription or of the lesson. */
export async function nameCareSystem(page: Page, product = 'Tidewash'): Promise<void> {
  await page.getByRole('button', { name: `Prescribe ${product}` }).click();
  await expect(page.getByTestId('care-card')).toBeVisible();
}

/** Acuity of each eye through the lenses that the wearer put on, and what is asked once more at the end. */
export async function endLesson(page: Page): Promise<void> {
  const sight = page.getByTestId('lesson-sight');
  for (const [i, eye] of ['Right', 'Left'].entries()) {
    const field = sight.getByLabel(new RegExp(`${eye} eye`));
    await field.fill('20/20');
    await field.press('Enter');
    await expect(sight.getByText('20/20')).toHaveCount(i + 1);
  }
  await page.getByRole('button', { name: 'All of these said back again' }).click();
}

/** Signs the lesson off; the same press books the first time that is free. */
export async function signOff(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Sign off the lesson' }).click();
  const panel = page.getByRole('dialog');
  await panel
    .getByRole('button', { name: /^Sign off(, seen| and book) / })
    .first()
    .click();
  await expect(panel).toHaveCount(0);
}
