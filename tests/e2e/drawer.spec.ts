import { fillDrawer } from '../support/drawer';
import { boxCode } from './prescribed';
import { expect, openVisit, signIn, test, typePowers } from './site';

test.use({ file: 'drawer' });

test('trial lenses come by hand, are counted and thrown away; every movement stays', async ({ page }) => {
  await signIn(page, 'renny');
  await page.goto('/drawer');
  await expect(page.getByTestId('figures')).toContainText(/\d+ lenses in \d+ lots/);
  await page.keyboard.press('n');
  const form = page.getByTestId('receive');
  await form.getByLabel('Family').selectOption({ label: 'Plover 30 Toric' });
  await form.getByLabel('Power on the blister').fill('-4.00 -0.80 x 70');
  await form.getByLabel('Lot').fill('N77');
  await form.getByLabel('Expires').fill('1 Feb 2025');
  await form.getByLabel('How many').fill('3');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form).toContainText('quarter dioptre');
  await form.getByLabel('Power on the blister').fill('-4.00 -7.00 x 70');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form).toContainText('Plover 30 Toric is not made like this.');
  await form.getByLabel('Power on the blister').fill('-4.00 -0.75 x 70');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form).toContainText('It expired on 1 Feb 2025');
  await form.getByLabel('Expires').fill('1 Feb 2028');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form.getByRole('status').last()).toContainText('In the drawer: 3 × Plover 30 Toric −4.00 −0.75 × 70, lot N77');
  await expect(form.getByLabel('Power on the blister')).toBeFocused();
  await page.getByLabel('Family, power or lot').fill('plover n77');
  const row = page.getByTestId('lot-N77');
  await expect(row).toContainText('1 Feb 2028');
  await row.getByRole('button').click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('How many', { exact: true }).fill('9');
  await panel.getByRole('button', { name: 'damaged' }).click();
  await panel.getByRole('button', { name: 'Throw away' }).click();
  await expect(panel).toContainText('Only 3 are left.');
  await panel.getByLabel('How many', { exact: true }).fill('1');
  await panel.getByRole('button', { name: 'Throw away' }).click();
  await expect(panel.getByTestId('lot-left')).toContainText('2 left');
  await panel.getByLabel('There are').fill('5');
  await panel.getByRole('button', { name: 'Correct the count' }).click();
  await expect(panel.getByTestId('lot-left')).toContainText('5 left');
  await expect(panel.getByTestId('movements')).toContainText('+3counted');
  await expect(panel.getByTestId('movements')).toContainText('−1thrown away, damaged');
  await expect(panel.getByTestId('movements')).toContainText('+3received');
  await expect(panel.getByTestId('movements')).toContainText('Renny Okoro-Vale');
});

test('a pack that is scanned fills the form; its code is learned once, and known from then on', async ({ page }) => {
  await signIn(page, 'renny');
  await page.goto('/drawer');
  const form = page.getByTestId('receive');
  const scan = async (code: string): Promise<void> => {
    await form.getByLabel('Scan a box or a blister').fill(code);
    await form.getByLabel('Scan a box or a blister').press('Enter');
  };
  await scan('(01)06291041500214');
  await expect(form).toContainText('That is no code of a box.');
  await scan(boxCode(901, '7', 'T901'));
  await expect(form).toContainText('This code is not known yet.');
  await expect(form.getByLabel('Lot')).toHaveValue('T901');
  await form.getByLabel('Family').selectOption({ label: 'Plover 30 Toric' });
  await form.getByLabel('Power on the blister').fill('-4.00 -0.75 x 70');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form.getByRole('status').last()).toContainText('lot T901');
  await page.reload();
  await scan(boxCode(901, '8', 'T902'));
  await expect(form).toContainText('Plover 30 Toric −4.00 −0.75 × 70: check the count.');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form.getByRole('status').last()).toContainText('lot T902');
  // Another power under the same code is refused, until it is received without the code.
  await scan(boxCode(901, '9', 'T903'));
  await expect(form.getByLabel('Lot')).toHaveValue('T903');
  await form.getByLabel('Power on the blister').fill('-4.25 -0.75 x 70');
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form).toContainText('This code was learned for Plover 30 Toric');
  await form.getByRole('button', { name: 'Receive it without the code' }).click();
  await form.getByRole('button', { name: 'Put them in the drawer' }).click();
  await expect(form.getByRole('status').last()).toContainText('lot T903');
});

