import type { Page } from '@playwright/test';
import { bagCode, type Eye } from '../../src/core';
import { boxCode, prescribed } from './prescribed';
import { alive, command, expect, signIn, test, type TestSite } from './site';

test.use({ file: 'supply' });

const ask = (page: Page, of: { wearerId: string; prescriptionId: string }, packs: number) =>
  command(page, 'reorderLenses', {
    ...of,
    requestKey: crypto.randomUUID(),
    rightPacks: packs,
    leftPacks: packs,
    noDanger: true,
    sightSame: true,
    pastExpiryNote: '',
    note: '',
  });
const ship = async (site: TestSite, orderId: string, packs: Partial<Record<Eye, number>>): Promise<void> => {
  const [row] = await site.db.owner<{ number: number }[]>`select number from lens_order where id = ${orderId}`;
  const answer = await fetch(`${site.supplierUrl}/harbour/ship`, { method: 'PUT', body: JSON.stringify({ order: row?.number, packs }) });
  expect(await answer.json()).toEqual({ packs: (packs.right ?? 0) + (packs.left ?? 0) });
};
/** Scans on a page where a field waits for it. */
const scanner = (page: Page, label: string) => async (code: string) => {
  await page.getByLabel(label).fill(code);
  await page.getByLabel(label).press('Enter');
};

