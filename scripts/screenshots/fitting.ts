import { DEMO_PASSWORD } from '../../demo/load';
import { command, graded, key, page, press, quiet, shot, versionOf, wait } from './stage';

/** A new wearer, from the history to the choice of a lens. @returns the visit’s address */
export async function choosingPictures(): Promise<string> {
  await page.goto('/wearers');
  await page.getByRole('link', { name: 'Nessa Quillby' }).click();
  await press(/^Continue/);
  await page.waitForURL('**/history');
  const visit = page.url().replace('/history', '');
  await page.waitForFunction(() => document.documentElement.dataset.ready === 'yes');
  await key('0', 'Enter', 'Enter', 'Enter');
  await page.keyboard.type('43');
  await key('Enter', 'Enter', 'Enter', 'Enter', 'Enter', 'Enter', 'Enter');
  await page.keyboard.type('6');
  await key('Enter');
  await page.keyboard.type('13');
  await key('Enter', '1');
  await page.keyboard.type('cetirizine 10 mg');
  await page.waitForTimeout(700);
  await shot('history');
  await key('Control+Enter');
  await page.waitForURL('**/eye-health');
  await command('recordFindings', {
    visitId: visit.split('/').pop(),
    version: await versionOf(visit),
    ...graded({ breakUp: 8, vessels: 0, staining: 0.5, infiltrates: 0 }),
  });
  await page.goto(`${visit}/refraction`);
  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.75 x 20');
  await page.getByLabel('Left eye, spectacle power').fill('-4.50/-1.25x165');
  for (const eye of ['Right', 'Left']) await page.getByLabel(`${eye} eye, VA with these glasses`).fill('20/20');
  await page.waitForTimeout(700);
  await shot('refraction');
  await press('Record and choose a lens');
  await page.waitForURL('**/kind');
  await page.waitForTimeout(500);
  await quiet();
  await page.getByTestId('choose-monthly-day').click();
  await page.getByLabel('Why not the recommendation?').fill('Dailies are out of reach. A month kept to thirty days; daily if still dry before hour 12.');
  await press(/^Choose among/);
  await page.waitForURL('**/lens');
  await page.goto(`${visit}/lens`);
  await shot('lens');
  return visit;
}

/** The lens on the eyes of that wearer, and its prescription. */
export async function onEyePictures(visit: string): Promise<void> {
  await press('Put it on both eyes');
  await page.waitForURL('**/on-eye');
  // In two steps: a quiet session would lock.
  for (const minutes of [6, 6]) {
    await wait(minutes);
    await page.goto(`${visit}/on-eye`);
  }
  const desk = (name: string) => page.getByRole('group', { name: 'What is looked at' }).getByRole('button', { name }).click();
  for (const [eye, turns] of [
    ['Right', ['10l', '9l', '11l']],
    ['Left', ['0', '1l', '0']],
  ] as const)
    for (const turn of turns) {
      await page.getByLabel(`${eye} eye, mark rotation`).fill(turn);
      await page.keyboard.press('Enter');
    }
  await desk('Fit');
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, fit` })
      .getByRole('button', { name: 'fits' })
      .click();
  await desk('Sight');
  await page.getByLabel('Right eye, VA with the lens').fill('20/25');
  await page.getByLabel('Left eye, VA with the lens').fill('20/20');
  await page.getByLabel('Both eyes together, VA with the lenses').fill('20/20');
  await page.getByLabel('Right eye, over-refraction').fill('+0.25 -0.50 x 70');
  await page.getByLabel('Right eye, VA with the over-refraction').fill('20/20');
  await page.getByTestId('need-right').click();
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.waitForTimeout(700);
  await shot('on-eye');
  await desk('Rotation');
  await page.locator('main').click({ position: { x: 4, y: 4 } });
  await page.keyboard.press('d');
  await shot('on-eye-lights-down');
  await page.keyboard.press('d');
  await press('Record the readings');
  await press('To the prescription');
  await page.waitForURL('**/prescription');
  await page.getByLabel('Why the order need not wait for aftercare').fill('At sea from 2 December; wore soft lenses before.');
  await quiet();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shot('prescription');
  await page.getByLabel('Your password, once more').fill(DEMO_PASSWORD);
  await press('Sign prescription');
  await page.getByTestId('signed').waitFor();
  await press('Prescribe Tidewash');
  await page.getByTestId('care-card').waitFor();
}
