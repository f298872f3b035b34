import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { command, expect, newVisit, openVisit, readRecord, say, see, signIn, test, typePowers } from './site';

test.use({ file: 'eyeHealth' });
test.beforeEach(async ({ page }) => signIn(page));

test('graded by keyboard; past its threshold it stops until a written reason, which stays in view', async ({ page }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/eye-health`);
  await page.locator('main').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('2');
  await page.keyboard.press('Period');
  await expect(page.getByTestId('lidMargin-right')).toContainText('2.5');
  await page.keyboard.press('Equal');
  await expect(page.getByTestId('lidMargin-left')).toContainText('2.5');
  await page.keyboard.press('l');
  await page.keyboard.press('1');
  await expect(page.getByTestId('lidMargin-left')).toContainText('1.0');
  await expect(page.getByTestId('reason-lidMargin')).toContainText('Treat first');
  await expect(page.getByTestId('reason-lidMargin')).toContainText('both lids under 2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: /Eye health/ })).toContainText('stop not cleared');

  await page.goto(`${visit}/refraction`);
  await typePowers(page, '-3.25 -1.75 x 20', null);
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await expect(page.locator('.refusal')).toContainText('Lid margin: treat it first');
  await page.goto(`${visit}/eye-health`);
  await page.getByRole('button', { name: 'Override with a reason' }).click();
  await page.getByRole('button', { name: 'Override with this reason' }).click();
  await expect(page.getByRole('dialog')).toContainText('Say why in a few words');
  await page.getByRole('dialog').getByLabel('Why').fill('old scar of the lid, quiet for years');
  await page.getByRole('button', { name: 'Override with this reason' }).click();
  await expect(page.getByTestId('passed-lidMargin')).toContainText('old scar of the lid');
  await page.goto(`${visit}/lens`);
  await page.getByRole('button', { name: 'Put it on R' }).click();
  await page.waitForURL('**/on-eye');
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('stops-that-stay')).toContainText('old scar of the lid, quiet for years');
  for (const sheet of ['summary', 'referral']) {
    await page.goto(`${visit}/print/${sheet}`);
    await expect(page.getByTestId('paper-stops'), sheet).toContainText('old scar of the lid, quiet for years');
    await expect(page.getByTestId('paper'), sheet).toContainText('Be seen the same day: telephone 555 0199');
  }
  // What the wearer takes away says nothing of it.
  for (const sheet of ['prescription', 'cost']) {
    await page.goto(`${visit}/print/${sheet}`);
    await expect(page.getByTestId('paper'), sheet).toContainText('Be seen the same day: telephone 555 0199');
    await expect(page.getByTestId('paper-stops'), sheet).toHaveCount(0);
    await expect(page.getByTestId('paper'), sheet).not.toContainText('old scar');
  }
});

test('a technician sees a stop and cannot pass it', async ({ page, browser, site }) => {
  const visit = await openVisit(page);
  await see(page, visit, { papillae: 2.5 });
  const other = await browser.newPage({ baseURL: site.url });
  await other.clock.install({ time: await site.now() });
  await signIn(other, 'joss');
  await other.goto(`${visit}/eye-health`);
  await expect(other.getByTestId('reason-papillae')).toContainText('A prescriber may override it');
  await expect(other.getByRole('button', { name: 'Override with a reason' })).toHaveCount(0);
  await other.close();
});

test('earlier grades stand beside the new ones', async ({ page, site }) => {
  const first = await newVisit(page);
  await see(page, first, { lidMargin: 0.5, vessels: 0.5 });
  const record = await readRecord(page, first.split('/').pop() ?? '');
  await site.move(60);
  const { visitId } = await command(page, 'openVisit', { wearerId: record.wearer.id, kind: 'longFollowUp' });
  await page.goto(`/visits/${visitId ?? ''}/eye-health`);
  await expect(page.getByTestId('lidMargin-right')).toContainText('was 0.5');
  await see(page, `/visits/${visitId ?? ''}`, { lidMargin: 1.5, vessels: 1.5 });
  await page.reload();
  await expect(page.getByTestId('lidMargin-right')).toContainText('+1.0');
  await expect(page.getByTestId('reason-gradeRose')).toBeVisible();
  await expect(page.getByTestId('reason-vessels')).toContainText('Evidence of overwear');
});

test('a curve of 0, a half of a half, exchanged curves: said at the field, nothing recorded', async ({ page }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/eye-health`);
  await page.getByLabel('Right eye, Flat K').fill('0');
  await expect(page.getByText('0 is outside 4.5 to 11.')).toBeVisible();
  await page.getByRole('button', { name: 'Record the findings' }).click();
  await expect(page.getByText('0 is outside 4.5 to 11.')).toBeVisible();
  await page.getByLabel('Right eye, Flat K').fill('45');
  await expect(page.getByText('7.50 mm, 45.00 D')).toBeVisible();
  await page.getByLabel('Right eye, Steep K').fill('7.8');
  await expect(page.getByText('is flatter than flat K (7.5 mm)')).toBeVisible();
  await page.getByLabel('Right eye, Steep K').fill('7.3');
  await page.getByLabel('Left eye, HVID').fill('wide');
  await expect(page.getByText('“wide” is not a number.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Left eye, HVID')).toHaveValue('wide');
  await page.getByLabel('Left eye, HVID').fill('11,8');
  await page.getByRole('button', { name: 'Record the findings' }).click();
  await expect(page.locator('.toast')).toContainText('Findings recorded');
});

