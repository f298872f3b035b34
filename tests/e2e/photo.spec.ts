import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { photograph } from '../../src/standins/camera/draw';
import { CAMERA_RANGES } from '../../src/standins/camera/ranges';
import { sceneOf, type Scene } from '../../src/standins/camera/scene';
import { violations } from './accessible';
import { expect, newVisit, readRecord, signIn, test } from './site';

test.use({ file: 'photo', camera: true });
test.beforeEach(async ({ page }) => signIn(page));

/** A clear picture of an eye whose lens has one mark, as a file. */
async function pictureOf(over: Partial<Scene> = {}, lens: Partial<Scene['lens']> = {}): Promise<Buffer> {
  const drawn = sceneOf(CAMERA_RANGES.easy, 'fiveSixSeven', 45);
  const { width, height, rgb } = photograph({
    ...drawn,
    eye: 'right',
    mirrored: false,
    roll: 0,
    ...over,
    lens: { ...drawn.lens, layout: 'fiveSixSeven', spacing: 30, ...lens },
  });
  return sharp(rgb, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 92 })
    .toBuffer();
}
const panel = (page: Page) => page.getByRole('dialog');
const press = (page: Page, name: string) => panel(page).getByRole('button', { name, exact: true }).click();
const said = (page: Page) => panel(page).getByTestId('photo-found');
/** The turn that lies on the picture, degrees, the examiner's left positive. */
async function turn(page: Page): Promise<number> {
  const said = (await panel(page).getByTestId('photo-turn').textContent()) ?? '';
  const found = /^(\d+)° to your (left|right)$/.exec(said);
  return found ? Number(found[1]) * (found[2] === 'left' ? 1 : -1) : 0;
}
/** A lens of a set on the right eye, and its pictures' panel. */
async function panelOpen(page: Page, number: string): Promise<string> {
  const visit = await newVisit(page);
  await page.goto(`${visit}/diagnostic-set`);
  await page.getByRole('group', { name: 'Right eye, corneal shape' }).getByRole('button', { name: 'oblate' }).click();
  await page
    .getByTestId('set-row-bittern-oblate')
    .getByRole('button', { name: new RegExp(`^${number} .*right eye`) })
    .click();
  await page.getByRole('button', { name: 'Put it on R' }).first().click();
  await page.waitForURL('**/on-eye');
  await page.getByRole('button', { name: 'From pictures, right eye' }).click();
  return visit;
}
async function sayHowTaken(page: Page, nose: 'right' | 'left' = 'right', top: 'up' | 'down' = 'up'): Promise<void> {
  await press(page, `the ${nose} of the picture`);
  await press(page, top);
  await press(page, 'straight ahead');
  await press(page, 'are free');
}
async function add(page: Page, ...files: readonly { readonly name: string; readonly buffer: Buffer }[]): Promise<void> {
  await panel(page)
    .getByLabel('Add pictures')
    .setInputFiles(files.map((f) => ({ mimeType: 'image/jpeg', ...f })));
}

test('three pictures from the camera become a series: each is read, shown, confirmed; what was read is kept with them', async ({ page, site }) => {
  test.setTimeout(90_000);
  const visit = await panelOpen(page, '1');
  await press(page, 'Take 3 with the camera');
  await expect(panel(page).getByRole('button', { name: '3, no reading yet' })).toBeVisible({ timeout: 30_000 });
  await expect(panel(page)).toContainText('Say all four first');
  await expect(panel(page).getByRole('button', { name: 'Take this reading' })).toBeDisabled();
  await sayHowTaken(page);
  expect(await violations(page)).toEqual([]);
  for (const number of [1, 2, 3]) {
    await expect(panel(page).getByRole('button', { name: `${number}, no reading yet` })).toHaveAttribute('aria-pressed', 'true');
    await expect(said(page)).toContainText('The program reads', { timeout: 15_000 });
    await press(page, 'Take this reading');
  }
  await expect(panel(page).getByTestId('photo-readings')).toContainText(/3 readings: .* SD \d\.\d°/);
  await press(page, 'Add 3 readings to the series');
  await expect(page.getByTestId('blinks-right')).toContainText('stable');
  await page.getByRole('button', { name: 'Record the readings' }).click();
  type Shown = { facts: { rotations: { current: { how: string; rotationLeftDeg: number; pictureId: string; photoFoundDeg: number } }[] } };
  const read = () => readRecord<Shown>(page, visit.split('/').pop() ?? '');
  await expect.poll(async () => (await read()).facts.rotations.length).toBe(3);
  const { facts } = await read();
  for (const { current } of facts.rotations) {
    expect(current.how).toBe('photo');
    expect(Math.abs(current.photoFoundDeg - current.rotationLeftDeg)).toBeLessThanOrEqual(0.5);
  }
  expect(new Set(facts.rotations.map((r) => r.current.pictureId)).size).toBe(3);
  // A camera that is off says so, and nothing is half kept.
  await fetch(`${site.cameraUrl ?? ''}/fault?is=down`, { method: 'PUT' });
  await page.getByRole('button', { name: 'From pictures, right eye' }).click();
  await press(page, 'Take 3 with the camera');
  await expect(panel(page)).toContainText('the camera sent no picture: nothing was kept');
  await expect(panel(page).getByRole('button', { name: /no reading yet/ })).toHaveCount(3);
});