test('an expired lot stands first, is not offered, and goes with one press', async ({ page, site }) => {
  await site.db.owner`
    with s as (insert into trial_stock (id, practice_id, lens_id, lot, expires_on)
      select gen_random_uuid(), practice_id, lens_id, 'OLD1', '2026-11-20' from trial_stock limit 1 returning id, practice_id)
    insert into trial_movement (practice_id, trial_stock_id, kind, change, moved_at) select practice_id, id, 'opening', 2, now() from s`;
  await signIn(page, 'joss');
  await page.goto('/drawer');
  const expired = page.getByTestId('expired');
  await expect(expired).toContainText('OLD1');
  await expired.getByRole('button', { name: 'Throw away all 2' }).click();
  await expect(expired).toHaveCount(0);
  await expect(page.getByTestId('lot-OLD1')).toHaveCount(0);
});

test('none in the drawer is no dead end: what stands on the blister puts it on the eye', async ({ page, site }) => {
  await site.db.owner`
    insert into trial_movement (practice_id, trial_stock_id, kind, change, moved_at, moved_by)
    select practice_id, id, 'thrownAway', -count, now(), (select person_id from membership limit 1) from trial_stock where count > 0`;
  await signIn(page);
  await openVisit(page);
  await typePowers(page, '-2.00', null);
  await page.getByTestId('candidate-turnstone-30').getByRole('radio').click();
  await expect(page.getByText('R: none in the drawer.')).toBeVisible();
  const put = page.getByRole('button', { name: 'Put it on R' });
  await expect(put).toBeDisabled();
  const hand = page.getByTestId('in-hand-right');
  await hand.getByLabel('Lot, R').fill('HAND1');
  await put.click();
  await expect(hand).toContainText('An expiry date is needed.');
  await hand.getByLabel('Expires, R').fill('3 Mar 2028');
  await put.click();
  await page.waitForURL('**/on-eye');
  await expect(page.getByText('lot HAND1')).toBeVisible();
});

test('a trial that nobody has is ordered from the visit and received at the desk; its wearer is called', async ({ page, site }) => {
  await signIn(page);
  await fillDrawer(site.db.owner, 0, { code: 'plover-30-toric' });
  await openVisit(page);
  await typePowers(page, '-3.25 -1.75 x 20', '-4.50 -1.25 x 165');
  await page.getByTestId('candidate-plover-30-toric').getByRole('radio').click();
  await expect(page.getByTestId('in-hand-right')).toBeVisible();
  await page.getByRole('button', { name: 'Order both trials' }).click();
  await expect(page.getByText('Once they came they are in the drawer').first()).toBeVisible();
  await page.goto('/orders');
  await expect(page.getByTestId('orders')).toContainText('trial lenses');
  await page
    .getByRole('button', { name: /Receive order/ })
    .first()
    .click();
  const form = page.getByTestId('receipt');
  await form.getByLabel('Lot, R').fill('TR1');
  await form.getByLabel('Expires, R').fill('1 Jan 2020');
  await form.getByLabel('Lot, L').fill('TL1');
  await form.getByLabel('Expires, L').fill('1 Mar 2028');
  await form.getByRole('button', { name: 'Record what came' }).click();
  await expect(form).toContainText('It expired on 1 Jan 2020');
  await form.getByLabel('Expires, R').fill('1 Mar 2028');
  await form.getByRole('button', { name: 'Record what came' }).click();
  await expect(page.getByText('Nothing is on its way.')).toBeVisible();
  await page.goto('/tasks');
  await expect(page.getByTestId('tasks')).toContainText('the trial lenses came: book their visit');
  expect(await site.db.owner`select count from trial_stock where lot in ('TR1', 'TL1')`).toEqual([{ count: 1 }, { count: 1 }]);
});
