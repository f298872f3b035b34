import type { Page } from '@playwright/test';
import { command, desk, expect, readRecord, say, see, signIn, test } from './site';

test.use({ file: 'wornNow' });

interface Shown {
  readonly families: readonly { readonly id: string; readonly code: string }[];
  readonly facts: {
    readonly onEye: readonly { readonly rootId: string; readonly current: { readonly eye: string; readonly lot: string; readonly expiresOn: string } | null }[];
  };
  readonly worn: Readonly<Record<'right' | 'left', { readonly lensId: string } | null>>;
}
const at = async (page: Page, visitId: string) => ({ visitId, version: (await readRecord<Shown>(page, visitId)).visit.version });

/** Somebody who has worn −4.75 for years: put on, handed over, the visit closed. */
async function established(page: Page, name: string, birthDate = '1984-05-06'): Promise<string> {
  const { wearerId = '' } = await command(page, 'createWearer', { name, birthDate });
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  await command(page, 'recordRefraction', { visitId, version: 1, right: '-5.00', left: '-5.00', vertexMm: 12 });
  const { families } = await readRecord<Shown>(page, visitId);
  const familyId = families.find((f) => f.code === 'turnstone-30')?.id;
  const lens = {
    familyId,
    sphere: -4.75,
    cylinder: 0,
    axis: 180,
    add: null,
    baseCurve: 8.4,
    diameter: 14.2,
    inHand: { lot: 'T-475', expiresOn: '1 Mar 2032' },
  };
  await command(page, 'putOnTrials', { ...(await at(page, visitId)), right: lens, left: lens, despiteReason: 'wears them' });
  const { facts } = await readRecord<Shown>(page, visitId);
  const box = (eye: string) => {
    const on = facts.onEye.find((c) => c.current?.eye === eye);
    return { lensOnEyeId: on?.rootId, lot: on?.current?.lot, expiresOn: on?.current?.expiresOn, lensCount: 1 };
  };
  await command(page, 'handOver', { ...(await at(page, visitId)), right: box('right'), left: box('left'), experienceNote: 'wears since 2004' });
  await command(page, 'closeVisit', await at(page, visitId));
  return wearerId;
}
/** What can be answered of one eye. */
const answers = (page: Page, eye: 'Right' | 'Left') => page.getByRole('group', { name: `${eye} eye: is this it?` });
const YEAR = 365 * 24 * 3600;

test('what was pressed before it is known since when waits for it; an older lens and one bought elsewhere are named', async ({ page }) => {
  await signIn(page);
  const wearerId = await established(page, 'Merrin Oakes');
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'longFollowUp' });
  await page.goto(`/visits/${visitId}/worn-now`);
  await answers(page, 'Right').getByRole('button', { name: 'Yes, this lens' }).click();
  await expect(page.getByText('Since when? Then the answer is kept.')).toBeVisible();
  await answers(page, 'Left').getByRole('button', { name: 'Bought elsewhere' }).click();
  await page.getByRole('dialog').getByLabel('What it is called').fill('a harbour shop’s own');
  await page.getByRole('dialog').getByRole('button', { name: 'It is on the eye' }).click();
  await page.getByLabel('or at').fill('25');
  await page.getByLabel('or at').press('Enter');
  await expect(page.getByText('“25” is not a time of day')).toBeVisible();
  await page.getByLabel('or at').fill('7:30');
  await page.getByLabel('or at').press('Enter');
  await expect(page.getByTestId('said-right')).toContainText('Yes, in since 07:30');
  await expect(page.getByTestId('said-left')).toContainText('Bought elsewhere, in since 07:30');
  await answers(page, 'Left').getByRole('button', { name: 'Answer again' }).click();
  await answers(page, 'Left').getByRole('button', { name: 'None: glasses today' }).click();
  await expect(page.getByTestId('said-left')).toContainText('None in: glasses today');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('said-left')).toContainText('Bought elsewhere');
});

