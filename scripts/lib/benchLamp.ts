import { chromium } from '@playwright/test';
import { DEMO_PASSWORD } from '../../demo/load';
import { readMany } from '../../tests/support/steadiness';
import { CHROMIUM } from './chromium';

/** How often lenses of a given scatter are called unsteady or drifting, by the cylinder they correct. */
export function benchSteadiness(): void {
  console.log('\nCalled unsteady or drifting, of 10,000 lenses (three blinks, five where they scatter):');
  const cylinders = [-0.75, -1.25, -1.75, -2.25, -2.75, -4];
  console.log(`  ${'cylinder'.padEnd(26)}${cylinders.map((c) => c.toFixed(2).replace('-', '−').padStart(9)).join('')}`);
  for (const sd of [2.5, 5, 7, 8]) {
    const read = cylinders.map((c) => readMany(sd, c, 10_000));
    console.log(`  SD ${sd.toFixed(1)}°, refused`.padEnd(28) + read.map((r) => `${(r.refused * 100).toFixed(1)} %`.padStart(9)).join(''));
    console.log(`  SD ${sd.toFixed(1)}°, blinks read`.padEnd(28) + read.map((r) => r.blinks.toFixed(1).padStart(9)).join(''));
  }
}

/** Drags the mark at the lamp screen back and forth, and prints the longest task and the longest interaction. */
export async function benchDrag(url: string, visitId: string): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ baseURL: url, viewport: { width: 1280, height: 800 } });
    await page.request.post('/api/session', { data: { account: 'asha', password: DEMO_PASSWORD }, headers: { origin: url } });
    await page.goto(`/visits/${visitId}/on-eye`);
    await page.waitForFunction(() => document.documentElement.dataset.ready === 'yes');
    await page.waitForTimeout(1000);
    await page.evaluate(() => {
      const kept = { tasks: [] as number[], events: [] as number[] };
      Object.assign(window, { lamp: kept });
      new PerformanceObserver((list) => kept.tasks.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' });
      // Interactions are counted from the shortest that browsers tell.
      const every = { type: 'event', durationThreshold: 16 };
      new PerformanceObserver((list) => kept.events.push(...list.getEntries().map((e) => e.duration))).observe(every);
    });
    const dial = page.getByTestId('rotation-eye-right');
    const box = await dial.boundingBox();
    if (!box) throw new Error('no dial');
    const scale = box.width / 360;
    const at = (degrees: number): [number, number] => {
      const angle = (degrees * Math.PI) / 180;
      return [box.x + 180 * scale - 100 * scale * Math.sin(angle), box.y + (150 - 38) * scale + 100 * scale * Math.cos(angle)];
    };
    const moves = 240;
    await page.mouse.move(...at(0));
    await page.mouse.down();
    for (let i = 1; i <= moves; i++) await page.mouse.move(...at(25 * Math.sin(i / 12)));
    await page.mouse.up();
    for (let i = 0; i < 5; i++) await page.keyboard.press('Space');
    await page.waitForTimeout(500);
    const { tasks, events } = await page.evaluate(() => (window as unknown as { lamp: { tasks: number[]; events: number[] } }).lamp);
    const longest = (list: readonly number[]): string => (list.length === 0 ? 'none' : `${Math.round(Math.max(...list))} ms`);
    console.log(`\nDragging the mark at the lamp screen, ${moves} moves, then five blinks:`);
    console.log(`  tasks over 50 ms     ${tasks.length}, the longest ${longest(tasks)}`);
    console.log(`  longest interaction  ${longest(events)} (counted from 16 ms)`);
  } finally {
    await browser.close();
  }
}
