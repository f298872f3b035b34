import type { Page } from '@playwright/test';
import { command, expect, readRecord, signIn, test } from './site';

test.use({ file: 'aftercare' });

interface Shown {
  readonly families: readonly { readonly id: string; readonly code: string }[];
  readonly worn: Readonly<Record<'right' | 'left', { readonly lensId: string } | null>>;
  readonly facts: { readonly onEye: readonly { readonly rootId: string; readonly current: { readonly eye: string } | null }[] };
}
const at = async (page: Page, visitId: string) => ({ visitId, version: (await readRecord<Shown>(page, visitId)).visit.version });
const onOf = async (page: Page, visitId: string, eye: string) =>
  (await readRecord<Shown>(page, visitId)).facts.onEye.findLast((c) => c.current?.eye === eye)?.rootId;

/** Fitted with monthly spheres that were worn home a week ago; the follow-up is open, both lenses in since seven. */
async function followUp(page: Page, name: string, later: (seconds: number) => Promise<void>): Promise<{ readonly visitId: string; readonly wearerId: string }> {
  const { wearerId = '' } = await command(page, 'createWearer', { name, birthDate: '1984-05-06' });
  const { visitId: first = '' } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  const { families } = await readRecord<Shown>(page, first);
  const familyId = families.find((f) => f.code === 'turnstone-30')?.id;
  const lens = (sphere: number) => ({
    familyId,
    sphere,
    cylinder: 0,
    axis: 180,
    add: null,
    baseCurve: 8.4,
    diameter: 14.2,
    inHand: { lot: 'T-1', expiresOn: '1 Mar 2032' },
  });
  await command(page, 'recordRefraction', { ...(await at(page, first)), right: '-3.00', left: '-3.25', vertexMm: 12 });
  await command(page, 'putOnTrials', { ...(await at(page, first)), right: lens(-3), left: lens(-3.25), despiteReason: 'wears them' });
  await later(8 * 60);
  const box = async (eye: string) => ({ lensOnEyeId: await onOf(page, first, eye), lot: 'T-1', expiresOn: '1 Mar 2032', lensCount: 1 });
  await command(page, 'handOver', { ...(await at(page, first)), right: await box('right'), left: await box('left'), experienceNote: 'wears since 2004' });
  await command(page, 'closeVisit', await at(page, first));
  await later(7 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page);
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'shortFollowUp' });
  const { worn } = await readRecord<Shown>(page, visitId);
  const yes = (eye: 'right' | 'left') => ({ answer: 'yes', lensId: worn[eye]?.lensId });
  await command(page, 'answerWorn', { ...(await at(page, visitId)), right: yes('right'), left: yes('left'), since: { time: '7' } });
  return { visitId, wearerId };
}

test('what is reported, seen and asked points to causes; it ends with the next visit booked in one press, and stands in the whole file', async ({
  page,
  site,
}) => {
  await signIn(page);
  const { visitId, wearerId } = await followUp(page, 'Jenna Rosewarne', (seconds) => site.move(seconds));
  await page.goto(`/visits/${visitId}/aftercare`);
  const right = page.getByRole('group', { name: 'Right eye: reported' });
  await right.getByRole('button', { name: 'haze' }).click();
  await right.getByRole('button', { name: 'dry late in the day' }).click();
  // Faster than the server answers: each press is kept.
  await page.getByRole('group', { name: 'Left eye: reported' }).getByRole('button', { name: 'nothing' }).click();
  await page.getByRole('group', { name: 'Right eye, Deposits' }).getByRole('button', { name: 'film' }).click();
  await page.getByRole('group', { name: 'Glasses to change to' }).getByRole('button', { name: 'none' }).click();
  await expect(page.getByTestId('points-depositsReusable')).toContainText('Peroxide, or a shorter replacement');
  await expect(page.getByTestId('points-blurFromSurface')).toContainText('Right eye');
  await expect(page.getByTestId('points-dryLateReusable')).toContainText('common practice');
  await expect(page.getByTestId('points-noGlasses')).toContainText('wearer');
  await page.getByLabel('Replaced every … days, really').fill('500');
  await expect(page.getByText('Between 1 and 365.')).toBeVisible();
  await page.getByLabel('Replaced every … days, really').fill('45');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('points-stretchedMonthly')).toBeVisible();
  await page.getByRole('group', { name: 'Said back today' }).getByRole('button', { name: 'no water' }).click();
  await page
    .getByRole('button', { name: 'Keep', exact: true })
    .or(page.getByRole('button', { name: 'Keep what was said back' }))
    .click();
  await expect(page.getByTestId('points-careLapsed')).toBeVisible();
  // Lenses that nobody looked at do not just go on.
  await page.getByRole('group', { name: 'How aftercare ends' }).getByRole('button', { name: 'Keep these lenses' }).click();
  await page
    .getByRole('button', { name: /^End and book/ })
    .first()
    .click();
  await expect(page.getByText('Something was not looked at yet.').first()).toBeVisible();
  await page.getByRole('group', { name: 'How aftercare ends' }).getByRole('button', { name: 'Change something' }).click();
  await page.getByLabel('What changes, and why').fill('peroxide, seen again');
  await page
    .getByRole('button', { name: /^End and book/ })
    .first()
    .click();
  await expect(page.getByTestId('aftercare-ended')).toContainText('peroxide, seen again');
  await page.goto(`/wearers/${wearerId}/file`);
  await expect(page.getByTestId('lens-line-right')).toContainText('Turnstone 30 −3.00');
  await page.getByRole('group', { name: 'What is shown' }).getByRole('button', { name: 'asked and taught' }).click();
  await expect(page.getByText('Change something, peroxide, seen again')).toBeVisible();
  await expect(page.getByText('dry late in the day, haze').or(page.getByText('haze, dry late in the day')).first()).toBeVisible();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'All of it as JSON' }).click()]);
  expect(file.suggestedFilename()).toMatch(/^record-\d{4}\.json$/);
});

test('an adverse event keeps lenses off the eye until all six are there', async ({ page, site }) => {
  await signIn(page);
  const { visitId } = await followUp(page, 'Locryn Pascoe', (seconds) => site.move(seconds));
  await page.goto(`/visits/${visitId}/aftercare`);
  await page.getByRole('button', { name: 'Record an adverse event' }).click();
  await page.getByRole('button', { name: 'Right eye', exact: true }).click();
  await page.getByRole('button', { name: 'Corneal abrasion' }).click();
  await page.getByLabel('Began on').fill('1 Jan 2040');
  await page.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByText('This day is still to come.')).toBeVisible();
  await page.getByLabel('Began on').fill('1 Dec 2026');
  await page.getByRole('button', { name: 'Record it' }).click();
  await expect(page.getByTestId('adverse-events')).toContainText('Turnstone 30 −3.00, lot T-1');
  await expect(page.getByTestId('adverse-events')).toContainText('No lens on this eye since then');
  const back = page.getByTestId('back-right');
  for (const need of ['drops are off', 'a new lens', 'a new case']) await back.getByLabel(need).check();
  await expect(back.getByRole('button', { name: 'Lenses may be worn again' })).toBeDisabled();
  const stain = [{ sign: 'staining', value: 0 }];
  await command(page, 'recordFindings', { ...(await at(page, visitId)), right: stain, left: stain });
  await page.reload();
  for (const need of ['drops are off', 'a new lens', 'a new case']) await back.getByLabel(need).check();
  await back.getByRole('button', { name: 'Lenses may be worn again' }).click();
  await expect(page.getByText('Still missing: aftercare booked within a week.').first()).toBeVisible();
});
