// npm run screenshots: one current picture of each main view, from the demo data, at one fixed moment.
import { chromium, type Page } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PASSWORD } from '../demo/load';
import { connect } from '../src/db/client';
import { setClockSetting } from '../src/db/clockSetting';
import { TEST_NOW, TEST_TODAY } from '../tests/support/moment';
import { ensureBuild } from './lib/build';
import { CHROMIUM } from './lib/chromium';
import { startThrowAwayCluster } from './lib/cluster';
import { ensureDatabase, prepareDatabase } from './lib/prepareDatabase';
import { startSite } from './lib/site';

const folder = join('docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const cluster = await startThrowAwayCluster();
await ensureDatabase((name) => cluster.url(name), 'pictures');
const { appUrl } = await prepareDatabase(cluster.url('pictures'), { demoAt: TEST_NOW });
const owner = connect(cluster.url('pictures'), { max: 1 });
let now = Date.parse(TEST_NOW);
await setClockSetting(owner, { frozenAt: TEST_NOW, offsetSeconds: 0 });
await ensureBuild('.next');
const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY, camera: true });
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, timezoneId: 'America/New_York', reducedMotion: 'reduce', baseURL: site.url });
await page.clock.install({ time: now });

/** Both clocks go on by some minutes. */
async function wait(minutes: number): Promise<void> {
  now += minutes * 60_000;
  await setClockSetting(owner, { frozenAt: new Date(now).toISOString(), offsetSeconds: 0 });
  await page.clock.setSystemTime(now);
}
async function shot(name: string, on: Page = page): Promise<void> {
  await on.evaluate(() => document.fonts.ready);
  await on.waitForTimeout(250);
  await on.screenshot({ path: join(folder, `${name}.png`) });
  console.log(`  ${name}.png`);
}
const press = (name: string | RegExp) => page.getByRole('button', { name }).click();
const quiet = async (): Promise<void> => {
  await page.locator('.toast').waitFor({ state: 'detached', timeout: 15_000 });
  await page.mouse.move(4, 4);
};

/** Asks for a use case as the signed-in page would. */
async function call<Value>(path: string, input: object): Promise<Value> {
  const answer = await page.evaluate(
    async ([path, body]) =>
      (await fetch(path as string, { method: 'POST', headers: { 'content-type': 'application/json' }, body: body as string })).json() as Promise<unknown>,
    [`/api/${path}`, JSON.stringify(input)],
  );
  const result = answer as { ok: boolean; value: Value };
  if (!result.ok) throw new Error(`${path}: ${JSON.stringify(answer)}`);
  return result.value;
}
const command = (name: string, input: object) => call<{ readonly visitId: string; readonly wearerId: string }>(`commands/${name}`, input);
const versionOf = async (visit: string): Promise<number> => {
  const input = { visitId: visit.split('/').pop(), page: 'history' };
  return (await call<{ part: { head: { visit: { version: number } } } }>('queries/readVisit', input)).part.head.visit.version;
};
type Grades = Readonly<Record<string, number | string>>;
const listed = (all: Grades) => Object.entries(all).map(([sign, value]) => ({ sign, value }));
const graded = (right: Grades, left: Grades = right) => ({ right: listed(right), left: listed(left) });

/** A visit of somebody, opened here, with what was said and found. */
async function seen(name: string, answers: Readonly<Record<string, unknown>>, right: Grades, left: Grades): Promise<string> {
  await page.goto('/wearers');
  await page.getByRole('link', { name }).first().click();
  await page.waitForURL('**/wearers/*');
  const { visitId } = await command('openVisit', { wearerId: page.url().split('/').pop(), kind: 'refit' });
  const list = Object.entries(answers).map(([question, value]) => ({ question, value, note: null }));
  await command('recordHistory', { visitId, version: 1, answers: list });
  await command('recordFindings', { visitId, version: 2, ...graded(right, left) });
  return `/visits/${visitId}`;
}

async function signIn(who: RegExp): Promise<void> {
  await page.goto('/sign-in');
  await press(who);
  await page.getByLabel('Password').fill(DEMO_PASSWORD);
  await press('Sign in');
  await page.waitForURL('**/');
}

