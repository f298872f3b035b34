import { page, press, shot, wait } from './stage';

/** The same wearer at the lesson. */
export async function lessonPictures(): Promise<void> {
  await press('To the lesson');
  await page.waitForURL('**/lesson');
  await press('Start the lesson');
  for (const word of ['R came off', 'R went on']) {
    await wait(3);
    await press(word);
  }
  await wait(2);
  await press(/lid slipped/);
  for (const word of ['R came off', 'R went on', 'L came off']) {
    await wait(3);
    await press(word);
  }
  for (const topic of ['Clean, dry hands', 'Right way out', 'No water, ever', 'Never sleep in them']) await page.getByRole('checkbox', { name: topic }).click();
  await page.waitForTimeout(500);
  await page.reload();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shot('lesson');
  for (const word of ['L went on', 'L came off', 'L went on']) await press(word);
  for (const name of [
    'Rub and rinse',
    'Fresh solution',
    'A stuck lens is never pulled',
    'Replace on time',
    'Glasses always with you',
    'Danger signs',
    'Moving and finding the lens',
    'A dropped lens',
  ]) {
    await page.getByRole('checkbox', { name, checked: false }).click();
    await page.getByRole('checkbox', { name, checked: true }).waitFor();
  }
  await press('All of these said back again');
  for (const eye of ['Right', 'Left']) {
    const field = page.getByTestId('lesson-sight').getByLabel(new RegExp(`${eye} eye`));
    await field.fill('20/20');
    await field.press('Enter');
    await page
      .getByTestId('lesson-sight')
      .getByText('20/20')
      .nth(eye === 'Right' ? 0 : 1)
      .waitFor();
  }
  await press('Sign off the lesson');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Sign off(, seen| and book) / })
    .first()
    .click();
  await press('Hand over the trial pair');
  await page.getByTestId('handed-right').waitFor();
  await press('Page to take home');
  await page.getByTestId('home-sheet').waitFor();
}
