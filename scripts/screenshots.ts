// npm run screenshots: one current picture of each main view, from the demo data, at one fixed moment.
import { chromium, type Page } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PASSWORD } from '../demo/load';
import { connect } from '../src/db/client';
import { setClockSetting } from '../src/db/clockSetting';
import { TEST_NOW, TEST_TODAY } from '../tests/support/moment';
import { ensureBuild } from './lib/build';
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
ensureBuild('.next');
const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
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

async function signIn(who: RegExp): Promise<void> {
  await page.goto('/sign-in');
  await press(who);
  await page.getByLabel('Password').fill(DEMO_PASSWORD);
  await press('Sign in');
  await page.waitForURL('**/');
}

await page.goto('/sign-in');
await shot('sign-in');
await signIn(/Asha/);
await press('Begin the visit').catch(() => page.getByTestId('today-1').getByRole('button').click());
await page.waitForURL('**/power');
await page.goto('/');
await shot('today');
await page.goto('/wearers');
await shot('wearers');
await page.getByRole('link', { name: 'Nessa Quillby' }).click();
await press(/^Go on with/);
await page.waitForURL('**/power');
const visit = page.url().replace('/power', '');
await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.75 x 20');
await page.getByLabel('Left eye, spectacle power').fill('-4.50/-1.25x165');
await page.waitForTimeout(700);
await shot('power');
await press('Record and choose a lens');
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
await page.getByLabel('Right eye, where the mark sits').fill('10l');
await page.getByLabel('Left eye, where the mark sits').fill('0');
for (const eye of ['Right', 'Left'])
  await page
    .getByRole('group', { name: `${eye} eye, fit` })
    .getByRole('button', { name: 'fits' })
    .click();
await page.getByLabel('Right eye, over-refraction').fill('+0.25 -0.50 x 70');
await page.getByTestId('need-right').click();
await page.evaluate(() => window.scrollTo(0, 0));
await page.waitForTimeout(700);
await shot('on-eye');
await page.locator('main').click({ position: { x: 4, y: 4 } });
await page.keyboard.press('d');
await shot('on-eye-lights-down');
await page.keyboard.press('d');
await page.setViewportSize({ width: 768, height: 1024 });
await shot('on-eye-narrow');
await page.setViewportSize({ width: 1280, height: 800 });
await press('Record the readings');
await press('To the prescription');
await page.waitForURL('**/final');
await page.getByLabel('Why the order need not wait for aftercare').fill('At sea from 2 December; wore soft lenses before.');
await quiet();
await shot('final');
await page.getByLabel('Your password, once more').fill(DEMO_PASSWORD);
await press('Sign prescription');
await page.getByTestId('signed').waitFor();
await press('To the lesson');
await page.waitForURL('**/teach');
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
await shot('teach');
for (const word of ['L went on', 'L came off', 'L went on']) await press(word);
for (const name of ['Rub and rinse', 'Fresh solution', 'A stuck lens is never pulled', 'Replace on time', 'Glasses always with you', 'Danger signs']) {
  await page.getByRole('checkbox', { name, checked: false }).click();
  await page.getByRole('checkbox', { name, checked: true }).waitFor();
}
await press('Sign off the lesson');
await press('Hand over the trial pair');
await page.getByTestId('handed-right').waitFor();
await page.goto(`${visit}/supply`);
await press('Place the order');
await page.locator('[data-testid="order"][data-state="acknowledged"]').waitFor({ timeout: 20_000 });
await page.reload();
await shot('supply');
await page.getByRole('link', { name: 'Nessa Quillby' }).click();
await page.getByTestId('worn-right').waitFor();
await shot('wearer');
await signIn(/Merle/);
await page.goto('/people');
await shot('people');
await browser.close();
await site.stop();
await owner.end();
await cluster.stop();
