import { page, shot } from './stage';

/** Today and the diary. */
export async function dayPictures(): Promise<void> {
  await page.getByTestId('today-1').getByRole('button', { name: 'Begin the visit' }).click();
  await page.waitForURL('**/history');
  await page.goto('/');
  await page.locator('.strip-grid').waitFor();
  await shot('today');
  await page.goto('/diary');
  await page.waitForFunction(() => document.documentElement.dataset.ready === 'yes');
  await page.locator('.strip-grid').waitFor();
  await shot('diary');
}