test('by hand: one of three marks does not say which it is; the arm by keys; the line of the canthi turns the reading', async ({ page }) => {
  await panelOpen(page, '2');
  await add(page, { name: 'eye.jpg', buffer: await pictureOf({}, { layout: 'none' }) });
  await sayHowTaken(page);
  await expect(said(page)).toContainText(/No mark stands out|Too few|Two places/, { timeout: 15_000 });
  const photo = panel(page).getByTestId('photo');
  const box = await photo.boundingBox();
  if (!box) throw new Error('no picture');
  // Straight below the middle.
  await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.9);
  await expect(panel(page).getByTestId('photo-turn')).toHaveText('Which mark is it?');
  await expect(panel(page).getByRole('button', { name: 'Take this reading' })).toBeDisabled();
  await press(page, '7');
  await expect(panel(page).getByTestId('photo-turn')).toContainText('to your right');
  const asSeven = await turn(page);
  await press(page, '6');
  await expect.poll(() => turn(page)).toBeGreaterThan(asSeven + 28);
  const asSix = await turn(page);
  expect(Math.abs(asSix - asSeven - 30)).toBeLessThanOrEqual(1);
  await photo.press('Shift+ArrowLeft');
  await photo.press('Shift+ArrowLeft');
  await expect.poll(() => turn(page)).toBe(asSix + 10);
  // The right canthus 5° lower: the picture is turned clockwise by that, and the lens by as much less.
  await press(page, 'Canthus at the left');
  await page.mouse.click(box.x + box.width * 0.1, box.y + box.height * 0.5);
  await press(page, 'Canthus at the right');
  await page.mouse.click(box.x + box.width * 0.9, box.y + box.height * 0.5 + Math.tan(Math.PI / 36) * box.width * 0.8);
  await expect(panel(page)).toContainText(/turned by (4\.9|5|5\.1)°/);
  await expect.poll(() => turn(page)).toBeLessThanOrEqual(asSix + 6);
  expect(await turn(page)).toBeGreaterThanOrEqual(asSix + 4);
  await press(page, 'Take this reading');
  await expect(panel(page).getByTestId('photo-readings')).toContainText('1 reading');
  // Closed by mistake, nothing is lost.
  await press(page, 'Close');
  await expect(panel(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'From pictures, right eye' }).click();
  await expect(panel(page).getByTestId('photo-readings')).toContainText('1 reading');
  await press(page, 'Add 1 reading to the series');
  await expect(page.getByTestId('blinks-right')).toBeVisible();
});

test('a picture that lies otherwise than was said is never read: mirrored, the other eye, another gaze, no eye at all, too many pixels', async ({ page }) => {
  test.setTimeout(60_000);
  await panelOpen(page, '3');
  const grey = (side: number) =>
    sharp({ create: { width: side, height: side, channels: 3, background: '#c9a38a' } })
      .jpeg()
      .toBuffer();
  await add(
    page,
    { name: 'mirrored.jpg', buffer: await pictureOf({ mirrored: true }) },
    { name: 'face.jpg', buffer: await grey(640) },
    { name: 'huge.jpg', buffer: await grey(10_100) },
  );
  await expect(panel(page)).toContainText('huge.jpg: The picture has 102 million pixels', { timeout: 20_000 });
  await expect(panel(page).getByRole('button', { name: /no reading yet/ })).toHaveCount(2);
  // Said to be of this eye, though its nose is at the left.
  await sayHowTaken(page, 'left');
  await expect(panel(page)).toContainText('Left would be read as right');
  await expect(panel(page).getByRole('button', { name: 'Take this reading' })).toBeDisabled();
  // Said wrongly: the caruncle gives it away.
  await press(page, 'the right of the picture');
  await expect(said(page)).toContainText('The caruncle is on the other side', { timeout: 15_000 });
  await press(page, 'elsewhere');
  await expect(panel(page)).toContainText('A lens turns with the gaze');
  await press(page, 'straight ahead');
  await press(page, '2, no reading yet');
  await expect(said(page)).toContainText('No cornea is found', { timeout: 15_000 });
  // Upside down: it is turned, and read.
  const upside = await sharp(await pictureOf())
    .rotate(180)
    .jpeg({ quality: 92 })
    .toBuffer();
  await add(page, { name: 'upside.jpg', buffer: upside });
  await press(page, '3, no reading yet');
  await press(page, 'the left of the picture');
  await press(page, 'down');
  await expect(panel(page)).toContainText('shown turned by half a turn');
  await expect(said(page)).toContainText('The program reads', { timeout: 15_000 });
});