await signIn(/Asha/);
await page.getByTestId('today-1').getByRole('button', { name: 'Begin the visit' }).click();
await page.waitForURL('**/history');
await page.goto('/');
await page.locator('.strip-grid').waitFor();
await shot('today');
await page.goto('/diary');
await page.locator('.strip-grid').waitFor();
await shot('diary');
await page.goto('/wearers');
await page.getByRole('link', { name: 'Nessa Quillby' }).click();
await press(/^Continue/);
await page.waitForURL('**/history');
const visit = page.url().replace('/history', '');
const key = async (...keys: readonly string[]): Promise<void> => {
  for (const k of keys) {
    await page.keyboard.press(k);
    await page.waitForTimeout(60);
  }
};
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
const lorcan = await seen(
  'Lorcan Stiles-Webb',
  {
    danger: ['none'],
    lastWorn: 'now',
    whichLens: 'twoWeekly',
    sleptIn: 'never',
    replacedEvery: 29,
    goals: ['screens'],
    daysPerWeek: 7,
    hoursPerDay: 15,
    tell: 'Air-conditioned edit room',
  },
  { lidMargin: 2.5, lashes: 0.5, bulbarRedness: 2, limbalRedness: 1.5, papillae: 1, staining: 1, vessels: 1.5, infiltrates: 0, scars: 0, endothelium: 0.5 },
  { lidMargin: 2, lashes: 0.5, bulbarRedness: 1.5, limbalRedness: 1, papillae: 1, staining: 0.5, vessels: 1, infiltrates: 0, scars: 0.5, endothelium: 0.5 },
);
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
for (const said of ['the right of the picture', 'up', 'straight ahead', 'are free']) await picturesOf.getByRole('button', { name: said, exact: true }).click();
await picturesOf.getByRole('button', { name: 'Take this reading' }).and(picturesOf.locator(':enabled')).waitFor({ timeout: 20_000 });
await shot('rotation-pictures');
await picturesOf.getByRole('button', { name: 'Close' }).click();
await page.goto(`${lorcan}/eye-health`);
await shot('eye-health');
const iola = await seen(
  'Iola Fenmore',
  {
    danger: ['pain', 'light'],
    onset: 'Since last night, worse on waking',
    solution: 'Tidewash',
    medicines: [],
    water: 'shower',
    lastWorn: 'now',
    whichLens: 'monthly',
    sleptIn: 'someNights',
    replacedEvery: 40,
    goals: ['everyDay'],
    daysPerWeek: 7,
    hoursPerDay: 15,
  },
  {
    lidMargin: 1,
    lashes: 0,
    bulbarRedness: 3.5,
    limbalRedness: 3,
    papillae: 1,
    staining: 2.5,
    stainingPlace: 'central',
    vessels: 0,
    infiltrates: 2,
    scars: 0,
    endothelium: 0.5,
    pain: 7,
    discharge: 'watering',
    light: 'hurts',
  },
  {
    lidMargin: 0.5,
    lashes: 0,
    bulbarRedness: 1.5,
    limbalRedness: 1,
    papillae: 1,
    staining: 0.5,
    vessels: 0,
    infiltrates: 0,
    scars: 0,
    endothelium: 0,
    pain: 0,
    discharge: 'none',
    light: 'fine',
  },
);
await command('recordFindings', {
  visitId: iola.split('/').pop(),
  version: await versionOf(iola),
  right: [],
  left: [],
  rightSight: [{ way: 'pinhole', acuity: { logMar: 0.4, typed: '20/50' } }],
  leftSight: [{ way: 'pinhole', acuity: { logMar: 0, typed: '20/20' } }],
});
await page.goto(`${iola}/eye-health`);
await press('Acknowledge');
await press('Open same-day referral');
await page.getByTestId('step-phoned').getByRole('button').click();
await quiet();
const drawn = { eye: 'right', kind: 'infiltrate', nasalMm: 1.5, upMm: -2, longMm: 2.2, acrossMm: 1.4 };
await command('recordLesion', { visitId: iola.split('/').pop(), version: await versionOf(iola), ...drawn });
await command('recordFindings', { visitId: iola.split('/').pop(), version: await versionOf(iola), ...graded({ cells: 1 }, {}) });
await page.goto(`${iola}/red-eye`);
await page.getByTestId('threat').waitFor();
await shot('red-eye');
const efua = await seen(
  'Efua Brandreth',
  { danger: ['none'], goals: ['near', 'everyDay'], work: ['indoors'], tell: 'Conducts a choir: the score, and the back row' },
  { staining: 0, pupilRoom: 4, pupilDim: 5.5 },
  { staining: 0, pupilRoom: 4, pupilDim: 6 },
);
const inEfua = async (name: string, input: object) => command(name, { visitId: efua.split('/').pop(), version: await versionOf(efua), ...input });
await inEfua('recordRefraction', {
  ...{ right: '+1.25', left: '+1.50 -0.50 x 95', vertexMm: 12, rightAdd: '+2.00', leftAdd: '+2.00', nearCm: 40, rightNear: 'N5', leftNear: 'N5' },
});
await inEfua('recordNearFindings', {
  findings: listed({ dominanceBlur: 'right', dominanceSighting: 'right', coverTest: 'straight', oldSquint: 'no', score: 68, phone: 36, road: 600 }),
});
await page.goto(`${efua}/near-vision`);
await page.getByTestId('way-recommended').waitFor();
await shot('near-vision');
await browser.close();
await site.stop();
await owner.end();
await cluster.stop();
