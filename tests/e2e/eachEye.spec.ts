import { SENTENCES } from '../support/sentences';
import { BORN, does, monovisionOn, type Shown } from './presbyopes';
import { command, expect, newVisit, readRecord, say, signIn, test } from './site';

test.use({ file: 'eachEye' });
test.beforeEach(async ({ page }) => signIn(page));

test('what each eye is to see stands on the copy, the order, the labels and the telephone reorder', async ({ page }) => {
  const { wearerId, visitId, lens } = await monovisionOn(page, 'Petroc Vellanow');
  const { facts } = await readRecord<Shown>(page, visitId);
  const on = (eye: string) => facts.onEye.findLast((c) => c.current?.eye === eye)?.rootId;
  const eyes = (['right', 'left'] as const).map((eye) => {
    const { inHand: _, ...spec } = lens(eye === 'right' ? -0.5 : -2);
    return [eye, { mode: 'final', lens: spec, triedLensOnEyeId: on(eye) }] as const;
  });
  const terms = { password: 'plain-sight', expiresOn: '2027-11-24', waitNote: 'worn so for years', daysPerWeek: 7, overrides: SENTENCES };
  const { prescriptionId = '' } = await does(page, visitId, 'sign', { ...Object.fromEntries(eyes), ...terms });
  await page.goto(`/visits/${visitId}/print/prescription`);

  await expect(page.getByTestId('copy-right')).toContainText('−0.50');
  await expect(page.getByTestId('copy-right')).toContainText('near 33 cm');
  await expect(page.getByTestId('copy-left')).toContainText('far');
  const asked = { prescriptionId, requestKey: crypto.randomUUID(), rightPacks: 2, leftPacks: 2, pastExpiryNote: '' };
  const { orderId = '' } = await does(page, visitId, 'placeOrder', asked);
  const box = (lot: string) => ({ packs: 2, lot, expiresOn: '1 Mar 2029' });
  await command(page, 'recordReceipt', { orderId, right: box('R33'), left: box('L33') });
  await page.goto(`/orders/${orderId}`);
  await expect(page.getByText('Turnstone 30 · near 33 cm').first()).toBeVisible();
  await page.goto(`/orders/${orderId}/labels`);
  await expect(page.getByTestId('label-right')).toContainText('near 33 cm');
  await expect(page.getByTestId('label-left')).toContainText('far');
  await page.goto(`/wearers/${wearerId}/reorder`);

  await expect(page.getByText('near 33 cm').first()).toBeVisible();
  await expect(page.getByText('far', { exact: true }).first()).toBeVisible();
});

for (const { way, cylinder, right, left, chosen } of [
  { way: 'modified', cylinder: '', right: 'multifocal', left: 'sphere', chosen: { right: 'Curlew Multifocal −1.75', left: 'Turnstone 30 −2.00' } },
  {
    ...{ way: 'toricOneEye', cylinder: ' -1.25 x 180', right: 'toric multifocal', left: 'multifocal' },
    chosen: { right: 'Avocet Multifocal Toric −1.75 −1.25 × 180', left: 'Curlew Multifocal −1.75' },
  },
])
  test(`${way}: each eye has its own list and kind, and both lenses go on`, async ({ page }) => {
    const visit = await newVisit(page, 'firstFit', { birthDate: BORN });
    const visitId = visit.split('/').pop() ?? '';
    const power = { right: `-2.00${cylinder}`, left: '-2.00' };
    await say(page, visit, { danger: ['none'], daysPerWeek: 6, hoursPerDay: 12, lastWorn: 'never' });
    await does(page, visitId, 'recordRefraction', { ...power, vertexMm: 12, rightAdd: '+1.75', leftAdd: '+1.75', nearCm: 40 });
    await does(page, visitId, 'recordNearFindings', { findings: [{ sign: 'dominanceBlur', value: 'left' }] });
    await does(page, visitId, 'decideNearWay', { way, reason: 'decided with the wearer' });
    await page.goto(`${visit}/kind`);
    await expect(page.getByText(`R ${right}, L ${left}`).first()).toBeVisible();
    await page.getByRole('button', { name: /^Choose among/ }).click();
    await page.waitForURL('**/lens');
    const list = page.getByRole('radiogroup');
    const first = async () => list.getByRole('radio').first().textContent();
    expect(await first()).toContain(` · ${right}`);
    // What each eye gets stands at its side, and no lens of the one's list is shown as the other's.
    for (const eye of ['right', 'left'] as const) await expect(page.getByTestId(`chosen-${eye}`)).toHaveText(chosen[eye]);
    await expect(page.getByTestId('expect-left')).toHaveCount(0);
    await page.getByRole('button', { name: /^Choose L/ }).click();
    await expect.poll(first).toContain(` · ${left}`);
    await expect(page.getByTestId('expect-right')).toHaveCount(0);
    // What the drawer lacks is in the hand.
    for (const eye of ['right', 'left']) {
      const hand = page.getByTestId(`in-hand-${eye}`);
      if ((await hand.count()) === 0) continue;
      await hand.getByLabel(/^Lot/).fill('A-1');
      await hand.getByLabel(/^Expires/).fill('1 Mar 2032');
    }
    await page.getByRole('button', { name: 'Put it on both eyes' }).click();
    await page.waitForURL('**/on-eye');
    for (const eye of ['right', 'left'] as const) expect(chosen[eye]).toContain((await page.getByTestId(`on-${eye}`).textContent()) ?? '?');
  });
