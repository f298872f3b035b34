import type { Page } from '@playwright/test';
import { command, expect, readRecord, signIn, test } from './site';

test.use({ file: 'asLastTime' });

interface Shown {
  readonly families: readonly { readonly id: string; readonly code: string }[];
  readonly worn: Readonly<Record<'right' | 'left', { readonly lensId: string } | null>>;
  readonly facts: Readonly<Record<string, readonly object[]>> & {
    readonly onEye: readonly { readonly rootId: string; readonly current: { readonly eye: string } | null }[];
  };
  readonly health: {
    readonly answers: readonly { readonly visitId: string }[];
    readonly findings: readonly { readonly current: { readonly visitId: string } | null }[];
  };
}
const YEAR = 365 * 24 * 3600;
const at = async (page: Page, visitId: string) => ({ visitId, version: (await readRecord<Shown>(page, visitId)).visit.version });
const onOf = async (page: Page, visitId: string, eye: string) =>
  (await readRecord<Shown>(page, visitId)).facts.onEye.findLast((c) => c.current?.eye === eye)?.rootId;
/** Every question that a wearer of lenses is asked, answered as somebody happy answers it. */
const HAPPY: Readonly<Record<string, unknown>> = {
  danger: ['none'],
  lastWorn: 'now',
  whichLens: 'monthly',
  sleptIn: 'never',
  replacedEvery: 30,
  whyChange: ['none'],
  goals: ['everyDay'],
  nights: 'none',
  work: ['indoors'],
  freeTime: ['quiet'],
  daysPerWeek: 7,
  hoursPerDay: 12,
  dryness: 'none',
  medicines: [],
  drops: ['none'],
  allergy: ['none'],
  health: ['none'],
  skin: ['none'],
  smoking: 'no',
  eyeHistory: ['none'],
  handler: 'self',
  hygieneHands: 'good',
  hygieneCare: 'good',
  water: 'never',
  returns: 'yes',
  budget: 'open',
};
const GRADES = { lidMargin: 0.5, lashes: 0, bulbarRedness: 0.5, limbalRedness: 0.5, papillae: 0.5, staining: 0, vessels: 0, scars: 0 };

/** Fitted a year ago: history, slit lamp, R a toric turned 10° to the examiner's left, L a sphere; both worn home. */
async function fitted(page: Page, name: string, later: (seconds: number) => Promise<void>): Promise<string> {
  const { wearerId = '' } = await command(page, 'createWearer', { name, birthDate: '1984-05-06' });
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  const answers = Object.entries(HAPPY).map(([question, value]) => ({ question, value, note: null }));
  await command(page, 'recordHistory', { ...(await at(page, visitId)), answers });
  const graded = Object.entries(GRADES).map(([sign, value]) => ({ sign, value }));
  await command(page, 'recordFindings', { ...(await at(page, visitId)), right: graded, left: graded });
  await command(page, 'recordRefraction', {
    ...(await at(page, visitId)),
    right: '-3.25 -1.75 x 20',
    left: '-5.00',
    rightVa: '20/20',
    leftVa: '20/20',
    vertexMm: 12,
  });
  const { families } = await readRecord<Shown>(page, visitId);
  const inHand = { lot: 'T-1', expiresOn: '1 Mar 2032' };
  const lens = (code: string, sphere: number, cylinder: number, axis: number, baseCurve: number) => ({
    familyId: families.find((f) => f.code === code)?.id,
    ...{ sphere, cylinder, axis, add: null, baseCurve, diameter: 14.2, inHand },
  });
  const right = lens('plover-30-toric', -3, -1.75, 30, 8.6);
  const left = lens('turnstone-30', -4.75, 0, 180, 8.4);
  await command(page, 'putOnTrials', { ...(await at(page, visitId)), right, left, despiteReason: 'wears them' });
  // A session that nobody uses for ten minutes ends.
  for (const minutes of [8, 8]) {
    await later(minutes * 60);
    await readRecord(page, visitId);
  }
  const reading = { lensOnEyeId: await onOf(page, visitId, 'right'), vertexMm: 12, blinks: [10, 9, 11].map((rotationLeft) => ({ rotationLeft })) };
  await command(page, 'recordOnEye', { ...(await at(page, visitId)), right: reading, left: null });
  const box = async (eye: string) => ({ lensOnEyeId: await onOf(page, visitId, eye), lot: 'T-1', expiresOn: '1 Mar 2032', lensCount: 1 });
  await command(page, 'handOver', { ...(await at(page, visitId)), right: await box('right'), left: await box('left'), experienceNote: 'wears since 2004' });
  await command(page, 'closeVisit', await at(page, visitId));
  return wearerId;
}

/** How many facts and answers a visit holds. */
async function fullness(page: Page, visitId: string): Promise<number> {
  const { facts, health } = await readRecord<Shown>(page, visitId);
  const measured = Object.values(facts).reduce((sum, list) => sum + list.length, 0);
  return measured + health.answers.filter((a) => a.visitId === visitId).length + health.findings.filter((c) => c.current?.visitId === visitId).length;
}