test('a red painful eye: no lens, by no path; referred, printed, and a wrong grade corrected', async ({ page }) => {
  test.setTimeout(300_000);
  const visit = await newVisit(page);
  await page.goto(`${visit}/refraction`);
  await page.getByLabel('Right eye, VA with these glasses').fill('20/25');
  await typePowers(page, '-3.25 -1.75 x 20', null);
  await page.goto(`${visit}/eye-health`);
  await page.getByTestId('bulbarRedness-right').click();
  await page.locator('main').press('3');
  await page.getByLabel('Right eye, Pain').fill('7');
  await page.getByRole('button', { name: 'Record the findings' }).click();
  await expect(page.getByTestId('absolute-stop')).toContainText('No lens. Refer today.');
  await expect(page.getByRole('button', { name: 'Override with a reason' })).toHaveCount(0);

  // Every step from the power on is shut: by its link, by its address, by going back.
  for (const step of ['refraction', 'lens', 'kind', 'on-eye', 'prescription', 'lesson', 'supply']) {
    await page.goto(`${visit}/${step}`);
    await expect(page.getByTestId('shut'), step).toBeVisible();
    await expect(page.getByRole('button', { name: /Record|Put it|Sign|Start|Place|Choose/ }), step).toHaveCount(0);
  }
  await page.goBack();
  await expect(page.getByTestId('shut')).toBeVisible();
  const visitId = visit.split('/').pop() ?? '';
  const read = () => readRecord<{ families: { id: string; code: string }[] }>(page, visitId ?? '');
  const { families, visit: row } = await read();
  const familyId = families.find((f) => f.code === 'plover-30-toric')?.id;
  const lens = { familyId, sphere: -3, cylinder: -1.75, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2 };
  await expect(command(page, 'putOnTrials', { visitId, version: row.version, right: lens, left: null })).rejects.toThrow(/absoluteStop/);
  await expect(command(page, 'overrideStop', { visitId, version: row.version, rule: 'redPainful', reason: 'I insist' })).rejects.toThrow(/absoluteCannotPass/);

  await page.goto(`${visit}/eye-health`);
  await page.getByRole('button', { name: 'Open same-day referral' }).click();
  await page.getByTestId('step-phoned').getByRole('button', { name: 'done' }).click();
  await expect(page.getByTestId('step-phoned')).toContainText('Asha Penhallow');
  await page.getByRole('link', { name: 'Print the referral' }).click();
  await page.waitForURL('**/print/referral');
  const paper = page.getByTestId('paper');
  for (const words of ['Urgent referral, same day', 'Harbourside Eye Casualty', 'Acute red painful eye', '7 of 10', 'born 2 Jan 1990', 'Absolute stop'])
    await expect(paper).toContainText(words);
  await expect(page.getByTestId('sight').getByRole('row', { name: 'With glasses, today' })).toContainText('20/25');

  await page.goto(`${visit}/eye-health`);
  await page.getByRole('button', { name: 'Wrong eye or grade' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('it was 0');
  await page.getByRole('button', { name: 'End the stop' }).click();
  await expect(page.getByRole('dialog')).toContainText('still holds');
  await page.keyboard.press('Escape');
  await page.getByTestId('rests-pain-right').getByRole('button', { name: 'Correct' }).click();
  await page.getByRole('dialog').getByLabel('New value').fill('0');
  await page.getByRole('dialog').getByLabel('Why').fill('typed 7 for 0');
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByTestId('absolute-stop')).toBeVisible();
  await page.getByRole('button', { name: 'Wrong eye or grade' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('typed 7 for 0');
  await page.getByRole('button', { name: 'End the stop' }).click();
  await expect(page.getByTestId('absolute-stop')).toHaveCount(0);
  await page.goto(`${visit}/lens`);
  await expect(page.getByTestId('shut')).toHaveCount(0);
});

test('pain and redness only heard of: a prescriber looks at both eyes, writes the cause, and the stop is over', async ({ page, site }) => {
  const visit = await newVisit(page);
  await say(page, visit, { danger: ['redness', 'pain'], onset: 'since this morning' });
  await page.goto(`${visit}/eye-health`);
  await expect(page.getByTestId('absolute-stop')).toContainText('No lens. Refer today.');
  await page.getByRole('button', { name: 'Looked at: cause found' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('an eyelash, taken out');
  await page.getByRole('button', { name: 'End the stop' }).click();
  await expect(page.getByRole('dialog')).toContainText('Grade this eye afresh');
  await page.keyboard.press('Escape');
  await site.move(60);
  await see(page, visit, { staining: 0, papillae: 0, chamber: 'quiet' });
  await page.reload();
  await page.getByRole('button', { name: 'Looked at: cause found' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('an eyelash, taken out');
  await page.getByRole('button', { name: 'End the stop' }).click();
  await expect(page.getByTestId('absolute-stop')).toHaveCount(0);
});

test('without an emergency number nothing prints', async ({ page, site }) => {
  const visit = await newVisit(page);
  await say(page, visit, { returns: 'yes' });
  await site.db.owner`update practice set emergency_telephone = ' '`;
  for (const sheet of ['summary', 'prescription', 'referral']) {
    await page.goto(`${visit}/print/${sheet}`);
    await expect(page.getByText('Nothing prints without an emergency number')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Print' })).toHaveCount(0);
    await expect(page.getByTestId('paper')).toHaveCount(0);
  }
  await site.db.owner`update practice set emergency_telephone = '555 0199'`;
});

test('pictures: taken, shown large, place removed and said once; what is no picture is refused with its reason', async ({ page }) => {
  const visit = await newVisit(page);
  await page.goto(`${visit}/eye-health`);
  const plain = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#663322' } })
    .png()
    .toBuffer();
  const placed = await sharp(plain)
    .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
    .jpeg()
    .toBuffer();
  const pick = (name: string, mimeType: string, buffer: Buffer) => page.getByLabel('Add a picture').setInputFiles({ name, mimeType, buffer });
  const keep = page.getByRole('button', { name: 'Keep the picture' });
  const said = page.getByRole('region', { name: 'Pictures' }).getByRole('status');

  await pick('eye.jpg', 'image/jpeg', placed);
  await page.getByLabel('What it shows').fill('limbus, 8 o’clock');
  await keep.click();
  await expect(said).toContainText('The file said where it was taken; that has been removed.');
  await page.reload();
  await expect(page.getByText('The file said where it was taken')).toHaveCount(0);
  await page.getByRole('button', { name: 'Show limbus, 8 o’clock large' }).click();
  const large = page.getByRole('dialog').getByRole('img');
  await expect(large).toBeVisible();
  expect(await large.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(400);
  const policy = await large.evaluate(async (img: HTMLImageElement) => (await fetch(img.src)).headers.get('content-security-policy'));
  expect(policy).toBe("default-src 'none'; sandbox");
  await page.keyboard.press('Escape');

  const folder = mkdtempSync(join(tmpdir(), 'keenfit-'));
  writeFileSync(join(folder, 'big.jpg'), Buffer.alloc(40 * 1024 * 1024, 0xff));
  await page.getByLabel('Add a picture').setInputFiles(join(folder, 'big.jpg'));
  rmSync(folder, { recursive: true });
  await expect(said).toContainText('40 MB is too large: up to 15 MB are taken.');
  await expect(keep).toBeDisabled();
  const direct = await page.evaluate(
    async (id) => {
      const body = new Uint8Array(40 * 1024 * 1024).fill(255);
      const response = await fetch(`/api/uploads/picture?visit=${id}&version=1&eye=right`, { method: 'POST', headers: { 'content-type': 'image/jpeg' }, body });
      return { status: response.status, text: await response.text() };
    },
    visit.split('/').pop() ?? '',
  );
  expect(direct.status).toBe(422);
  expect(direct.text).toContain('pictureTooLarge');

  await pick('drawing.png', 'image/png', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'));
  await keep.click();
  await expect(said).toContainText('This is not a JPEG, PNG or WebP picture.');
  await pick('really.jpg', 'image/jpeg', plain);
  await keep.click();
  await expect(said).toContainText('The file says it is image/jpeg but is image/png');
  await expect(page.getByRole('button', { name: /^Show .* large$/ })).toHaveCount(1);
});
