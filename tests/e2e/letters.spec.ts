import sharp from 'sharp';
import { command, expect, newVisit, readRecord, signIn, test, typeBlinks } from './site';

test.use({ file: 'letters' });
test.beforeEach(async ({ page }) => signIn(page));

type Read = { readonly families: readonly { readonly id: string; readonly code: string }[] };
/** How dark a square of letters is, pixel by pixel. */
const ink = (canvas: SVGElement | HTMLElement): string => {
  const { data } = (canvas as HTMLCanvasElement).getContext('2d')?.getImageData(0, 0, 256, 256) ?? { data: new Uint8ClampedArray() };
  let sharp = 0;
  for (let i = 7; i < data.length; i += 4) sharp += Math.abs((data[i] ?? 0) - (data[i - 4] ?? 0));
  return String(sharp);
};

test('letters as the wearer would see them: glasses sharpest, the turned lens blurred, the order in between; the newest pupil wins', async ({ page }) => {
  test.setTimeout(60_000);
  const visit = await newVisit(page, 'firstFit', { birthDate: '1962-01-02' });
  const visitId = visit.split('/').pop() ?? '';
  const acuity = { logMar: 0, typed: '20/20' };
  await command(page, 'recordRefraction', { visitId, version: 1, right: '-3.25 -1.75 x 20', left: null, vertexMm: 12, rightAcuity: acuity, leftAcuity: null });
  const { families } = await readRecord<Read>(page, visitId);
  const familyId = families.find((f) => f.code === 'plover-30-toric')?.id;
  const right = { familyId, sphere: -3, cylinder: -1.75, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2 };
  await command(page, 'putOnTrials', { visitId, version: 2, right, left: null });
  await page.goto(`${visit}/on-eye`);
  await typeBlinks(page, 'Right', '20l', '20l', '20l');
  const square = (look: string, at = 'far') => page.getByRole('img', { name: new RegExp(`^Right eye, ${look}, ${at}`) });
  await expect(square('glasses')).toBeVisible({ timeout: 15_000 });
  const edges = async (look: string, at = 'far') => Number(await square(look, at).evaluate(ink));
  await expect.poll(() => edges('glasses')).toBeGreaterThan(0);
  const [glasses, now, order] = [await edges('glasses'), await edges('lens as it sits'), await edges('with the order')];
  expect(glasses).toBeGreaterThan(order);
  expect(order).toBeGreaterThan(now);
  // Letters stand out with the lights up and down, and change over at once.
  const contrast = async (): Promise<number> => {
    const [seen] = (await sharp(await square('glasses').screenshot()).stats()).channels;
    return (seen?.max ?? 0) - (seen?.min ?? 0);
  };
  expect(await contrast()).toBeGreaterThan(120);
  await page.getByRole('button', { name: 'Lights down' }).click();
  expect(await contrast()).toBeGreaterThan(120);
  await page.getByRole('button', { name: 'Lights up' }).click();
  // A small pupil sharpens what is blurred; of a slider's many questions the newest is answered.
  const slider = page.getByLabel(/^pupil .* mm/);
  await slider.focus();
  for (let i = 0; i < 25; i++) await slider.press('ArrowLeft');
  await expect(page.getByText('pupil 2.5 mm, tried')).toBeVisible();
  await expect.poll(() => edges('lens as it sits')).toBeGreaterThan(now * 1.1);
  // At 64 years near lacks nearly all of 2.50 D: the same lens blurs at 40 cm, glasses do not.
  await page.getByRole('button', { name: 'at 40 cm' }).click();
  await expect.poll(async () => (await edges('with the order', 'at 40 cm')) < (await edges('glasses', 'at 40 cm'))).toBe(true);
});
