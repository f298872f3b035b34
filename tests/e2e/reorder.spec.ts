import { boxCode, prescribed } from './prescribed';
import { command, expect, signIn, test } from './site';

test.use({ file: 'reorder' });

test('a telephone reorder: found by two letters, asked, told, ordered by a coordinator in a few presses; and what a call without an order leaves', async ({
  page,
  site,
}) => {
  await signIn(page);
  const { wearerId } = await prescribed(page, 'Zennor Quickfall');
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto('/wearers');
  await page.keyboard.press('/');
  await page.keyboard.type('ze');
  await page.getByRole('link', { name: 'Zennor Quickfall' }).click();
  await page.waitForURL(`**/wearers/${wearerId}`);
  await page.keyboard.press('o');
  await page.waitForURL('**/reorder');
  await expect(page.getByText('Prescription', { exact: false }).first()).toBeVisible();
  await expect(page.getByTestId('offers').getByRole('row')).toHaveCount(4);
  await expect(page.getByTestId('offers')).toContainText('one over: book first');
  await page.keyboard.press('1');
  await expect(page.getByLabel('Boxes R')).toHaveValue('1');
  // What was not asked is not ordered.
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Ask for danger signs first.')).toBeVisible();
  await expect(page.getByText('Ask whether sight has changed.')).toBeVisible();
  await page.keyboard.press('n');
  await page.keyboard.press('s');
  await page.getByLabel('Boxes L').fill('x');
  await expect(page.getByText('A whole number.')).toBeVisible();
  await page.getByLabel('Boxes L').fill('9');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/past the end of the prescription/)).toBeVisible();
  await page.getByLabel('Boxes L').fill('1');
  await page.getByTestId('up-front').click();
  await expect(page.getByTestId('working')).toContainText('R: 1 ×');
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(`**/wearers/${wearerId}`);
  const [row] = await site.db.owner<{ orders: number; closed: number }[]>`
    select (select count(*) from lens_order where wearer_id = ${wearerId})::int as orders,
      (select count(*) from visit where wearer_id = ${wearerId} and kind = 'reorder' and closed_at is not null)::int as closed`;
  expect(row).toEqual({ orders: 1, closed: 1 });

  // The next call: it is on its way already; the wearer wants to wait.
  await page.keyboard.press('o');
  await page.waitForURL('**/reorder');
  await expect(page.getByRole('complementary')).toContainText('Ordered');
  await page.getByRole('button', { name: 'Not now' }).click();
  await page.getByLabel('Call again from').fill('1 Jan 2020');
  await page.getByRole('button', { name: 'Keep the call' }).click();
  await expect(page.getByText('1 Jan 2020 is not after today.')).toBeVisible();
  await page.getByLabel('Call again from').fill('1 Feb 2027');
  await page.getByLabel('What was said').fill('away until then');
  await page.getByRole('button', { name: 'Keep the call' }).click();
  await page.waitForURL(`**/wearers/${wearerId}`);

  // A red eye goes to triage, and nothing can be ordered after it.
  await page.keyboard.press('o');
  await page.waitForURL('**/reorder');
  await expect(page.getByRole('complementary')).toContainText('away until then');
  await page.getByRole('button', { name: 'Yes: red eye' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByRole('group', { name: 'What is reported, one press each' }).getByRole('button', { name: 'Pain' }).click();
  await panel.getByRole('button', { name: /emergency/i }).click();
  await expect(page.getByTestId('barred')).toContainText(/stopped|danger sign/);
  await expect(page.getByRole('button', { name: 'Wearer said yes: order' })).toBeDisabled();
});

/** The code of a box, as people write it. */
test('boxes are received by their codes: each goes to its own eye, and what does not belong is said', async ({ page, site }) => {
  await signIn(page);
  const { wearerId } = await prescribed(page, 'Tamsyn Quillfeather');
  const [signed] = await site.db.owner<{ id: string }[]>`select id from prescription where wearer_id = ${wearerId}`;
  const order = { wearerId, requestKey: crypto.randomUUID(), prescriptionId: signed?.id, rightPacks: 1, leftPacks: 2 };
  await command(page, 'reorderLenses', { ...order, noDanger: true, sightSame: true, pastExpiryNote: '', note: '' });
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto('/orders');
  await page.getByRole('button', { name: /Tamsyn Quillfeather/ }).click();
  const scan = page.getByLabel('Scan a box, or type its code');
  const said = page.getByTestId('scan').getByRole('status');
  const read = async (code: string): Promise<void> => {
    await scan.fill(code);
    await scan.press('Enter');
  };
  await expect(scan).toBeFocused();
  await read('(01)06291041500214');
  await expect(said).toContainText('The check digit of 06291041500214 does not fit');
  await read(boxCode(300, '1'));
  await expect(said).toContainText('A code never met before');
  await said.getByRole('button', { name: '−3.00' }).click();
  await expect(said).toContainText('Right eye, lot A1');
  await expect(page.getByLabel('Lot, R')).toHaveValue('A1');
  await expect(page.getByLabel('Expires, R')).toHaveValue('31 Mar 2029');
  await read(boxCode(300, '1'));
  await expect(said).toContainText('This very box was scanned already.');
  await read(boxCode(300, '2'));
  await expect(said).toContainText('all boxes of this order are there');
  // As a scanner sends it, with its separator as Ctrl ].
  await scan.pressSequentially(
    boxCode(275, '')
      .replace(/\((\d\d)\)/g, '$1')
      .replace(/21$/, ''),
  );
  await scan.press('Control+]');
  await scan.pressSequentially('2111');
  await scan.press('Enter');
  await said.getByRole('button', { name: '−2.75' }).click();
  await read(boxCode(275, '12', 'A2'));
  await expect(said).toContainText('another lot or day than the box before');
  await read(boxCode(275, '12'));
  await expect(page.getByLabel('Boxes, L')).toHaveValue('2');
  await page.getByRole('button', { name: 'Record what came' }).click();
  await expect(page.getByRole('status').first()).toContainText('received');
  const boxes = await site.db
    .owner`select s.serial, l.eye from box_serial s join order_receipt r on r.id = s.order_receipt_id join order_line l on l.id = r.order_line_id order by 1`;
  expect(boxes).toEqual([
    { serial: '1', eye: 'right' },
    { serial: '11', eye: 'left' },
    { serial: '12', eye: 'left' },
  ]);
});
