import { spawn } from 'node:child_process';
import { expect, test, type Page } from '@playwright/test';
import { DEMO_FAMILIES, wholeFamily } from '../../demo/families';
import { startSite, type Site } from '../../scripts/lib/site';
import { writeCatalogue } from '../../src/formats/catalogueCsv';
import { createDatabase, type TestDatabase } from '../support/database';
import { TEST_NOW, TEST_TODAY } from '../support/moment';
import { desk, typeBlinks, waitForLife } from './site';
import { endLesson, nameCareSystem, signOff } from './lesson';

// From an empty database to an order handed over, by the screens alone, everybody signed in as themselves.

let db: TestDatabase;
let site: Site;
const ADMIN = { account: 'iva', password: 'first-of-all-people', name: 'Iva Moorgate' };

/** `npm run setup`, answered from standard input where it is a password. @returns the address for the web server */
async function setUp(ownerUrl: string): Promise<string> {
  const answers = {
    practice: 'Driftwood Eye Care',
    town: 'Sandle Point',
    address: '3 Quay Steps',
    telephone: '555 0300',
    emergency: '555 0399',
    zone: 'America/New_York',
    currency: 'USD',
    admin: ADMIN.name,
    account: ADMIN.account,
  };
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', '--conditions=react-server', 'scripts/setup.ts', ...Object.entries(answers).map(([key, value]) => `--${key}=${value}`)],
    { env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: ownerUrl }, stdio: ['pipe', 'pipe', 'pipe'] },
  );
  let said = '';
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
  child.stdin.end(`${ADMIN.password}\n`);
  const code = await new Promise<number | null>((done) => child.on('exit', done));
  expect(code, said).toBe(0);
  expect(said).not.toContain(ADMIN.password);
  const [, url = ''] = /KEENFIT_DATABASE_URL=(\S+) npm run serve/.exec(said) ?? [];
  return url;
}

test.beforeAll(async () => {
  test.setTimeout(180_000);
  db = await createDatabase({ template: 'template1' });
  const appUrl = await setUp(db.ownerUrl);
  await db.owner`update app_clock set offset_seconds = extract(epoch from (${TEST_NOW}::timestamptz - now()))::bigint`;
  site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next-test', supplierToday: TEST_TODAY });
});
test.afterAll(async () => {
  await site.stop();
  await db.close();
});

async function signIn(page: Page, account: string, password: string, to = '/'): Promise<void> {
  await page.context().clearCookies();
  await page.goto(`${site.url}/sign-in?to=${encodeURIComponent(to)}`);
  // Demo people are listed; a practice's own are not.
  const byAccount = page.getByRole('button', { name: 'by account name' });
  if (await byAccount.isVisible()) await byAccount.click();
  await page.getByLabel('Account name').fill(account);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL((url) => url.pathname === to);
}

const PEOPLE = [
  { name: 'Hester Vail', account: 'hester', title: 'optometrist', roles: ['prescriber'], register: 'QX 1100', password: 'hester-sees-well' },
  { name: 'Milo Tern', account: 'milo', title: 'technician', roles: ['technician'], register: '', password: 'milo-teaches-well' },
  { name: 'Una Reed', account: 'una', title: 'coordinator', roles: ['coordinator'], register: '', password: 'una-answers-well' },
] as const;
const [hester, milo, una] = PEOPLE;

