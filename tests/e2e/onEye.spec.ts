import { command, desk, dragMark, expect, openVisit, readRecord, say, saySentences, see, signIn, test, typeBlinks, watch } from './site';
import type { Page } from '@playwright/test';

test.use({ file: 'onEye' });
test.beforeEach(({ page }) => signIn(page));

interface Trial {
  readonly code?: string;
  readonly power: readonly [sphere: number, cylinder: number, axis: number];
  readonly curve?: readonly [number, number];
}
type Family = { readonly id: string; readonly code: string };
type Fact = { readonly rootId: string; readonly current: { readonly eye: string } };
type Record_ = { visit: { version: number }; families: Family[]; facts: { onEye: Fact[] } };

const OWNER: { db: { unsafe: (sql: string) => Promise<unknown> } } = { db: { unsafe: () => Promise.reject(new Error('no database')) } };
test.beforeEach(({ site }) => {
  OWNER.db = site.db.owner;
});
/** A trial lens of exactly this kind, whatever the demo's drawer holds. */
async function inDrawer(t: Trial): Promise<void> {
  const [sphere, cylinder, axis] = t.power;
  const [curve, diameter] = t.curve ?? [8.6, 14.2];
  const code = t.code ?? 'plover-30-toric';
  await OWNER.db.unsafe(`
    insert into lens (id, practice_id, family_version_id, sphere_d, cylinder_d, axis_deg, base_curve_mm, diameter_mm)
      select gen_random_uuid(), practice_id, id, ${sphere}, ${cylinder}, ${axis}, ${curve}, ${diameter} from lens_family_version where code = '${code}'
      on conflict do nothing`);
  await OWNER.db.unsafe(`
    insert into trial_stock (id, practice_id, lens_id, lot, expires_on)
      select gen_random_uuid(), l.practice_id, l.id, 'Z' || floor(random() * 1000000)::int, '2028-01-01' from lens l join lens_family_version f on f.id = l.family_version_id
      where f.code = '${code}' and l.sphere_d = ${sphere} and l.cylinder_d = ${cylinder} and l.axis_deg = ${axis} and l.base_curve_mm = ${curve}`);
  await OWNER.db.unsafe(`
    insert into trial_movement (practice_id, trial_stock_id, kind, change, moved_at)
      select practice_id, id, 'opening', 5, now() from trial_stock where lot like 'Z%' and count = 0`);
}

/** A visit with glasses measured and trial lenses on, at its On eye step. */
async function lensesOn(
  page: Page,
  powers: { right?: string; left?: string },
  trials: { right?: Trial; left?: Trial },
  settled = true,
): Promise<{ visit: string; visitId: string }> {
  const visit = await openVisit(page);
  const visitId = visit.split('/').pop() ?? '';
  const acuity = { logMar: 0, typed: '20/20' };
  await command(page, 'recordRefraction', {
    visitId,
    version: 1,
    right: powers.right ?? null,
    left: powers.left ?? null,
    vertexMm: 12,
    rightAcuity: powers.right ? acuity : null,
    leftAcuity: powers.left ? acuity : null,
  });
  const { families } = await readRecord<Record_>(page, visitId ?? '');
  const spec = (t?: Trial) =>
    t
      ? {
          familyId: families.find((f) => f.code === (t.code ?? 'plover-30-toric'))?.id,
          sphere: t.power[0],
          cylinder: t.power[1],
          axis: t.power[2],
          add: null,
          baseCurve: t.curve?.[0] ?? 8.6,
          diameter: t.curve?.[1] ?? 14.2,
        }
      : null;
  for (const t of [trials.right, trials.left]) if (t) await inDrawer(t);
  await command(page, 'putOnTrials', { visitId, version: 2, right: spec(trials.right), left: spec(trials.left) });
  // On the eye long enough to have settled, unless the wait itself is looked at.
  if (settled) await OWNER.db.unsafe(`update lens_on_eye set put_on_at = put_on_at - interval '20 minutes' where visit_id = '${visitId}'`);
  await page.goto(`${visit}/on-eye`);
  return { visit, visitId };
}
const blinks = typeBlinks;
const press = (page: Page) => page.getByRole('button', { name: 'Record the readings' }).click();
/** Records, and waits until it is on record. */
async function record(page: Page): Promise<void> {
  await press(page);
  await expect(page.getByRole('button', { name: 'To the prescription' })).toBeVisible();
}
const PLOVER: Trial = { power: [-3, -1.75, 20] };
const NEED = '-3.25 -1.75 x 20';