test('year after year: over-refractions that were discussed and not ordered are never added up; at the fourth visit −4.25 is ordered', async ({
  page,
  site,
}) => {
  test.setTimeout(240_000);
  await signIn(page);
  const wearerId = await established(page, 'Idony Sallow');
  for (const over of ['+0.25', '+0.25', '+0.50']) {
    await site.move(YEAR);
    await page.context().clearCookies();
    await signIn(page);
    const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'longFollowUp' });
    const { worn } = await readRecord<Shown>(page, visitId);
    const yes = (eye: 'right' | 'left') => ({ answer: 'yes', lensId: worn[eye]?.lensId });
    await command(page, 'answerWorn', { ...(await at(page, visitId)), right: yes('right'), left: yes('left'), since: { time: '7' } });
    const { facts } = await readRecord<Shown>(page, visitId);
    const read = (eye: string) => ({
      lensOnEyeId: facts.onEye.find((c) => c.current?.eye === eye)?.rootId,
      overRefraction: over,
      vertexMm: 12,
      plusHalf: 'worse',
    });
    await command(page, 'recordOnEye', { ...(await at(page, visitId)), right: read('right'), left: read('left') });
    await command(page, 'closeVisit', await at(page, visitId));
  }
  await site.move(YEAR);
  await page.context().clearCookies();
  await signIn(page);
  await page.goto(`/wearers/${wearerId}`);
  await page.getByRole('button', { name: 'New visit' }).click();
  await page.getByTestId('kind-fullAnnual').click();
  await page.waitForURL('**/as-last-time');
  await page.goto(page.url().replace('as-last-time', 'worn-now'));
  await expect(page.getByTestId('worn-right')).toHaveText('−4.75');
  await expect(page.getByTestId('chain-right')).toContainText('Handed over 24 Nov 2026');
  await expect(page.getByTestId('worn-doubts')).toContainText('Both eyes: what was handed over was used up on 23 Dec 2026');
  // An hour, and one press an eye.
  for (const key of ['7', 'y', 'y']) await page.keyboard.press(key);
  await expect(page.getByTestId('said-right')).toContainText('Yes, in since 07:00');
  await expect(page.getByTestId('said-left')).toContainText('Yes, in since 07:00');
  const visit = new URL(page.url()).pathname.replace('/worn-now', '');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/history');
  await say(page, visit, { danger: ['none'] });
  await see(page, visit, { staining: 0 });
  await page.goto(`${visit}/refraction`);
  for (const eye of ['Right', 'Left']) await page.getByLabel(`${eye} eye, spectacle power`).fill('-4.50');
  // Four years on this wearer is 46: near vision is asked next.
  await page.getByRole('button', { name: 'Record, then near vision' }).click();
  await page.waitForURL('**/near-vision');
  await page.goto(`${visit}/on-eye`);
  await expect(page.getByTestId('on-right')).toHaveText('−4.75');
  await desk(page, 'Fit');
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, fit` })
      .getByRole('button', { name: 'fits' })
      .click();
  await desk(page, 'Sight');
  for (const eye of ['Right', 'Left']) await page.getByLabel(`${eye} eye, over-refraction`, { exact: true }).fill('+0.50');
  await expect(page.getByTestId('order-right')).toContainText('−4.25');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.goto(`${visit}/prescription`);
  for (const eye of ['right', 'left']) await expect(page.getByTestId(`prescribed-${eye}`)).toHaveText('−4.25');
});

test('a kind of visit is proposed with its fee and its reason; it becomes another, and a step in which something stands stays listed', async ({ page }) => {
  await signIn(page);
  const wearerId = await established(page, 'Sorrel Vane', '1990-05-06');
  await page.goto(`/wearers/${wearerId}`);
  await page.keyboard.press('n');
  await expect(page.getByTestId('proposed-kind')).toContainText('Short follow-up, no charge');
  await expect(page.getByTestId('proposed-kind')).toContainText('spherical lenses, fitted today: within 90 days it costs nothing');
  await page.getByLabel('Examined elsewhere on').fill('1 Jan 1901');
  await page.getByTestId('examined').getByLabel('by').fill('the harbour clinic');
  await page.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByText('1 Jan 1901 is before the birth date.')).toBeVisible();
  await page.getByTestId('kind-shortFollowUp').click();
  await page.waitForURL('**/worn-now');
  const steps = page.getByRole('navigation', { name: 'Steps of the visit' }).getByRole('link');
  await expect(steps).toHaveText([/Worn now/, /Aftercare/, /History/, /On eye/, /Eye health/, /Prescription/, /Supply/]);
  const visit = new URL(page.url()).pathname.replace('/worn-now', '');
  await page.goto(`${visit}/refraction`);
  await page.getByLabel('Right eye, spectacle power').fill('-5.00');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL(/kind|lens/);
  await page.goto(`${visit}/history`);
  await expect(steps.last()).toContainText('Refraction');
  await page.getByTestId('kind-of-visit').click();
  await expect(page.getByTestId('decided')).toContainText('Asha Penhallow decided: Short follow-up, no charge. Proposed was Short follow-up, no charge.');
  await page.getByLabel('Another fee').fill('x');
  await page.getByTestId('kind-longFollowUp').click();
  await expect(page.getByText('An amount of money')).toBeVisible();
  await page.getByLabel('Another fee').fill('30');
  await page.getByTestId('kind-longFollowUp').click();
  await expect(page.getByTestId('kind-of-visit')).toHaveText('Long follow-up');
  await expect(steps).toHaveCount(10);
  await page.getByTestId('kind-of-visit').click();
  await expect(page.getByTestId('decided')).toContainText('Long follow-up, $30.00');
});
