import { command, page, quiet, shot } from './stage';

/** The wearer whose record is open, a year on. */
export async function aftercarePictures(): Promise<void> {
  const followUp = await command('openVisit', { wearerId: new URL(page.url()).pathname.split('/').pop(), kind: 'lensAnnual' });
  await page.goto(`/visits/${followUp.visitId}/as-last-time`);
  await page.getByTestId('read-back').waitFor();
  await page.goto(`/visits/${followUp.visitId}/worn-now`);
  for (const key of ['7', 'y', 'y']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(1500);
  }
  await page.goto(`/visits/${followUp.visitId}/aftercare`);
  const reported = (eye: string) => page.getByRole('group', { name: `${eye} eye: reported` });
  await reported('Right').getByRole('button', { name: 'haze' }).click();
  await reported('Right').getByRole('button', { name: 'dry late in the day' }).click();
  await reported('Left').getByRole('button', { name: 'nothing' }).click();
  await page.getByRole('group', { name: 'Right eye, Deposits' }).getByRole('button', { name: 'film' }).click();
  await page.getByTestId('points-blurFromSurface').waitFor();
  await page.evaluate(() => window.scrollTo(0, 0));
  await quiet();
  await shot('aftercare');
}
