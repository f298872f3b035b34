import { chromium } from '@playwright/test';
import { DEMO_PASSWORD } from '../../demo/load';
import { wholeFamily } from '../../demo/families';
import type { Sql } from '../../src/db/client';
import { insertFamily } from '../../src/db/family';
import { catalogue } from './catalogue';
import { CHROMIUM } from './chromium';

const LONG_MS = 50;

/** Puts a large made-up catalogue into a practice. */
export async function fillLibrary(sql: Sql, count: number, at: string): Promise<void> {
  const [practice] = await sql<{ id: string }[]>`select id from practice limit 1`;
  if (!practice) throw new Error('no practice');
  for (const [i, { name, geometry, blocks }] of catalogue(count).entries()) {
    const draft = { code: `bulk-${i}`, maker: 'Bulk', name, geometry, blocks, material: 'silicone hydrogel', dktThickest: 60, settleMinutes: 10, leadDays: 5 };
    const trade = { modality: 'monthly', packSize: 6, packPriceMinor: 3000 + i, markLayout: geometry === 'sphere' ? 'none' : 'six' } as const;
    const { lastOrderOn: _end, replacedBy: _by, ...family } = wholeFamily({ ...draft, ...trade }, crypto.randomUUID());
    await insertFamily(sql, practice.id, family, at, () => crypto.randomUUID());
  }
}

/** Types both powers key by key while all families are ranked anew, and prints every task that held the page for long. */
export async function benchTyping(url: string, visitId: string, families: number): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ baseURL: url, viewport: { width: 1280, height: 800 } });
    await page.request.post('/api/session', { data: { account: 'asha', password: DEMO_PASSWORD }, headers: { origin: url } });
    await page.goto(`/visits/${visitId}/refraction`);
    await page.waitForFunction(() => document.documentElement.dataset.ready === 'yes');
    await page.evaluate(() => {
      const kept: { at: number; ms: number }[] = [];
      const began = performance.now();
      Object.assign(window, { longTasks: kept });
      new PerformanceObserver((list) => kept.push(...list.getEntries().map((e) => ({ at: e.startTime - began, ms: e.duration })))).observe({
        type: 'longtask',
      });
    });
    const keys = ['-3.25 -1.75 x 20', '-4.50 -1.25 x 165'];
    await page.getByLabel('Right eye, spectacle power').pressSequentially(keys[0] ?? '', { delay: 60 });
    await page.getByLabel('Left eye, spectacle power').pressSequentially(keys[1] ?? '', { delay: 60 });
    await page.waitForTimeout(500);
    const long = await page.evaluate(() => (window as unknown as { longTasks: { at: number; ms: number }[] }).longTasks);
    const typed = keys.join('').length;
    console.log(`\nRanking ${families} families while ${typed} keys are typed, one each 60 ms:`);
    console.log(
      `  tasks over ${LONG_MS} ms   ${long.length}${long.length > 0 ? `: ${long.map(({ at, ms }) => `${Math.round(ms)} ms at ${(at / 1000).toFixed(1)} s`).join(', ')}` : ''}`,
    );
  } finally {
    await browser.close();
  }
}