test('an empty practice, by the screens alone: from its first room to lenses handed over', async ({ page }) => {
  test.setTimeout(240_000);
  await page.clock.install({ time: new Date(TEST_NOW) });
  waitForLife(page);

  // The admin: rooms, hours, a holiday, people, the lens library, trial lenses, a care product.
  await signIn(page, ADMIN.account, ADMIN.password);
  await page.getByRole('link', { name: 'Add rooms and hours' }).click();
  await page.waitForURL('**/settings/rooms');
  for (const room of ['Consulting room', 'Teaching table']) {
    await page.getByLabel('Add a room').fill(room);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByTestId(`room-${room}`)).toBeVisible();
  }
  await page.getByLabel('Tuesday, closes').fill('18:30');
  await page.getByTestId('weekday-2').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('weekday-2').getByRole('button', { name: 'Save' })).toHaveCount(0);
  await page.getByLabel('Day', { exact: true }).fill('25 Dec 2026');
  await page.getByLabel('What for').fill('Winter holiday');
  await page.getByRole('button', { name: 'Close this day' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Winter holiday' })).toContainText('25 Dec 2026');

  await page.goto(`${site.url}/staff`);
  for (const person of PEOPLE) {
    await page.getByRole('button', { name: 'Add a person' }).click();
    const panel = page.getByRole('dialog');
    await panel.getByLabel('Name', { exact: true }).fill(person.name);
    await panel.getByLabel('Account name').fill(person.account);
    await panel.getByLabel('Title').fill(person.title);
    await panel.getByRole('checkbox', { name: /^technician/ }).uncheck();
    for (const role of person.roles) await panel.getByRole('checkbox', { name: new RegExp(`^${role}`) }).check();
    await panel.getByLabel('Password').fill(person.password);
    if (person.register) {
      await panel.getByRole('button', { name: 'Save' }).click();
      await expect(panel).toContainText('A prescriber needs a register number.');
      await panel.getByLabel('Register number').fill(person.register);
      await panel.getByLabel('Registered at').fill('9 Harbour Row');
    }
    await panel.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('row', { name: new RegExp(person.name) })).toBeVisible();
  }

  await page.goto(`${site.url}/library`);
  const families = DEMO_FAMILIES.map((draft) => wholeFamily(draft, draft.code));
  await page.getByLabel('Catalogue file').setInputFiles({ name: 'catalogue.csv', mimeType: 'text/csv', buffer: Buffer.from(writeCatalogue(families)) });
  await page.getByRole('button', { name: 'Read and check it' }).click();
  await page.waitForURL('**/library/import/**');
  await page.getByLabel('In force from').fill(TEST_TODAY);
  await page.getByRole('button', { name: /^Bring in/ }).click();
  await expect(page.getByTestId('import-state')).toContainText('brought in.', { timeout: 30_000 });

  await page.goto(`${site.url}/drawer`);
  await page.getByRole('button', { name: 'From a file' }).click();
  const trials = ['family,power,lot,expires_on,count', 'plover-30-toric,-3.00 -1.75 x 20,A1,2028-03-01,3', 'plover-30-toric,-4.25 -1.25 x 160,A2,2028-03-01,3'];
  await page.getByLabel('File', { exact: true }).setInputFiles({ name: 'trials.csv', mimeType: 'text/csv', buffer: Buffer.from(trials.join('\n')) });
  await expect(page.getByTestId('list-read')).toContainText('2 lines: 2 can be taken in, 0 stay out');
  await page.getByRole('button', { name: 'Put 2 lots in the drawer' }).click();
  await expect(page.getByTestId('list-read')).toContainText('2 lines taken in');

  await page.goto(`${site.url}/settings`);
  await page.getByRole('button', { name: 'Add a care product' }).click();
  const product = page.getByRole('dialog');
  const figures = { Maker: 'Marram Optical', Name: 'Brine', Contents: '300 ml and a case', 'Lasts, days': '60', Price: '19' };
  for (const [label, value] of Object.entries(figures)) await product.getByLabel(label, { exact: true }).fill(value);
  await product.getByLabel('Soak, hours').fill('6');
  await product.getByLabel('Stored in the closed case at most, days').fill('30');
  await product.getByLabel('Thrown away after opening, days').fill('90');
  await product.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('care-products')).toContainText('soak 6 h, stored 30 days, thrown away 90 days after opening');

  // The coordinator: somebody rings, is written down and booked.
  await signIn(page, una.account, una.password, '/wearers');
  await page.getByRole('button', { name: 'Add a wearer' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Petra Calloway');
  await page.getByLabel('Birth date').fill('14 Mar 1992');
  await page.getByRole('button', { name: /^Add/ }).click();
  await page.waitForURL('**/wearers/*');
  await page.getByRole('button', { name: 'Book', exact: true }).click();
  await page.getByRole('dialog').getByRole('region', { name: 'Next free' }).getByRole('button').first().click();
  await expect(page.getByTestId('block-1')).toContainText('Petra Calloway');

  // The prescriber: from the first question to the signature.
  await signIn(page, hester.account, hester.password);
  await page.getByTestId('due-ruler').getByRole('button', { name: 'Start' }).click();
  await page.waitForURL('**/history');
  const visit = page.url().replace('/history', '');
  await page.locator('#q-danger').getByRole('button', { name: /^None/i }).click();
  await page.getByRole('button', { name: 'Record the history' }).click();
  await page.waitForURL('**/eye-health');
  await page.getByTestId('staining-right').click();
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, Staining` })
      .getByRole('button', { name: '0', exact: true })
      .click();
  await page.getByRole('button', { name: 'Record the findings' }).click();
  await expect(page.locator('.toast')).toContainText('Findings recorded');
  await page.goto(`${visit}/refraction`);
  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.75 x 20');
  await page.getByLabel('Left eye, spectacle power').fill('-4.50/-1.25x165');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL('**/kind');
  await page.getByRole('button', { name: /^Choose among/ }).click();
  await page.waitForURL('**/lens');
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on both eyes' }).click();
  await page.waitForURL('**/on-eye');
  await typeBlinks(page, 'Right', '10l', '10l', '10l');
  await typeBlinks(page, 'Left', '0', '0', '0');
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, over-refraction').fill('+0.25 −0.50 × 70');
  await desk(page, 'Fit');
  for (const eye of ['Right', 'Left'])
    await page
      .getByRole('group', { name: `${eye} eye, fit` })
      .getByRole('button', { name: 'fits' })
      .click();
  await page.getByRole('button', { name: 'Record the readings' }).click();
  await page.getByRole('button', { name: 'To the prescription' }).click();
  await page.waitForURL('**/prescription');
  await page.getByLabel('Why the order need not wait for aftercare').fill('At sea from 2 December; wore soft lenses before.');
  await page.getByLabel('Your password, once more').fill(hester.password);
  await page.getByRole('button', { name: 'Sign prescription' }).click();
  await expect(page.getByTestId('signed')).toContainText('Hester Vail, optometrist, register QX 1100');
  await expect(page.getByTestId('signed')).toContainText('9 Harbour Row');

  await nameCareSystem(page, 'Brine');

  // The technician: the lesson, and the trial pair goes home.
  await signIn(page, milo.account, milo.password);
  await page.goto(`${visit}/lesson`);
  await page.getByRole('button', { name: 'Start the lesson' }).click();
  for (const eye of ['R', 'L']) {
    for (const word of ['came off', 'went on', 'came off', 'went on']) await page.getByRole('button', { name: `${eye} ${word}` }).click();
  }
  await expect(page.getByTestId('count-left-on')).toHaveAttribute('data-done', '2');
  for (const topic of await page.getByRole('checkbox').all()) {
    await topic.click();
    await expect(topic).toHaveAttribute('aria-checked', 'true');
  }
  await endLesson(page);
  await signOff(page);
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await expect(page.getByTestId('handed-right')).toContainText('lot A1');

  // The coordinator: ordered, received box by box, handed over.
  await signIn(page, una.account, una.password);
  await page.goto(`${visit}/supply`);
  await page.getByRole('button', { name: 'Place the order' }).click();
  await expect(page.getByTestId('order')).toHaveAttribute('data-state', 'acknowledged', { timeout: 30_000 });
  for (const eye of ['R', 'L']) {
    await page.getByLabel(`Lot, ${eye}`).fill(`${eye}4711`);
    await page.getByLabel(`Expires, ${eye}`).fill('1 Mar 2029');
  }
  await page.getByRole('button', { name: 'Record what came' }).click();
  const here = page.getByTestId('boxes-here');
  await here.getByRole('checkbox', { name: /Name and birth date asked: Petra Calloway/ }).check();
  await page.getByRole('button', { name: 'Hand them over' }).click();
  await expect(page.getByTestId('boxes-gone-right')).toContainText('handed over');
  await page.locator('.frame-strip').getByRole('link').first().click();
  await page.waitForURL('**/wearers/*');
  await expect(page.getByTestId('worn-right')).toHaveText('−3.00 −1.75 × 30');
});
