import { command, expect, signIn, test } from './site';

test.use({ file: 'requests' });

test('a request is typed in by the desk, its clock stands large, what differs is shown, and a prescriber answers', async ({ page, site }) => {
  await signIn(page);
  await command(page, 'createWearer', { name: 'Jory Penrose', birthDate: '1980-05-06' });
  await page.context().clearCookies();
  await signIn(page, 'renny');
  await page.goto('/orders');
  await page.getByRole('link', { name: 'Sellers’ requests' }).click();
  await page.waitForURL('**/requests');
  await expect(page.getByText('No request waits.')).toBeVisible();
  await page.getByRole('button', { name: 'Type in a request' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Seller', { exact: true }).fill('Quayside Lenses');
  await form.getByLabel('Telephone, fax or mail to answer to').fill('12/11/2026');
  await form.getByLabel('Wearer, as written').fill('J Penrose');
  await form.getByLabel('at', { exact: true }).fill('9:00');
  await form.getByRole('group', { name: 'Right eye' }).getByLabel('Power').fill('-3.00');
  await form.getByRole('group', { name: 'Right eye' }).getByLabel('Lens, as written').fill('Turnstone 30');
  await form.getByRole('button', { name: 'Keep the request' }).click();
  await expect(form.getByText('12/11/2026 is a day: where does the answer go?')).toBeVisible();
  // What was typed stays.
  await expect(form.getByLabel('Wearer, as written')).toHaveValue('J Penrose');
  await form.getByLabel('Telephone, fax or mail to answer to').fill('fax 0555 0199');
  await form.getByRole('button', { name: 'Keep the request' }).click();
  await expect(form).toBeHidden();
  const card = page.getByTestId('request');
  await expect(card.getByTestId('deadline')).toContainText('17:00');
  await expect(card).toContainText('Missing: the wearer’s address, the day on which the wearer asked, R base curve, R boxes.');
  // Searched at once by what is written; an initial may find nobody.
  await expect(card.getByLabel('Wearer')).toHaveValue('J Penrose');
  await card.getByLabel('Wearer').fill('Jory');
  await card.getByRole('button', { name: /Jory Penrose/ }).click();
  await expect(card).toContainText('Nothing is prescribed for this wearer.');
  await expect(card.getByText('A prescriber answers this one.')).toBeVisible();
  await page.goto('/');
  await expect(page.getByText('a seller waits for an answer')).toBeVisible();
  // Nobody answered in time: the loss is said.
  await site.move(9 * 3600);
  await page.context().clearCookies();
  await signIn(page);
  await page.goto('/requests');
  await expect(card.getByTestId('deadline')).toContainText('Silence: over');
  await card.getByRole('button', { name: 'Proposed: Invalid' }).click();
  await expect(card.getByText('Say why it is invalid: the seller is told.')).toBeVisible();
  await card.getByLabel('Why, or what is corrected').fill('never fitted here');
  await card.getByRole('button', { name: 'Proposed: Invalid' }).click();
  await expect(card).toContainText('Invalid, Asha Penhallow');
});