test('the happy annual: from the wearer’s page to a renewed, ordered pair in 20 presses, and fuller than the long way', async ({ page, site }) => {
  test.setTimeout(240_000);
  await signIn(page);
  const happy = await fitted(page, 'Perran Lisle', (seconds) => site.move(seconds));
  const long = await fitted(page, 'Tamsyn Orme', (seconds) => site.move(seconds));
  await site.move(YEAR - 30 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page);
  await page.goto(`/wearers/${happy}`);

  let presses = 0;
  const press = async (key: string): Promise<void> => {
    presses += 1;
    await page.keyboard.press(key);
  };
  const click = async (name: string): Promise<void> => {
    presses += 1;
    await page.getByRole('button', { name, exact: true }).click();
  };
  await press('n');
  await expect(page.getByTestId('proposed-kind')).toContainText('Lens-only annual');
  presses += 1;
  await page.getByTestId('kind-lensAnnual').click();
  await page.waitForURL('**/as-last-time');
  await expect(page.getByTestId('read-back')).toContainText('Wants lenses for: every day');
  // Faster than the server answers: each press waits for the one before it.
  for (const key of ['n', 'b', '7', 'y', 'y', '2', '2', 'p', 'p', 'f', 'f', 'c', 'c']) await press(key);
  await expect(page.getByText('All is looked at. Sign, then order.')).toBeVisible();
  const visitId = new URL(page.url()).pathname.split('/')[2] ?? '';
  const shown = await readRecord<{
    health: { findings: readonly { current: { visitId: string; sign: string; eye: string; copiedFromId: string | null; observedAt: string } | null }[] };
  }>(page, visitId);
  const today = shown.health.findings.flatMap((c) => (c.current?.visitId === visitId ? [c.current] : []));
  // Stain is of today; the lid margin keeps the day of last year.
  const of = (sign: string) => today.filter((f) => f.sign === sign).map((f) => [f.eye, f.copiedFromId === null, f.observedAt.slice(0, 4)]);
  expect(of('staining').sort()).toEqual([
    ['left', true, '2027'],
    ['right', true, '2027'],
  ]);
  expect(of('lidMargin').sort()).toEqual([
    ['left', false, '2026'],
    ['right', false, '2026'],
  ]);
  await press('Enter');
  await page.waitForURL('**/prescription');
  await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 30');
  await expect(page.getByTestId('prescribed-left')).toHaveText('−4.75');
  // Nothing asks for a sentence: all of it was looked at.
  await expect(page.getByRole('textbox', { name: /why sign all the same/i })).toHaveCount(0);
  await page.getByLabel('Your password, once more').fill('plain-sight');
  await click('Sign prescription');
  await expect(page.getByText(/No\. \d+/).first()).toBeVisible();
  await press('Enter');
  await page.waitForURL('**/supply');
  await click('Place the order');
  await expect(page.getByText(/Order \d+/).first()).toBeVisible();
  expect(presses).toBeLessThanOrEqual(20);
  test.info().annotations.push({ type: 'presses', description: String(presses) });

  // The long way, as briefly as it can be done: what is worn, danger signs, stain, sight, over-refraction, fit and blinks.
  const { visitId: other = '' } = await command(page, 'openVisit', { wearerId: long, kind: 'lensAnnual' });
  const { worn } = await readRecord<Shown>(page, other);
  const yes = (eye: 'right' | 'left') => ({ answer: 'yes', lensId: worn[eye]?.lensId });
  await command(page, 'answerWorn', { ...(await at(page, other)), right: yes('right'), left: yes('left'), since: { time: '7' } });
  await command(page, 'recordHistory', { ...(await at(page, other)), answers: [{ question: 'danger', value: ['none'], note: null }] });
  const read = async (eye: string, blinks: readonly number[]) => ({
    ...{ lensOnEyeId: await onOf(page, other, eye), vertexMm: 12, overRefraction: 'plano', plusHalf: 'worse', fit: 'fits' },
    findings: [{ sign: 'acuityLens', value: 0, typed: '20/20' }],
    blinks: blinks.map((rotationLeft) => ({ rotationLeft })),
  });
  await command(page, 'recordOnEye', { ...(await at(page, other)), right: await read('right', [10, 9, 11]), left: await read('left', []) });
  const stain = [{ sign: 'staining', value: 0 }];
  await command(page, 'recordFindings', { ...(await at(page, other)), right: stain, left: stain });
  expect(await fullness(page, visitId)).toBeGreaterThan(2 * (await fullness(page, other)));
});

test('what is otherwise than last time is typed, and nothing else; what is refused lets the presses after it go', async ({ page, site }) => {
  await signIn(page);
  const wearerId = await fitted(page, 'Derwa Kitto', (seconds) => site.move(seconds));
  await site.move(YEAR - 30 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page);
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'lensAnnual' });
  await page.goto(`/visits/${visitId}/as-last-time`);
  // No hour was pressed: the lens is not on the eye, and nothing is read through it.
  for (const key of ['y', '2', 'p']) await page.keyboard.press(key);
  await expect(page.getByText('since when? Press the hour first').first()).toBeVisible();
  await page.keyboard.press('8');
  for (const key of ['y', 'y', '2', '3']) await page.keyboard.press(key);
  await expect(page.getByTestId('sees-left')).toHaveText('20/25');
  await expect(page.getByTestId('mark-right')).toHaveText(/mark 10° to your left, as on/);
  await page.getByRole('button', { name: /^Right eye, Lid margin: 0\.5 on/ }).click();
  await page.getByRole('group', { name: 'Right eye, Lid margin today' }).getByRole('button', { name: '1.5' }).click();
  await expect(page.getByText('Before the lens comes off: over-refraction, fit.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Right eye: cornea clear' }).click();
  await expect(page.getByTestId('cornea-right')).toContainText('Looked at today: stain 0.0');
  await expect(page.getByTestId('cornea-right')).not.toContainText('Lid margin');
  await expect(page.getByTestId('cornea-right')).toContainText('Lashes');
  await page.goto(`/visits/${visitId}/eye-health`);
  await expect(page.getByTestId('lidMargin-right')).toContainText('1.5');
  await expect(page.getByTestId('lashes-right')).toContainText('as last time');
});
