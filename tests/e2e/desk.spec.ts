import { boxCode, prescribed, signSpheres } from './prescribed';
import { alive, command, expect, newVisit, readRecord, signIn, test, type TestSite } from './site';
import type { Page } from '@playwright/test';

test.use({ file: 'desk' });

const RECEIVED = { lot: 'D1', expiresOn: '2030-01-31', packs: 2, codes: [] };
/** Two boxes an eye ordered, come and taken home. @returns the order */
async function boxesHome(page: Page, site: TestSite, of: { wearerId: string; prescriptionId: string }): Promise<string> {
  const order = { ...of, requestKey: crypto.randomUUID(), rightPacks: 2, leftPacks: 2, noDanger: true, sightSame: true, pastExpiryNote: '', note: '' };
  const { orderId = '' } = await command(page, 'reorderLenses', order);
  await command(page, 'recordReceipt', { orderId, right: RECEIVED, left: RECEIVED });
  const { visitId = '' } = await command(page, 'openVisit', { wearerId: of.wearerId, kind: 'collection' });
  const { visit } = await readRecord(page, visitId);
  const receipts = await site.db.owner<
    { id: string }[]
  >`select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
  const given = { orderId, visitId, version: visit.version, receiptIds: receipts.map((r) => r.id) };
  await command(page, 'handOverBoxes', { ...given, identityAsked: true, experienceNote: 'worn for years' });
  const { visit: now } = await readRecord(page, visitId);
  await command(page, 'closeVisit', { visitId, version: now.version });
  return orderId;
}

test('ten thousand scans in a burst: each is answered in its turn, none is counted twice, none is lost', async ({ page, site }) => {
  await signIn(page);
  const of = await prescribed(page, 'Jenifer Bosweddan');
  const order = { ...of, requestKey: crypto.randomUUID(), rightPacks: 2, leftPacks: 2, noDanger: true, sightSame: true, pastExpiryNote: '', note: '' };
  await command(page, 'reorderLenses', order);
  await page.goto('/orders');
  await page.getByRole('button', { name: /Jenifer Bosweddan/ }).click();
  const scan = page.getByLabel('Scan a box, or type its code');
  await expect(scan).toBeFocused();
  for (const [item, power] of [
    [410, '−3.00'],
    [420, '−2.75'],
  ] as const) {
    await scan.fill(boxCode(item, '1'));
    await scan.press('Enter');
    await page.getByTestId('scan').getByRole('button', { name: power }).click();
  }
  // Boxes scanned before, codes cut short, another product, and among them the second box of each eye.
  const burst = Array.from({ length: 10_000 }, (_, n) =>
    n === 3000
      ? boxCode(410, '2')
      : n === 7000
        ? boxCode(420, '2')
        : n % 3 === 0
          ? boxCode(410, '1')
          : n % 3 === 1
            ? boxCode(420, '1').slice(0, 12 + (n % 9))
            : boxCode(420, '1'),
  );
  await scan.evaluate((field, codes) => {
    const input = field as HTMLInputElement;
    const value = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value');
    for (const code of codes) {
      value?.set?.call(input, code);
      input.dispatchEvent(new Event('input', { bubbles: true }));
      input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    }
  }, burst);
  await expect(page.getByLabel('Boxes, R')).toHaveValue('2');
  await expect(page.getByLabel('Boxes, L')).toHaveValue('2');
  await page.getByRole('button', { name: 'Record what came' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const boxes = await site.db.owner`
    select l.eye, s.serial from box_serial s join order_receipt r on r.id = s.order_receipt_id join order_line l on l.id = r.order_line_id
    join wearer_identity i on i.wearer_id = (select o.wearer_id from lens_order o where o.id = l.order_id) where i.name = 'Jenifer Bosweddan' order by 1 desc, 2`;
  expect(boxes).toEqual(['right', 'left'].flatMap((eye) => ['1', '2'].map((serial) => ({ eye, serial }))));
});

test('on backorder: the day, and the ways on, none of which is another lens without a prescription', async ({ page, site }) => {
  await signIn(page);
  const of = await prescribed(page, 'Ysella Roskilly');
  const fault = (is: string) => fetch(`${site.supplierUrl}/fault`, { method: 'PUT', body: JSON.stringify({ fault: is }) });
  await fault('backorder');
  const order = { ...of, requestKey: crypto.randomUUID(), rightPacks: 1, leftPacks: 1, noDanger: true, sightSame: true, pastExpiryNote: '', note: '' };
  const { orderId = '' } = await command(page, 'reorderLenses', order);
  await expect(async () => {
    await page.goto(`/orders/${orderId}`);
    await expect(page.getByTestId('order')).toHaveAttribute('data-stage', 'backordered', { timeout: 1000 });
  }).toPass({ timeout: 30_000 });
  await fault('none');
  const ways = page.getByTestId('not-to-be-had');
  await expect(ways).toContainText('it takes a new prescription');
  await expect(ways.getByRole('link', { name: 'Trial lenses until then' })).toHaveAttribute('href', `/wearers/${of.wearerId}/reorder`);
  await ways.getByRole('link', { name: 'Book a refit' }).click();
  await page.waitForURL('**/diary?**visit=refit**');
  await expect(page.getByText('Ysella Roskilly').first()).toBeVisible();
});

test('boxes of a changed power: proposed for exchange, kept as a claim, told to the supplier and credited', async ({ page, site }) => {
  await signIn(page);
  const of = await prescribed(page, 'Demelza Trevose');
  const orderId = await boxesHome(page, site, of);
  await site.move(20 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page);
  const { visitId = '' } = await command(page, 'openVisit', { wearerId: of.wearerId, kind: 'refit' });
  await signSpheres(page, visitId, [-3.5, -2.75]);
  await page.goto(`/wearers/${of.wearerId}/reorder`);
  const old = page.getByTestId('old-boxes');
  await expect(old).toContainText('−3.00');
  await expect(old).not.toContainText('−2.75');
  await old.getByLabel('Boxes').fill('9');
  await old.getByRole('button', { name: 'Send back' }).click();
  await expect(old).toContainText('2 boxes are left to claim.');
  await old.getByLabel('Boxes').fill('1');
  await old.getByRole('button', { name: 'Send back' }).click();
  await expect(old).toHaveCount(0);
  await page.goto(`/orders/${orderId}`);
  const claim = page.getByTestId('claim');
  await claim.getByRole('button', { name: 'Supplier told' }).click();
  await expect(claim).toContainText(/told/i);
  await claim.getByRole('button', { name: 'Credited' }).click();
  await expect(claim.getByRole('button')).toHaveCount(0);
  // Another claim is refused in words where nothing is left of that eye, and what was typed stays.
  await page.getByRole('button', { name: 'Claim a box' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Right eye' }).click();
  await page.getByLabel('Boxes').fill('5');
  await page.getByRole('button', { name: 'Keep the claim' }).click();
  await expect(page.getByRole('dialog')).toContainText('One box is left to claim.');
  await expect(page.getByLabel('Boxes')).toHaveValue('5');
});

test('lenses run out before the boxes come: a trial pair of the same power goes home, and comes back where it did not', async ({ page, site }) => {
  await signIn(page);
  const visit = await newVisit(page, 'firstFit', { name: 'Loveday Carnsew', birthDate: '1990-06-01' });
  const of = await signSpheres(page, visit.split('/').pop() ?? '', [-2, -2.25], '2028-11-24');
  await boxesHome(page, site, of);
  await site.move(358 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto(`/wearers/${of.wearerId}/reorder`);
  const bridge = page.getByTestId('bridge');
  await expect(bridge).toContainText('No lens from');
  await bridge.getByRole('button', { name: 'Trial lenses until the boxes come' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByRole('button', { name: 'Give these to take home' }).click();
  await expect(panel).toContainText('Ask for name and date of birth.');
  await expect(panel).toContainText('Ask for danger signs first.');
  await panel.getByRole('checkbox', { name: /No danger signs/ }).check();
  await panel.getByRole('checkbox', { name: /Loveday Carnsew/ }).check();
  await panel.getByRole('button', { name: 'Give these to take home' }).click();
  await expect(page.getByTestId('bridged')).toContainText('went home today, R 1, L 1');
  await expect(bridge).toHaveCount(0);
  await page.getByRole('button', { name: 'They did not go' }).click();
  await expect(bridge).toBeVisible();
});

test('the drawer keeps a level, says what to order, waits for it, and lends', async ({ page }) => {
  await signIn(page, 'renny');
  await page.goto('/drawer');
  await page.getByLabel('Family, power or lot').fill('turnstone −2.50');
  const row = page.locator('tbody tr').first();
  await row.getByRole('button').click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('Keep at least').fill('500');
  await panel.getByRole('button', { name: 'Keep' }).click();
  await expect(panel).toContainText('0 to 100 lenses.');
  await panel.getByLabel('Keep at least').fill('9');
  await panel.getByRole('button', { name: 'Keep' }).click();
  await expect(panel.getByText('0 to 100 lenses.')).toHaveCount(0);
  await panel.getByLabel('To whom').fill('the branch at the point');
  await panel.getByRole('button', { name: 'Lend' }).click();
  await expect(page.getByTestId('lot-left')).toBeVisible();
  await panel.getByRole('button', { name: 'Close' }).click();
  const loans = page.getByTestId('loans');
  await expect(loans).toContainText('the branch at the point');
  await page.getByRole('link', { name: 'To order' }).click();
  await page.waitForURL('**/drawer/order');
  await alive(page);
  await expect(page.getByRole('row', { name: /−2.50/ })).toContainText('below its level');
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Save as a file' }).click()]);
  expect(file.suggestedFilename()).toBe('trial-lenses-to-order.csv');
  await page
    .getByRole('button', { name: /^Ordered from/ })
    .first()
    .click();
  await expect(page.getByRole('row', { name: /−2.50/ })).toHaveCount(0);
  await page.goto('/drawer');
  await loans.getByRole('button', { name: 'Close the loan' }).click();
  await expect(loans).toHaveCount(0);
});

test('a supplier is added, changed and given a secret; figures of the practice are there', async ({ page }) => {
  await signIn(page, 'merle');
  await page.goto('/settings/suppliers');
  await page.getByRole('button', { name: 'Add a supplier' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByRole('button', { name: 'Keep' }).click();
  await expect(panel.getByRole('textbox', { name: 'Name' })).toHaveAttribute('aria-invalid', 'true');
  await panel.getByLabel('Name').fill('Quay Lenses');
  await panel.getByLabel('Telephone').fill('555 0133');
  await panel.getByLabel('Leaves the same day if ordered by').fill('half past never');
  await panel.getByRole('button', { name: 'Keep' }).click();
  await expect(panel.getByLabel('Leaves the same day if ordered by')).toHaveAttribute('aria-invalid', 'true');
  await panel.getByLabel('Leaves the same day if ordered by').fill('15:30');
  await panel.getByRole('button', { name: 'Keep' }).click();
  await expect(panel).toHaveCount(0);
  const added = page.getByTestId('supplier').filter({ hasText: 'Quay Lenses' });
  await expect(added).toContainText('by telephone 555 0133');
  await expect(added.getByRole('button', { name: 'Make a new signing secret' })).toHaveCount(0);
  const harbour = page.getByTestId('supplier').filter({ hasText: 'Harbour Optical Supply' });
  await harbour.getByRole('button', { name: 'Make a new signing secret' }).click();
  await expect(harbour.locator('code')).toHaveText(/^[\w-]{32,}$/);
  await page.goto('/figures');
  await expect(page.getByRole('heading', { name: 'Figures of the practice' })).toBeVisible();
});
