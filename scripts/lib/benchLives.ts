import type { Modality } from '../../src/core';
import { live, type Life, type Lived } from './livesOfSupply';

const PACKS: Readonly<Record<Modality, readonly number[]>> = { daily: [30, 90], twoWeekly: [6], monthly: [3, 6], quarterly: [1], yearly: [1] };
/** Three years with a leap day in them. */
const FROM = '2027-03-01';
const DAYS = 3 * 365 + 1;

function chanceOf(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Wearers over three years, their desk working from the due list alone: who ran out unwarned, what was ordered past its prescription, what went astray. */
export function benchLives(wearers = 10_000): void {
  console.log(`\n${wearers.toLocaleString('en')} wearers over three years with a leap day, the desk working from the list alone:`);
  for (const modality of ['daily', 'twoWeekly', 'monthly'] as const) {
    const sums = { days: 0, orders: 0, losses: 0, unwarned: 0, late: 0, pastExpiry: 0, astray: 0 };
    const count = Math.round(wearers / 3);
    for (let i = 0; i < count; i++) {
      const chance = chanceOf(i * 7919 + modality.length);
      const sizes = PACKS[modality];
      const life: Life = {
        modality,
        packSize: sizes[i % sizes.length] ?? 6,
        daysPerWeek: modality === 'daily' ? 1 + (i % 7) : 7 - (i % 3),
        leadDays: 2 + (i % 14),
        loss: (i % 4) * 0.1,
        pause: (i % 5) * 0.3,
      };
      const lived: Lived = live(life, FROM, DAYS, chance);
      for (const key of Object.keys(sums) as (keyof typeof sums)[]) sums[key] += lived[key];
    }
    console.log(
      `  ${modality.padEnd(10)} ${String(count).padStart(5)} wearers, ${sums.orders} orders, ${sums.losses} lenses lost: ${sums.unwarned} days without a lens unwarned, ${sums.late} for which the list came too late, ${sums.pastExpiry} orders past the prescription, ${sums.astray} lenses astray`,
    );
  }
}
