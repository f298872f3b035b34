import { chromium } from '@playwright/test';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, timezoneId: 'America/New_York', baseURL: 'http://127.0.0.1:3210' });
const shot = async (n) => { await p.waitForTimeout(900); await p.screenshot({ path: `/tmp/w/${n}.png` }); };
await p.goto('/sign-in');
await p.waitForTimeout(500);
await p.getByRole('button', { name: /Asha/i }).click(); await p.getByLabel('Password').fill('plain-sight'); await p.getByRole('button', { name: 'Sign in' }).click(); await p.waitForURL('**/');
const call = (path, input) => p.evaluate(async ([to, body]) => (await fetch(to, { method: 'POST', headers: { 'content-type': 'application/json' }, body })).json(), [path, JSON.stringify(input)]);
const all = await call('/api/queries/searchWearers', { search: '' });
for (const w of all.value.wearers) {
  const f = await call('/api/queries/readWearer', { wearerId: w.id });
  const file = f.value;
  if ((file.orders?.length ?? 0) > 0 && file.handOvers.length > 2 && !file.visits.some((v) => v.closedAt === null)) {
    console.log(w.name, file.orders.length, file.handOvers.length, file.stoppedSince);
    await p.goto(`/wearers/${w.id}`); await p.waitForTimeout(800);
    await p.keyboard.press('n');
    await shot('kind-new');
    await p.getByTestId('kind-lensAnnual').click();
    await p.waitForURL('**/worn-now');
    await shot('kind-worn');
    await p.getByTestId('kind-of-visit').click();
    await shot('kind-change');
    break;
  }
}
await b.close();
