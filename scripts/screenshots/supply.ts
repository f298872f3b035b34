import { page, press, shot, wait } from './stage';

/** What they wear is ordered. @param visit its address */
export async function supplyPictures(visit: string): Promise<void> {
  await page.goto(`${visit}/supply`);
  await wait(2);
  await press('Place the order');
  await page.locator('[data-testid="order"][data-state="acknowledged"]').waitFor({ timeout: 20_000 });
  await page.reload();
  await shot('supply');
  await page.getByRole('link', { name: 'Nessa Quillby' }).click();
  await page.getByTestId('worn-right').waitFor();
  await shot('wearer');
  const nessa = new URL(page.url()).pathname;
  await page.goto(`${nessa}/reorder`);
  await page.getByTestId('offers').waitFor();
  await shot('reorder');
  await page.goto(nessa);
  await page.getByTestId('worn-right').waitFor();
}
