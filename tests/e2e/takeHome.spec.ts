import { readFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { sideways, violations } from './accessible';
import { nameCareSystem } from './lesson';
import { expect, openVisit, signIn, test, typePowers } from './site';

test.use({ file: 'takeHome' });

test('the page to take home: what is missing is said with its way out; in three languages; on paper, as a file, on a telephone until its link ends', async ({
  page,
  browser,
  site,
}) => {
  // A print dialog would wait for somebody.
  await page.addInitScript(() => {
    window.print = () => document.documentElement.setAttribute('data-printed', String(Number(document.documentElement.dataset.printed ?? '0') + 1));
  });
  await signIn(page);
  const visit = await openVisit(page);
  const home = visit.replace('/visits/', '/take-home/');
  await page.goto(home);
  await expect(page.getByText('No lenses were handed over at this visit.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print' })).toHaveCount(0);
  await page.goto(visit + '/refraction');
  await typePowers(page, '-2.00', null);
  await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  await page.goto(`${visit}/lesson`);
  await page.getByLabel('Handles lenses already: how do you know?').fill('wears since 2019, shown today');
  await page.getByLabel('Expires, R').fill('1 Jan 2028');
  await page.getByRole('button', { name: 'Hand over the trial pair' }).click();
  await page.getByRole('link', { name: 'Page to take home' }).click();
  await page.waitForURL('**/take-home/**');
  await expect(page.getByText('No care system is prescribed: the exact solution stands on the page.')).toBeVisible();
  await page.getByRole('link', { name: 'To the care system' }).click();
  await nameCareSystem(page);
  await page.getByRole('link', { name: 'Page to take home' }).click();

  const sheet = page.getByTestId('home-sheet');
  await expect(sheet).toContainText('Any one of these: lenses off');
  await expect(sheet).toContainText('Each evening: clean hands, Tidewash, nothing else');
  // Nobody taught this wearer here: the page says so.
  await expect(sheet).toContainText('handed over without a lesson here');
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'العربية' }).click();
  await expect(sheet).toHaveAttribute('dir', 'rtl');
  await expect(sheet).toContainText('Light hurts the eyes');
  expect(await violations(page)).toEqual([]);
  await page.getByRole('button', { name: 'Español' }).click();
  await expect(sheet).toContainText('Cada noche: manos limpias, Tidewash y nada más');
  await expect(page.getByText('Español: not checked by a speaker. The danger signs stand there in English as well.')).toBeVisible();

  // With the lights down as well: the page stays white, what stands beside it does not.
  await page.context().addCookies([{ name: 'keenfit-lights', value: 'down', url: site.url }]);
  await page.reload();
  await page.getByRole('button', { name: 'Español' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-lights', 'down');
  await expect(sheet).toContainText('Cada noche');
  expect(await violations(page)).toEqual([]);

  await page.getByRole('button', { name: 'Print' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-printed', '1');
  await expect(sheet).toContainText(/Hoja \d{4}-1/);
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as PDF' }).click()]);
  expect(download.suggestedFilename()).toMatch(/^lenses-\d{4}-2\.pdf$/);
  expect((await readFile(await download.path())).subarray(0, 5).toString()).toBe('%PDF-');
  await expect(page.getByText(/Sheet \d{4}-2 · Español · as a file/)).toBeVisible();
  const [calendar] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Calendar' }).first().click()]);
  expect((await readFile(await calendar.path(), 'utf8')).split('\r\n')[0]).toBe('BEGIN:VCALENDAR');
  await expect(page.getByRole('button', { name: 'On a telephone' })).toHaveCount(0);

  await site.db.owner`
    insert into practice_setting (id, practice_id, key, value, set_at, set_by)
    select ${randomUUID()}, id, 'publicAddress', ${site.db.owner.json(site.url)}, now(), null from practice limit 1`;
  await page.reload();
  await page.getByRole('button', { name: 'English' }).click();
  await page.getByRole('button', { name: 'On a telephone' }).click();
  const link = (await page.getByTestId('home-link').textContent()) ?? '';
  expect(link).toMatch(/\/home#[\w-]{40,}$/);
  await expect(page.getByRole('img', { name: 'Code that opens the page' }).locator('svg')).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await page.keyboard.press('Escape');

  const theirs = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await theirs.newPage();
  await phone.goto(new URL('/home', site.url).href);
  await expect(phone.getByText('Open this page with the link or the code that you were given.')).toBeVisible();
  await phone.goto('about:blank');
  await phone.goto(`${link.split('#')[0] ?? ''}#${'x'.repeat(43)}`);
  await expect(phone.getByText('This link opens nothing any more. Ask the practice for a new one.')).toBeVisible();
  await phone.goto('about:blank');
  await phone.goto(link);
  await expect(phone.getByTestId('home-sheet')).toContainText('Tidewash');
  // What stood behind the hash is gone from the address.
  expect(phone.url()).toMatch(/\/home$/);
  expect(await violations(phone)).toEqual([]);
  expect(await sideways(phone)).toBeLessThanOrEqual(0);
  await expect(phone.getByRole('link', { name: /^Call / })).toHaveAttribute('href', /^tel:\d+$/);
  await phone.getByRole('button', { name: 'Lenses are in the case now' }).click();
  await expect(phone.getByTestId('soak')).toContainText(/Disinfection time over at \d\d:\d\d/);
  await expect(phone.getByTestId('soak')).not.toContainText(/safe/i);
  await phone.getByRole('button', { name: 'New bottle today' }).click();
  await phone.reload();
  await expect(phone.getByTestId('soak')).toContainText('Disinfection time over at');
  await expect(phone.getByTestId('opened-bottle')).toContainText(/opened .* last day/);
  // The wearer's own page, and nothing else of the application.
  for (const path of ['/', '/wearers', home]) {
    await phone.goto(new URL(path, site.url).href);
    expect(phone.url()).toContain('/sign-in');
  }

  await page.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByRole('button', { name: 'End it' })).toHaveCount(0);
  await phone.goto(new URL('/home', site.url).href);
  await expect(phone.getByTestId('home-sheet')).toHaveCount(0);
  await theirs.close();
});
