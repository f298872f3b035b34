import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, openVisit, signIn, test } from './site';

test.use({ file: 'library' });

async function asAdmin(page: Page, to = '/library'): Promise<void> {
  await signIn(page, 'merle');
  await page.goto(to);
}
const file = (text: string) => ({ name: 'marram-2026-12.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
async function exported(page: Page): Promise<string[]> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a file' }).click();
  const saved = await waiting;
  return readFileSync(await saved.path(), 'utf8')
    .trimEnd()
    .split('\r\n');
}

test('found by words, and by what each would do for a power; the range with an eye on it', async ({ page }) => {
  await signIn(page);
  await page.goto('/library');
  await page.keyboard.press('/');
  await page.keyboard.type('marram toric');
  await expect(page.getByTestId('family-plover-30-toric')).toBeVisible();
  await expect(page.getByTestId('family-turnstone-30')).toHaveCount(0);
  await page.getByLabel('Family, maker, or a power').fill('-3.25 -3.25 x 25');
  await expect(page.locator('[data-testid^="family-"]').first()).toHaveAttribute('data-testid', 'family-godwit-made-toric');
  await expect(page.getByTestId('family-plover-30-toric')).toContainText('out by 0.65 D of cylinder');
  await page.getByRole('link', { name: 'Plover 30 Toric' }).click();
  await page.waitForURL('**/library/plover-30-toric');
  await page.getByLabel('Right eye, glasses at 12 mm').fill('-3.00 -1.50 x 18');
  await expect(page.getByTestId('need-right')).toBeVisible();
  await expect(page.getByText('18 axes made here, required 18, 20 given')).toBeVisible();
  await page.getByLabel('Left eye, glasses at 12 mm').fill('-3 abc');
  await expect(page.getByLabel('Left eye, glasses at 12 mm')).toHaveAttribute('aria-invalid', 'true');
  // Who only looks is offered nothing to change.
  await expect(page.getByRole('button', { name: 'Change it' })).toHaveCount(0);
});

test('a catalogue file with three kinds of error: each by its line, then without them taken in', async ({ page }) => {
  await asAdmin(page);
  const lines = await exported(page);
  const at = (code: string): number => lines.findIndex((l) => l.startsWith(code));
  const spoilt = [...lines];
  const spoil = (code: string, from: string, to: string): void => {
    spoilt[at(code)] = spoilt[at(code)]?.replace(from, to) ?? '';
  };
  spoil('curlew-multifocal', 'Curlew Multifocal', '=HYPERLINK(1)');
  spoil('avocet-30-multifocal-toric', '-0.75|', '-0.80|');
  spoil('dunlin-1-day-multifocal', ',41.00,', ',forty,');
  spoilt.push(
    'whimbrel-30,Marram Optical,Whimbrel 30,sphere,monthly,silicone hydrogel,46,110,120,80,0.8,,no,,,,none,,,,5,6,34.00,0.00,5,,,,,no,no,,,,,,-6.00,6.00,0.25,,,,,,8.6/14.2',
  );
  await page.getByLabel('Catalogue file').setInputFiles(file(spoilt.join('\r\n')));
  await page.getByRole('button', { name: 'Read and check it' }).click();
  await page.waitForURL('**/library/import/**');
  const faults = page.getByTestId('faults');
  await expect(faults.getByRole('row', { name: new RegExp(`^${at('curlew-multifocal') + 1} `) })).toContainText('would run as a formula');
  await expect(faults.getByRole('row', { name: new RegExp(`^${at('avocet-30-multifocal-toric') + 1} `) })).toContainText('−0.8 does not lie on steps of 0.25');
  await expect(faults.getByRole('row', { name: new RegExp(`^${at('dunlin-1-day-multifocal') + 1} `) })).toContainText('“forty” is not a number');
  await expect(page.getByTestId('import-file')).toContainText('3 faults in 3 families that stay out');
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the 3 faults as a file' }).click();
  expect(readFileSync(await (await saved).path(), 'utf8')).toContain('catalogueFormula');
  await page.getByLabel('In force from').fill('2020-01-01');
  await page.getByRole('button', { name: 'Bring in 1 family, leave 3' }).click();
  await expect(page.getByText('A version cannot begin in the past')).toBeVisible();
  await page.getByLabel('In force from').fill('2026-11-24');
  await page.getByRole('button', { name: 'Bring in 1 family, leave 3' }).click();
  await expect(page.getByTestId('import-state')).toContainText('1 family brought in.');
  await page.getByRole('link', { name: 'To the library' }).click();
  await page.waitForURL('**/library');
  await expect(page.getByTestId('family-whimbrel-30')).toBeVisible();
  await expect(page.getByTestId('family-curlew-multifocal')).toContainText('Curlew Multifocal');
});

test('a file that is none changes nothing', async ({ page }) => {
  await asAdmin(page);
  await page.getByLabel('Catalogue file').setInputFiles(file('colour,size\nred,3'));
  await page.getByRole('button', { name: 'Read and check it' }).click();
  await expect(page.getByTestId('import-state')).toContainText('It cannot be read, and nothing is changed. These columns are missing');
  await expect(page.getByRole('button', { name: /Bring in/ })).toHaveCount(0);
});

test('changing a family: a fault at its cell, the consequences, a new version; then its end', async ({ page }) => {
  await asAdmin(page, '/library/sanderling-14-toric');
  await page.getByRole('button', { name: 'Change it' }).click();
  await page.getByLabel('Cylinders, row 1').fill('-0.75|-1.30');
  await page.getByRole('button', { name: 'What would follow' }).click();
  await expect(page.getByText('−1.3 does not lie on steps of 0.25.')).toBeVisible();
  await expect(page.getByLabel('Cylinders, row 1')).toHaveValue('-0.75|-1.30');
  await page.getByLabel('Cylinders, row 1').fill('-0.75|-1.25');
  await page.getByLabel('Rotation, mean (left +)').fill('3');
  await page.getByLabel('Rotation, SD').fill('4');
  await page.getByRole('button', { name: 'What would follow' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('No prescription in force uses it.');
  await expect(dialog).toContainText(/\d+ in the drawer would no longer be made/);
  await dialog.getByRole('button', { name: 'Save the new version' }).click();
  await expect(page.getByRole('button', { name: 'Show version 2' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText('3° ± 4°')).toBeVisible();
  const near = page.getByTestId('blocks').getByRole('row').nth(1);
  await expect(near).not.toContainText('−2.25');
  await page.getByRole('button', { name: 'Show version 1' }).click();
  await expect(near).toContainText('−0.75, −1.25, −1.75, −2.25');

  await page.getByRole('button', { name: 'Set its end' }).click();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toContainText('The last day it can be ordered is needed.');
  await dialog.getByLabel('Last day it can be ordered').fill('2026-12-31');
  await dialog.getByLabel('What replaces it').selectOption({ label: 'Plover 30 Toric' });
  await dialog.getByLabel('Why').fill('the maker ends it');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('ending')).toContainText('Last orders 31 Dec 2026');
  await expect(page.getByTestId('ending')).toContainText('In its place: Plover 30 Toric.');
  // Its own figures are taken at the lens step, and its end is said.
  await page.goto('/');
  await page.context().clearCookies();
  await signIn(page);
  await openVisit(page);
  await page.getByLabel('Right eye, spectacle power').fill('-3.25 -1.25 x 20');
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL('**/lens');
  const row = page.getByTestId('candidate-sanderling-14-toric');
  await expect(row).toContainText('last orders 31 Dec 2026');
  await row.getByRole('radio').click();
  await expect(page.getByTestId('working')).toContainText('rotation, this family’s own figures3° ± 4°');
});

test('the house list: three places a cell, and it decides between lenses of equal blur', async ({ page }) => {
  await asAdmin(page);
  await page.getByRole('button', { name: 'Change monthly toric', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox').nth(0).selectOption({ label: 'Godwit Made Toric' });
  await dialog.getByRole('combobox').nth(1).selectOption({ label: 'Godwit Made Toric' });
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toContainText('The same family twice.');
  await dialog.getByRole('combobox').nth(1).selectOption({ label: 'Plover 30 Toric' });
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('family-godwit-made-toric')).toContainText('house list, no. 1');
});