test('ordered, shipped in two parts, received by scan, a swapped box found in the bag, handed over, worn now', async ({ page, site }) => {
  await signIn(page);
  const of = await prescribed(page, 'Merryn Tolgarrick');
  await page.context().clearCookies();
  await signIn(page, 'renny');
  const { orderId = '' } = await ask(page, of, 1);
  const stage = async (is: string): Promise<void> => {
    await expect(async () => {
      await page.goto(`/orders/${orderId}`);
      await expect(page.getByTestId('order')).toHaveAttribute('data-stage', is, { timeout: 1000 });
    }).toPass({ timeout: 30_000 });
    await alive(page);
  };
  const receiveOne = async (item: number, serial: string, lot: string, power: string): Promise<void> => {
    await page.getByRole('button', { name: 'Receive' }).click();
    await scanner(page, 'Scan a box, or type its code')(boxCode(item, serial, lot));
    await page.getByTestId('scan').getByRole('button', { name: power }).click();
    await page.getByRole('button', { name: 'Record what came' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await stage('acknowledged');
  await ship(site, orderId, { right: 1, left: 0 });
  await stage('partlyShipped');
  await receiveOne(300, '1', 'MR1', '−3.00');
  await ship(site, orderId, { right: 0, left: 1 });
  await expect(async () => {
    await page.goto(`/orders/${orderId}`);
    await expect(page.getByText('On the road: 1 box L', { exact: false })).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 30_000 });
  await alive(page);
  await expect(page.getByTestId('order')).toHaveAttribute('data-stage', 'partlyReceived');
  await receiveOne(275, '2', 'ML1', '−2.75');
  await stage('received');

  // Labels for the bags, the eye largest.
  await page.getByRole('link', { name: 'Bag labels' }).click();
  await expect(page.getByTestId('label-right')).toContainText('−3.00');
  await expect(page.getByTestId('label-left').getByRole('img')).toBeVisible();

  const { visitId = '' } = await command(page, 'openVisit', { wearerId: of.wearerId, kind: 'collection' });
  await page.goto(`/visits/${visitId}/supply`);
  await alive(page);
  const scan = scanner(page, 'Scan the bag, or a box');
  const said = page.getByTestId('bag-check').getByRole('status');
  const [bags] = await site.db.owner<{ right: string; left: string }[]>`
    select min(r.id::text) filter (where l.eye = 'right') as right, min(r.id::text) filter (where l.eye = 'left') as left
    from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
  await scan(bagCode({ receiptId: bags?.right ?? '', eye: 'right' }));
  await expect(said).toContainText('right for this wearer');
  // The left eye's box lies in the right eye's bag.
  await scan(boxCode(275, '2', 'ML1'));
  await expect(said).toContainText('This box is the left eye’s: take it out of the right eye’s bag.');
  await page.getByRole('checkbox', { name: /Name and birth date asked: Merryn/ }).check();
  await page.getByLabel('Handles lenses already: how do you know?').fill('has worn them for years');
  const give = page.getByRole('button', { name: 'Hand them over' });
  await expect(give).toBeDisabled();
  // A code that cannot be read takes nothing out of the bag.
  await scan('smudged');
  await expect(said).toContainText('cannot be read');
  await expect(give).toBeDisabled();
  await scan('(01)06291041500213(21)9');
  await expect(said).toContainText('none of the boxes that lie here');
  await scan(boxCode(300, '1', 'MR1'));
  await expect(said).toContainText('Right eye: right for this wearer');
  await give.click();
  await expect(page.getByTestId('boxes-gone-right')).toBeVisible();
  await page.goto(`/wearers/${of.wearerId}`);
  await expect(page.getByTestId('worn-right')).toHaveText('−3.00');
  await expect(page.getByTestId('worn-left')).toHaveText('−2.75');
});

test('a lot that is recalled: who had it, called and ticked off; nothing of it goes home', async ({ page, site }) => {
  await signIn(page, 'renny');
  await page.goto('/recalls');
  await alive(page);
  await page.getByRole('button', { name: 'Recall a lot' }).click();
  await page.getByRole('button', { name: 'Recall it' }).click();
  await expect(page.getByRole('dialog')).toContainText(/lot/i);
  await page.getByRole('textbox', { name: 'Lot' }).fill('mr1');
  await page.getByLabel('What the maker says').fill('edges tear');
  await page.getByRole('button', { name: 'Recall it' }).click();
  await page.waitForURL('**/recalls/*');
  await expect(page.getByTestId('recalled')).toContainText('Merryn Tolgarrick');
  await expect(page.getByText('0 of 1 done')).toBeVisible();
  await page.getByRole('button', { name: 'Not reached: Merryn Tolgarrick' }).click();
  await expect(page.getByTestId('recalled')).toContainText('Not reached');
  await page.getByRole('button', { name: 'Lenses out, put aside: Merryn Tolgarrick' }).click();
  await expect(page.getByText('1 of 1 done')).toBeVisible();
  expect(await site.db.owner`select outcome from lot_recall_call order by sequence`).toEqual([{ outcome: 'notReached' }, { outcome: 'stopped' }]);
});

test('the plan of the drawer: from the practice’s own powers, in a thread of its own', async ({ page }) => {
  await signIn(page);
  await prescribed(page, 'Perran Lowena');
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto('/drawer/plan');
  await alive(page);
  await page.getByLabel('Lenses to keep').fill('0');
  await expect(page.getByText('A whole number from 2 to 1000.')).toBeVisible();
  await page.getByLabel('Lenses to keep').fill('20');
  await page.getByRole('button', { name: 'Plan' }).click();
  await expect(page.getByTestId('plan')).toContainText(/\d+ of \d+ wearers walk out with a pair/);
  await expect(page.getByRole('img', { name: 'Wearers who walk out, by lenses kept' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Buy' })).toBeVisible();
});

test('who is due: listed in time, opened by one key, written to once they agreed, and the message said to be sent', async ({ page, site }) => {
  await signIn(page, 'renny');
  const [row] = await site.db.owner<{ id: string }[]>`select wearer_id as id from wearer_identity where name = 'Merryn Tolgarrick'`;
  const wearerId = row?.id ?? '';
  // Six monthlies were handed over: half a year later they end.
  await site.move(165 * 24 * 3600);
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await expect(async () => {
    await page.goto('/reorders');
    await expect(page.getByTestId('due')).toContainText('Merryn Tolgarrick', { timeout: 1000 });
  }).toPass({ timeout: 30_000 });
  await alive(page);
  await expect(page.getByTestId('due')).toContainText('runs out');
  await page.keyboard.press('w');
  await expect(page.getByText('Ask first whether, and how, they want to be written to.')).toBeVisible();
  await page.goto(`/wearers/${wearerId}`);
  await alive(page);
  await page.getByRole('region', { name: 'Messages' }).getByRole('button', { name: 'Change' }).click();
  await page.getByLabel('Phone number').fill('call me');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('This is no phone number.')).toBeVisible();
  await page.getByLabel('Phone number').fill('555 0177');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('region', { name: 'Messages' })).toContainText('555 0177');
  await page.goto('/reorders');
  await alive(page);
  await page.keyboard.press('w');
  await expect(async () => {
    await page.goto('/outbox');
    await expect(page.getByTestId('message')).toContainText('your contact lenses last until', { timeout: 1000 });
  }).toPass();
  await alive(page);
  await page.getByRole('button', { name: 'Sent: Lenses run low, Merryn Tolgarrick' }).click();
  await expect(page.getByTestId('message')).toHaveCount(0);
  await page.goto('/reorders');
  await alive(page);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/reorder');
  // A lens that tore takes its days with it.
  await expect(page.getByTestId('offers')).toBeVisible();
  await page.keyboard.press('t');
  await page.getByRole('dialog').getByRole('button', { name: 'Left eye' }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('img', { name: /Left eye/ })).toBeVisible();
  expect(await site.db.owner`select eye, why from lens_loss`).toEqual([{ eye: 'left', why: 'torn' }]);
});
