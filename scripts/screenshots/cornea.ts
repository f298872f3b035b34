import { page, press, seen, shot, wait } from './stage';

/** A lens of a set on a cone, its turn read from pictures. */
export async function coneCorneaPictures(): Promise<void> {
  const cone = await seen(
    'Sunniva Holt',
    { danger: ['none'], lastWorn: 'never', goals: ['everyDay'], eyeHistory: ['rubs'] },
    { lidMargin: 0.5, bulbarRedness: 1, limbalRedness: 0.5, papillae: 0.5, staining: 0, vessels: 0, infiltrates: 0, scars: 0, cornea: 'prolate', coneStage: 2 },
    { lidMargin: 0.5, bulbarRedness: 1, limbalRedness: 0.5, papillae: 0.5, staining: 0, vessels: 0, infiltrates: 0, scars: 0, cornea: 'prolate', coneStage: 1 },
  );
  await page.goto(`${cone}/diagnostic-set`);
  await page.getByRole('button', { name: /^Put/ }).first().waitFor();
  await shot('diagnostic-set');
  await press(/^Put/);
  await page.waitForURL('**/on-eye');
  for (const minutes of [6, 6]) {
    await wait(minutes);
    await page.goto(`${cone}/on-eye`);
  }
  await press('From pictures, right eye');
  await press('Take 3 with the camera');
  const picturesOf = page.getByRole('dialog');
  await picturesOf.getByRole('button', { name: '3, no reading yet' }).waitFor({ timeout: 30_000 });
  for (const said of ['the right of the picture', 'up', 'straight ahead', 'are free'])
    await picturesOf.getByRole('button', { name: said, exact: true }).click();
  await picturesOf.getByRole('button', { name: 'Take this reading' }).and(picturesOf.locator(':enabled')).waitFor({ timeout: 20_000 });
  await shot('rotation-pictures');
  await picturesOf.getByRole('button', { name: 'Close' }).click();
}
