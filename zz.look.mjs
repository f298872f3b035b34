import { chromium } from '@playwright/test';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, timezoneId: 'America/New_York', baseURL: 'http://127.0.0.1:3210' });
const shot = async (n) => { await p.waitForTimeout(900); await p.screenshot({ path: `/tmp/w/${n}.png` }); };
await p.goto('/sign-in');
await p.waitForTimeout(500);
await p.getByRole('button', { name: /Asha/i }).click(); await p.getByLabel('Password').fill('plain-sight'); await p.getByRole('button', { name: 'Sign in' }).click(); await p.waitForURL('**/');
const call = (path, input) => p.evaluate(async ([to, body]) => (await fetch(to, { method: 'POST', headers: { 'content-type': 'application/json' }, body })).json(), [path, JSON.stringify(input)]);
const all = await call('/api/queries/searchWearers', { search: '' });
let n = 0;
for (const w of all.value.wearers) {
  const f = await call('/api/queries/readWearer', { wearerId: w.id });
  const file = f.value.file ?? f.value;
  if ((file.orders?.length ?? 0) > 0 && file.handOvers.length > 2 ) {
    console.log(w.name, file.orders.length, file.handOvers.length, file.stoppedSince);
    const v = await call('/api/commands/openVisit', { wearerId: w.id, kind: 'aftercare' });
    if (!v.ok) { console.log(JSON.stringify(v)); continue; }
    await p.goto(`/visits/${v.value.visitId}/worn-now`);
    n += 1;
    await shot(`worn${n}`);
    if (n === 9) {
      await p.keyboard.press('7');
      await p.keyboard.press('y');
      await p.waitForTimeout(600);
      await shot('worn-a');
      await p.keyboard.press('Enter');
      await p.waitForTimeout(900);
      await shot('worn-b');
      await p.keyboard.press('Enter');
      await p.waitForTimeout(1200);
      console.log(p.url());
      await p.goto(`/visits/${v.value.visitId}/on-eye`); await shot('worn-c');
    }
    if (n === 2) { await p.setViewportSize({width:820,height:1100}); await shot('worn-narrow'); await p.setViewportSize({width:640,height:400}); await shot('worn-200'); await p.setViewportSize({width:1280,height:800}); await p.keyboard.press('d'); await shot('worn-dark'); break; }
  }
}
await b.close();