test.describe('the known traps', () => {
  test('the axis of the refraction, not of the trial: a trial at 30 or at 170 gives one order', async ({ page }) => {
    for (const axis of [30, 170]) {
      await lensesOn(page, { right: '-3.25 -1.75 x 5' }, { right: { power: [-3, -1.75, axis] } });
      await blinks(page, 'Right', '10r', '10r', '10r');
      const verdict = page.getByTestId('turn-verdict-right');
      await expect(verdict).toContainText('right, subtract 10: 5 → 175');
      await expect(verdict).toContainText(`the trial lies at ${axis}, required 5`);
      await desk(page, 'Sight');
      await expect(page.getByTestId('order-right')).toContainText('× 170');
    }
  });
  test('a scale that runs the other way, with its zero elsewhere, is set up by looking', async ({ page }) => {
    await lensesOn(page, { right: NEED }, { right: PLOVER });
    await desk(page, 'Rotation');
    const field = page.getByLabel('Right eye, mark rotation');
    await field.fill('100');
    await expect(page.getByText('100° is past 90°.')).toBeVisible();
    await page.getByRole('button', { name: 'Calibrate the slit-lamp scale' }).click();
    const panel = page.getByRole('dialog');
    await panel.getByLabel('Its name').fill('Room 2');
    await panel.getByLabel('Beam straight: reads').fill('90');
    await panel.getByLabel('Beam on this mark: reads').fill('92');
    await panel.getByRole('button', { name: 'Keep this slit lamp' }).click();
    await expect(panel).toContainText('These two are 2° apart');
    await panel.getByLabel('Beam on this mark: reads').fill('70');
    await panel.getByRole('button', { name: 'Keep this slit lamp' }).click();
    await expect(page.getByText('90 is straight, grows to your right')).toBeVisible();
    await expect(page.getByText('scale at 100: 10° to your right')).toBeVisible();
    await field.fill('80');
    await expect(page.getByText('scale at 80: 10° to your left')).toBeVisible();
    await field.fill('10l');
    await expect(page.getByText('scale at')).toHaveCount(0);
    await field.fill('200');
    await expect(page.getByText('A scale reads 0 to 180.')).toBeVisible();
    await blinks(page, 'Right', '80', '80', '80');
    await expect(page.getByTestId('turn-verdict-right')).toContainText('left, add 10: 20 → 30');
    await record(page);
    await page.getByText('3 blinks recorded').click();
    await expect(page.getByText('(scale 80)').first()).toBeVisible();
    await page.reload();
    await expect(page.getByText('90 is straight, grows to your right')).toBeVisible();
    await page.getByLabel('Slit lamp').selectOption('');
    await page.getByLabel('Right eye, mark rotation').fill('80');
    await expect(page.getByText('80 to which side?')).toBeVisible();
    await page.getByLabel('Right eye, mark rotation').fill('');
    await page.getByRole('button', { name: 'Calibrate the slit-lamp scale' }).click();
    await page.getByRole('button', { name: 'Room 2: no longer used' }).click();
    await page.getByRole('button', { name: 'End Room 2' }).click();
    await expect(page.getByRole('region', { name: 'Set up already' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Not now' }).click();
    await expect(page.getByLabel('Slit lamp')).toHaveCount(0);
    // What was read with it stays.
    await expect(page.getByTestId('blinks-right')).toContainText('10°');
  });
  test('an unsteady lens is never compensated: no order, refit, and signing is refused', async ({ page }) => {
    const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
    await blinks(page, 'Right', '0', '25l', '10r', '30l', '5l');
    await expect(page.getByTestId('blinks-right')).toContainText('unstable');
    await expect(page.getByTestId('turn-verdict-right')).toContainText('refit, do not compensate');
    await expect(page.getByTestId('turn-verdict-right')).not.toContainText('→');
    await expect(page.getByTestId('turn-verdict-right')).toContainText('judge the fit first');
    await desk(page, 'Fit');
    await page.getByRole('group', { name: 'Right eye, fit' }).getByRole('button', { name: 'fits' }).click();
    await expect(page.getByText('It fits and is not stable: another stabilisation')).toBeVisible();
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByText('It is not stable: refit before an order')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Sign prescription' })).toBeDisabled();
  });
  test('the left eye: left is still the examiner’s left, and is added', async ({ page }) => {
    await lensesOn(page, { left: '-4.50 -1.25 x 165' }, { left: { power: [-4.25, -1.25, 170] } });
    await dragMark(page, 'left', 10);
    await page.getByRole('button', { name: 'Left eye, Log blink' }).click();
    for (const _ of [1, 2]) await page.getByRole('button', { name: 'Left eye, Log blink' }).click();
    await expect(page.getByTestId('blinks-left')).toContainText('10°to your left');
    await expect(page.getByTestId('turn-verdict-left')).toContainText('left, add 10: 165 → 175');
  });
  test('a pedal pressed while the hand still drags logs what the hand shows, once', async ({ page }) => {
    await lensesOn(page, { right: NEED }, { right: PLOVER });
    const dial = page.getByTestId('rotation-eye-right');
    await dragMark(page, 'right', 12, async () => {
      // A second finger that rests on the drawing pulls at nothing.
      await dial.dispatchEvent('pointermove', { pointerId: 99, clientX: 5, clientY: 5 });
      await expect(dial).toHaveAttribute('aria-valuenow', '12');
      await page.keyboard.press('Space');
      await expect(dial).toHaveAttribute('aria-valuenow', '12');
    });
    const logged = page.getByTestId('blinks-right').locator('.blink-list span');
    await expect(logged).toHaveText(['12']);
    await expect(page.getByLabel('Right eye, mark rotation')).toHaveValue('');
  });
  test('a pedal that sends another key is taught by pressing it; it logs also while single keys are off', async ({ page }) => {
    await page.goto('/settings');
    await page.getByRole('button', { name: 'Teach the pedal' }).click();
    await page.keyboard.press('Enter');
    await expect(page.getByText('Enter has other work here')).toBeVisible();
    await page.keyboard.press('PageDown');
    await expect(page.getByRole('button', { name: 'Forget it' })).toBeVisible();
    await page.getByRole('group', { name: 'Single-key shortcuts' }).getByRole('button', { name: 'off' }).click();
    await lensesOn(page, { right: NEED }, { right: PLOVER });
    await desk(page, 'Rotation');
    await page.getByLabel('Right eye, mark rotation').fill('9l');
    await page.keyboard.press('PageDown');
    await page.locator('h1, h2').first().click();
    await page.keyboard.press('PageDown');
    await page.keyboard.press('Space');
    await expect(page.getByTestId('blinks-right').locator('.blink-list span')).toHaveText(['9', '9']);
    await expect(page.getByText('PageDown', { exact: true })).toBeVisible();
  });
  test('across 180: 172 with 12 left is 4', async ({ page }) => {
    await lensesOn(page, { right: '-3.25 -1.75 x 172' }, { right: { power: [-3, -1.75, 170] } });
    await blinks(page, 'Right', '12l', '12l', '12l');
    await expect(page.getByTestId('turn-verdict-right')).toContainText('left, add 12: 172 → 4');
    await desk(page, 'Sight');
    await expect(page.getByTestId('order-right')).toContainText('172 + 12 = 4');
  });
  test('plus cylinder reads as its minus: the over-refraction and the order are the same', async ({ page }) => {
    await lensesOn(page, { right: '-5.00 +1.75 x 110' }, { right: PLOVER });
    await blinks(page, 'Right', '10l', '10l', '10l');
    await desk(page, 'Sight');
    await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('-0.25 +0.50 x 160');
    await expect(page.getByTestId('need-right')).toHaveText('−3.09 −1.56 × 18');
    await expect(page.getByTestId('order-right')).toContainText('−3.00 −1.75 × 30');
  });
  test('marks at 3 and 9: drawn there, and a scale is read with the beam across', async ({ page }) => {
    await lensesOn(page, { right: NEED }, { right: { code: 'godwit-made-toric', power: [-3.25, -1.5, 20], curve: [8.6, 14.4] } });
    await desk(page, 'Rotation');
    const marks = page.getByTestId('rotation-eye-right').locator('line[stroke-width="7"]');
    await expect(marks).toHaveCount(2);
    await page.getByRole('button', { name: 'Calibrate the slit-lamp scale' }).click();
    const panel = page.getByRole('dialog');
    await panel.getByLabel('Its name').fill('Room 3');
    await panel.getByLabel('Beam straight: reads').fill('90');
    await panel.getByLabel('Beam on this mark: reads').fill('110');
    await panel.getByRole('button', { name: 'Keep this slit lamp' }).click();
    await expect(panel).toHaveCount(0);
    await page.getByLabel('Right eye, mark rotation').fill('10');
    await expect(page.getByText('scale at 10: 10° to your left')).toBeVisible();
  });
  test('double compensation: final or raw, never both; raw names no lens', async ({ page, site }) => {
    const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
    await blinks(page, 'Right', '10l', '10l', '10l');
    await desk(page, 'Sight');
    await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('+0.25 -0.50 x 70');
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByText('Never both: rotation would count twice, × 38.')).toBeVisible();
    await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 30');
    await page.getByRole('radio', { name: /Raw, for the laboratory/ }).check();
    await expect(page.getByTestId('prescribed-right')).toHaveCount(0);
    await expect(page.getByTestId('raw-right')).toContainText('−3.00 −1.75 × 20');
    await expect(page.getByTestId('raw-right')).toContainText('rotation: 10° to your left');
    await page.getByLabel('Why the order need not wait for aftercare').fill('a laboratory makes it');
    await saySentences(page, 'looked at elsewhere this morning');
    await page.getByLabel('Your password, once more').fill('plain-sight');
    await page.getByRole('button', { name: 'Sign prescription' }).click();
    await expect(page.getByTestId('raw-figures')).toContainText('the laboratory works the lens out');
    const rows = await site.db.owner<{ mode: string; lensId: string | null }[]>`select mode, lens_id from prescription_eye where mode = 'raw'`;
    expect(rows).toMatchObject([{ mode: 'raw', lensId: null }]);
  });
  test('a stabilised sphere stays a toric: it has a mark to read, and is not called a plain sphere', async ({ page }) => {
    await lensesOn(page, { right: '-1.25 -1.25 x 112' }, { right: { code: 'godwit-made-toric', power: [-1.5, 0, 180], curve: [8.6, 14.4] } });
    await expect(page.getByTestId('on-right')).toHaveText('−1.50 stabilised');
    await blinks(page, 'Right', '8l', '8l', '8l');
    await desk(page, 'Sight');
    await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('+0.25 -1.25 x 112');
    await expect(page.getByTestId('order-right')).toContainText('112 + 8 = 120');
    await expect(page.getByTestId('order-right')).toContainText('−1.25 −1.25 × 120');
  });
});

test('at the lamp by keys alone: digits open the entry, Space logs, R and L change the eye, S turns to sight', async ({ page }) => {
  await lensesOn(page, { right: NEED, left: '-4.50 -1.25 x 165' }, { right: PLOVER, left: { power: [-4.25, -1.25, 170] } });
  await desk(page, 'Rotation');
  await page.locator('main').click({ position: { x: 4, y: 4 } });
  for (const turn of ['1', '8']) {
    await page.keyboard.press(turn);
    await expect(page.getByLabel('Right eye, mark rotation')).toBeFocused();
    await page.keyboard.type('0l');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  }
  await page.keyboard.press('l');
  await expect(page.getByTestId('rotation-eye-left')).toBeFocused();
  await expect(page.getByTestId('measuring')).toHaveText('L, blink 0 of 3');
  await page.keyboard.press('ArrowLeft');
  for (const _ of [1, 2, 3]) await page.keyboard.press('Space');
  await expect(page.getByTestId('measuring')).toHaveText('L, blink 3 of 3');
  await expect(page.getByTestId('blinks-left')).toContainText('stable');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('f');
  await expect(page.getByRole('group', { name: 'Right eye, fit' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByLabel('Right eye, over-refraction', { exact: true })).toBeVisible();
  await page.goto('/settings');
  await page.getByRole('group', { name: 'Single-key shortcuts' }).getByRole('button', { name: 'off' }).click();
  await page.goBack();
  await desk(page, 'Sight');
  await page.locator('main').click({ position: { x: 4, y: 4 } });
  await page.keyboard.press('f');
  await page.keyboard.press('d');
  await expect(page.locator('html')).toHaveAttribute('data-lights', 'up');
  await expect(page.getByLabel('Right eye, over-refraction', { exact: true })).toBeVisible();
});

test('a series goes on with the server gone, and nothing is lost', async ({ page, context }) => {
  await lensesOn(page, { right: NEED }, { right: PLOVER });
  await blinks(page, 'Right', '10l', '8l');
  await context.setOffline(true);
  await blinks(page, 'Right', '11l');
  await press(page);
  await expect(page.getByTestId('blinks-right')).toContainText('10811');
  await context.setOffline(false);
  await page.reload();
  await expect(page.getByTestId('blinks-right')).toContainText('10811');
  await record(page);
  await expect(page.getByText('3 blinks recorded')).toBeVisible();
  await page.clock.fastForward('00:01');
  await page.reload();
  await expect(page.getByTestId('mean-right')).toHaveText('9.7°');
});

test('two people read one eye at once: the second is told, and keeps what was typed', async ({ page, browser, site }) => {
  const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
  await blinks(page, 'Right', '10l');
  const other = await browser.newContext({ baseURL: site.url, timezoneId: 'America/New_York' });
  const joss = await other.newPage();
  watch(joss);
  await signIn(joss, 'joss');
  await joss.goto(`${visit}/on-eye`);
  await joss.getByLabel('Right eye, mark rotation').fill('5r');
  await record(joss);
  await expect(joss.getByText('1 blink recorded')).toBeVisible();
  await other.close();
  await press(page);
  await expect(page.getByRole('dialog')).toContainText('5° R');
  await page.getByRole('button', { name: 'Show it, and keep what I typed' }).click();
  await expect(page.getByTestId('blinks-right')).toContainText('10');
});

test('fit in full: the ruler on the overlap, reasons, the next curve, comfort', async ({ page }) => {
  await lensesOn(page, { right: NEED }, { right: { code: 'godwit-made-toric', power: [-3.25, -1.5, 20], curve: [8.9, 14.4] } });
  await desk(page, 'Fit');
  await expect(page.getByText('movement or push-up is not judged yet')).toBeVisible();
  await page.getByRole('button', { name: 'In full' }).click();
  await page
    .getByRole('group', { name: 'Right eye, Movement, straight ahead, on the limbal overlap' })
    .getByRole('button', { name: /limbus/ })
    .click();
  await expect(page.getByTestId('judged-right')).toContainText('appears loose');
  await expect(page.getByTestId('judged-right')).toContainText('over 0.5');
  await page.getByRole('group', { name: 'Right eye, Push-up tightness' }).getByRole('button', { name: '80' }).click();
  await expect(page.getByTestId('judged-right')).toContainText('signs disagree');
  await page.getByRole('group', { name: 'Right eye, Push-up tightness' }).getByRole('button', { name: '20', exact: true }).click();
  await page.getByRole('group', { name: 'Right eye, fit' }).getByRole('button', { name: 'loose' }).click();
  await expect(page.getByTestId('next-right')).toContainText('Steeper');
  const drawing = page.getByTestId('fit-eye-right');
  await drawing.scrollIntoViewIfNeeded();
  const box = await drawing.boundingBox();
  if (!box) throw new Error('no drawing');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 12, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel('Right eye, Nasal decentration')).not.toHaveValue('');
  const lag = page.getByLabel('Right eye, Lag', { exact: true });
  await lag.fill('nine');
  await expect(lag).toHaveAttribute('aria-invalid', 'true');
  await press(page);
  await expect(lag).toBeFocused();
  await lag.fill('0.5');
  await record(page);
  await expect(page.getByTestId('seen-right-movement')).toBeVisible();
  await page.getByRole('button', { name: 'One line' }).click();
  for (const name of ['Movement', 'Push-up recovery'])
    await page
      .getByRole('group', { name: `Right eye, ${name}`, exact: true })
      .getByRole('button', { name: '0' })
      .click();
  await expect(page.getByTestId('judged-right')).toContainText('appears loose');
});

test('it fits but hurts: the ladder of comfort', async ({ page }) => {
  await lensesOn(page, { right: '-2.00' }, { right: { code: 'turnstone-30', power: [-2, 0, 180], curve: [8.4, 14.2] } });
  await desk(page, 'Fit');
  await page.getByRole('group', { name: 'Right eye, Movement', exact: true }).getByRole('button', { name: '0' }).click();
  await page.getByRole('group', { name: 'Right eye, Comfort' }).getByRole('button', { name: '5', exact: true }).click();
  await expect(page.getByTestId('ladder-right')).toContainText('Slide it to the white and back');
  await page.getByRole('group', { name: 'Right eye, Comfort' }).getByRole('button', { name: '9', exact: true }).click();
  await expect(page.getByTestId('ladder-right')).toHaveCount(0);
});

test('sight: plus first, minus questioned, a surprise asked, no order before pinhole and cause', async ({ page }) => {
  const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
  await blinks(page, 'Right', '10l', '10l', '10l');
  await desk(page, 'Sight');
  // The +0.50 is logged as it looked, and is never the finding; worse offers the plano that follows.
  await page.getByRole('group', { name: 'Right eye, +0.50 first' }).getByRole('button', { name: 'worse' }).click();
  const over = page.getByLabel('Right eye, over-refraction', { exact: true });
  await expect(over).toHaveValue('');
  await page.getByRole('button', { name: 'Right eye, Nothing more: plano' }).click();
  await expect(over).toHaveValue('0.00');
  await page.getByLabel('Right eye, VA with the lens').fill('20/50');
  await over.fill('-0.25 -0.50 x 70');
  await page.getByLabel('Right eye, VA with the over-refraction').fill('20/50');
  await expect(page.getByTestId('doubts-right')).toContainText('More minus gains no line');
  await page.getByLabel('Right eye, VA with the over-refraction').fill('sharp');
  await expect(page.getByText('sharp is not an acuity')).toBeVisible();
  await over.fill('-1.25');
  await expect(page.getByTestId('asks-right')).toContainText('is this the lens?');
  await page.getByLabel('Right eye, VA with the over-refraction').fill('20/50');
  await press(page);
  await expect(page.getByText('Ask whether this is the lens, then confirm.')).toBeVisible();
  await expect(over).toHaveValue('-1.25');
  await over.fill('-3.00 -1.75 x 20');
  await expect(page.getByTestId('asks-right')).toContainText('is there a lens on this eye?');
  await over.fill('+0.25 -0.50 x 70');
  await expect(page.getByTestId('asks-right')).toHaveCount(0);
  await expect(page.getByTestId('doubts-right')).toContainText('4 lines short of the best recorded');
  await record(page);
  await expect(page.getByTestId('over-va-recorded-right')).toHaveText('20/50');
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('look-right')).toContainText('vision is short of its best, cause not recorded');
  await page.goto(`${visit}/on-eye`);
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, VA through a pinhole').fill('20/20');
  await expect(page.getByTestId('doubts-right')).toContainText('The pinhole gives 4 lines');
  await page.getByRole('group', { name: 'Right eye, Why VA falls short' }).getByRole('button', { name: 'surface or deposits' }).click();
  await record(page);
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 30');
  await expect(page.getByTestId('look-right')).toContainText('vision as expected');
});

test('VA of both eyes: typed on the spine, asked about when it falls short, corrected with its reason', async ({ page }) => {
  await lensesOn(page, { right: NEED, left: NEED }, { right: PLOVER, left: PLOVER });
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, VA with the lens').fill('20/20');
  await page.getByLabel('Left eye, VA with the lens').fill('20/25');
  const field = page.getByLabel('Both eyes together, VA with the lenses');
  await field.fill('twenty');
  await press(page);
  await expect(field).toBeFocused();
  await expect(field).toHaveValue('twenty');
  await field.fill('20/40');
  const lost = page.getByText('3 lines worse than the better eye alone');
  await expect(lost).toBeVisible();
  await record(page);
  await expect(page.getByTestId('both-eyes')).toContainText('20/40');
  await page.getByTestId('both-eyes').getByRole('button', { name: 'Correct' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByLabel('New value').fill('20/20');
  await panel.getByLabel('Why').fill('read off the wrong line');
  await panel.getByRole('button', { name: 'Correct it' }).click();
  await expect(panel).toHaveCount(0);
  await expect(lost).toHaveCount(0);
  await expect(page.getByTestId('both-eyes').locator('del')).toHaveText('20/40');
});

test('VA of both eyes typed before a lens comes off is neither lost nor recorded: it says why, and can be taken away', async ({ page }) => {
  await lensesOn(page, { right: NEED, left: NEED }, { right: PLOVER, left: PLOVER });
  await desk(page, 'Sight');
  const field = page.getByLabel('Both eyes together, VA with the lenses');
  await field.fill('20/20');
  await page.getByRole('button', { name: 'Take it off' }).first().click();
  await expect(page.getByText('This needs a lens on each eye')).toBeVisible();
  await press(page);
  await expect(field).toBeFocused();
  await expect(field).toHaveValue('20/20');
  await field.fill('');
  await expect(page.getByRole('button', { name: 'To the prescription' })).toBeVisible();
});

test('lenses exchanged are recognised from both over-refractions', async ({ page }) => {
  const lens = (sphere: number): Trial => ({ code: 'turnstone-30', power: [sphere, 0, 180], curve: [8.4, 14.2] });
  await lensesOn(page, { right: '-2.00', left: '-3.00' }, { right: lens(-2), left: lens(-3) });
  await desk(page, 'Sight');
  await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('+1.00');
  await page.getByLabel('Left eye, over-refraction').fill('-1.00');
  await expect(page.getByTestId('asks-left')).toContainText('are right and left swapped?');
});

test('the lens line: an earlier lens is taken up again with its reason, two are compared', async ({ page }) => {
  const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
  await blinks(page, 'Right', '10l', '10l', '10l');
  await record(page);
  await expect(page.getByText('3 blinks recorded')).toBeVisible();
  const visitId = visit.split('/').pop() ?? '';
  const now = await readRecord<Record_>(page, visitId ?? '');
  const familyId = now.families.find((f) => f.code === 'plover-30-toric')?.id;
  await command(page, 'putOnTrials', {
    visitId,
    version: now.visit.version,
    right: { familyId, sphere: -3, cylinder: -1.75, axis: 30, add: null, baseCurve: 8.6, diameter: 14.2 },
    left: null,
  });
  await page.reload();
  await page.getByTestId('station-right-1').click();
  const panel = page.getByRole('dialog');
  await expect(panel).toContainText('10° to your left, 3 blinks');
  await panel.getByRole('button', { name: 'R trial 2' }).click();
  await expect(panel).toContainText('Two lenses');
  await panel.getByRole('button', { name: 'Use this lens' }).first().click();
  await page.getByRole('dialog').last().getByLabel('Why').fill('it sat better');
  await page.getByRole('button', { name: 'Use it' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('in use again: “it sat better”, Asha Penhallow')).toBeVisible();
  await expect(page.getByTestId('on-right')).toHaveText('−3.00 −1.75 × 20');
  await page.goto(`${visit}/prescription`);
  await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 30');
});

test('settle clocks run on every page and through reloads; the sound is off until asked for', async ({ page }) => {
  await lensesOn(page, { right: NEED, left: '-4.50 -1.25 x 165' }, { right: PLOVER, left: { power: [-4.25, -1.25, 170] } }, false);
  const clock = page.getByTestId('settle-right').last();
  await expect(clock).toContainText('left');
  await page.goto('/wearers');
  await expect(page.getByTestId('settle-right').last()).toContainText('Plover 30 Toric');
  const bell = page.getByRole('button', { name: 'Sound at the end: off' });
  await expect(bell).toHaveAttribute('aria-pressed', 'false');
  await bell.click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Sound at the end: on' })).toHaveAttribute('aria-pressed', 'true');
});

test.describe('a good fit is signed without a cause invented, and nothing sick or tight slips through', () => {
  /** Everything but the thing tested is as it should be: asked, stained, judged, read. */
  async function ready(page: Page, visit: string): Promise<void> {
    await say(page, visit, { danger: ['none'] });
    await see(page, visit, { staining: 0 });
    await page.goto(`${visit}/on-eye`);
  }
  async function fitsAt(page: Page, eye: 'Right' | 'Left', word: 'fits' | 'tight' = 'fits'): Promise<void> {
    await desk(page, 'Fit');
    await page
      .getByRole('group', { name: `${eye} eye, fit` })
      .getByRole('button', { name: word })
      .click();
  }
  async function sign(page: Page): Promise<void> {
    await page.getByLabel('Why the order need not wait for aftercare').fill('seen again on Friday');
    await page.getByLabel('Your password, once more').fill('plain-sight');
    await page.getByRole('button', { name: 'Sign prescription' }).click();
  }
  const sentences = (page: Page) => page.getByRole('textbox', { name: /why sign all the same/i });

  test('plano through a lens 10° left orders × 30, and signs without a sentence', async ({ page }) => {
    const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
    await ready(page, visit);
    await blinks(page, 'Right', '10l', '10l', '10l');
    await fitsAt(page, 'Right');
    await desk(page, 'Sight');
    await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('0.00');
    await expect(page.getByTestId('need-right')).toHaveText('−3.08 −1.59 × 20');
    await expect(page.getByTestId('order-right')).toContainText('20 + 10 = 30');
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByTestId('prescribed-right')).toHaveText('−3.00 −1.75 × 30');
    await expect(sentences(page)).toHaveCount(0);
    await sign(page);
    await expect(page.getByTestId('signed')).toBeVisible();
  });
  test('over-minus: a repeated +0.75 decides, and nobody has to say why', async ({ page }) => {
    const { visit } = await lensesOn(page, { right: '-3.00' }, { right: { code: 'turnstone-30', power: [-3, 0, 180], curve: [8.4, 14.2] } });
    await ready(page, visit);
    await fitsAt(page, 'Right');
    await desk(page, 'Sight');
    const over = page.getByLabel('Right eye, over-refraction', { exact: true });
    await over.fill('+0.75');
    await expect(page.locator('span[data-testid="routes-right"]')).toContainText('measure again');
    await expect(page.locator('span[data-testid="routes-right"]')).toContainText('freed by a second over-refraction');
    await record(page);
    await over.fill('+0.75');
    await expect(page.locator('span[data-testid="routes-right"]')).toContainText('a second over-refraction says the same');
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByTestId('look-right')).toContainText('over-refraction repeated, more plus decides');
    await expect(page.getByTestId('prescribed-right')).toHaveText('−2.25');
    await expect(sentences(page)).toHaveCount(0);
    await sign(page);
    await expect(page.getByTestId('signed')).toBeVisible();
  });
  test('a steady turned toric one line short, and a lens one line short, ask nothing', async ({ page }) => {
    const { visit } = await lensesOn(page, { right: NEED, left: NEED }, { right: PLOVER, left: PLOVER });
    await ready(page, visit);
    await blinks(page, 'Right', '10l', '10l', '10l');
    await blinks(page, 'Left', '0', '0', '0');
    await fitsAt(page, 'Right');
    await fitsAt(page, 'Left');
    await desk(page, 'Sight');
    for (const [eye, va] of [
      ['Right', '20/32'],
      ['Left', '20/25'],
    ] as const) {
      await page.getByLabel(`${eye} eye, VA with the lens`).fill(va);
      await page.getByLabel(`${eye} eye, over-refraction`, { exact: true }).fill('0.00');
      await page.getByLabel(`${eye} eye, VA with the over-refraction`).fill(va);
    }
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByTestId('look-right')).toContainText('vision as expected');
    await expect(page.getByTestId('look-left')).toContainText('vision as expected');
    await expect(sentences(page)).toHaveCount(0);
  });
  test('a near eye that sees fully through its over-refraction asks nothing; two lines under its own best it does', async ({ page }) => {
    const lens: Trial = { code: 'turnstone-30', power: [-1.75, 0, 180], curve: [8.4, 14.2] };
    const { visit } = await lensesOn(page, { right: '-3.00' }, { right: lens });
    await ready(page, visit);
    await fitsAt(page, 'Right');
    await desk(page, 'Sight');
    const over = page.getByLabel('Right eye, over-refraction', { exact: true });
    await page.getByLabel('Right eye, VA with the lens').fill('20/100');
    await over.fill('-1.25');
    await page.getByLabel('Right eye, VA with the over-refraction').fill('20/20');
    await expect(page.getByTestId('doubts-right')).not.toContainText('short of the best');
    await page.getByLabel('Right eye, VA with the over-refraction').fill('20/32');
    await expect(page.getByTestId('doubts-right')).toContainText('2 lines short of the best recorded');
    await page.getByRole('group', { name: 'Right eye, Why VA falls short' }).getByRole('button', { name: 'near eye (monovision)' }).click();
    await expect(page.getByText('a near eye sees fully through its over-refraction')).toBeVisible();
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByTestId('look-right')).toContainText('near eye does not see fully through its over-refraction');
    await expect(sentences(page)).toHaveCount(1);
  });
  test('a lens recorded tight is signed only with a sentence, which stays in view', async ({ page }) => {
    const { visit } = await lensesOn(page, { right: NEED }, { right: PLOVER });
    await ready(page, visit);
    await blinks(page, 'Right', '0', '0', '0');
    await fitsAt(page, 'Right', 'tight');
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByTestId('look-right')).toContainText('recorded tight');
    await sign(page);
    await expect(page.getByText('A prescriber’s sentence is needed here')).toBeVisible();
    await expect(page.getByTestId('signed')).toHaveCount(0);
    await sentences(page).fill('No flatter curve is made; seen in a week.');
    await page.getByLabel('Your password, once more').fill('plain-sight');
    await page.getByRole('button', { name: 'Sign prescription' }).click();
    await expect(page.getByTestId('signed')).toContainText('No flatter curve is made; seen in a week.');
  });
  test('an uncorrected +0.75 in a teenager is asked about; a prescriber picks one and says why', async ({ page, site }) => {
    const { visit, visitId } = await lensesOn(page, { right: '-3.00' }, { right: { code: 'turnstone-30', power: [-3, 0, 180], curve: [8.4, 14.2] } });
    await site.db
      .owner`update wearer_identity set birth_date = '2011-05-01', guardian = 'A parent' where wearer_id = (select wearer_id from visit where id = ${visitId})`;
    await ready(page, visit);
    await fitsAt(page, 'Right');
    await desk(page, 'Sight');
    await page.getByLabel('Right eye, over-refraction', { exact: true }).fill('+0.75');
    await expect(page.getByTestId('weighted-right')).toContainText('weighted by noise');
    await record(page);
    await page.goto(`${visit}/prescription`);
    await expect(page.getByTestId('look-right')).toContainText('do not agree');
    await expect(page.getByTestId('prescribed-right')).toHaveCount(0);
    await page.getByRole('button', { name: /^Over-refraction decides/ }).click();
    await expect(page.getByTestId('prescribed-right')).toHaveText('−2.25');
    await expect(sentences(page)).toHaveCount(1);
  });
});
