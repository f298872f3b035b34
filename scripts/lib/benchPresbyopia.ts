import { chanceFrom } from '../../src/lib/chance';
import { advised, alwaysTheAdd, alwaysTheOtherEye, SIM_FAMILIES, startPair, type SimFamily } from './presbyopes/fitters';
import { PERTURBED } from './presbyopes/ranges';
import { runTrial, type Fitter, type Outcome } from './presbyopes/trial';
import { drawWearer } from './presbyopes/wearer';
import { boundsOfShare } from './shares';

const FITTERS: Readonly<Record<string, (family: SimFamily) => Fitter>> = { advised, 'always the add': alwaysTheAdd, 'always the other eye': alwaysTheOtherEye };

const percent = (share: number): string => `${(share * 100).toFixed(1)}`.padStart(5);

/**
 * Made-up presbyopes, by each way of fitting, in each bent world: how many are truly satisfied at every task within three changes,
 * with bounds at 95 %, and the changes that took; paired with each other wearer by wearer.
 * @param wearers in each world
 */
export function benchPresbyopia(wearers: number): void {
  console.log(`\npresbyopes: satisfied at every task within three changes, of ${wearers} in each world [95 %], changes used by those who are`);
  const ends = new Map<Outcome['ended'], number>();
  let worse = 0;
  for (const [world, ranges] of Object.entries(PERTURBED)) {
    const outcomes = Object.entries(FITTERS).map(([name, fitter]) => {
      const all = Array.from({ length: wearers }, (_, i): Outcome => {
        const wearer = drawWearer(chanceFrom(1000 + i), ranges);
        const family = SIM_FAMILIES[i % SIM_FAMILIES.length]!;
        return runTrial(chanceFrom(900_000 + i), ranges, wearer, startPair(family, wearer.measuredAdd), fitter(family));
      });
      return { name, all, served: all.filter((o) => o.served) };
    });
    const [ours, ...others] = outcomes;
    if (!ours) return;
    for (const o of ours.all) ends.set(o.ended, (ends.get(o.ended) ?? 0) + 1);
    for (const { name, all, served } of outcomes) {
      const [from, to] = boundsOfShare(served.length, wearers);
      const changes = served.reduce((sum, o) => sum + o.changes, 0) / Math.max(1, served.length);
      // Wearers that the one serves and the other does not: the difference on the same people.
      const [won, lost] = [ours.all.filter((o, i) => o.served && !all[i]?.served).length, ours.all.filter((o, i) => !o.served && all[i]?.served).length];
      const against =
        name === ours.name ? '' : `  advised serves ${won} more, ${lost} fewer (z ${((won - lost) / Math.sqrt(Math.max(1, won + lost))).toFixed(1)})`;
      console.log(
        `  ${world.padEnd(17)} ${name.padEnd(21)} ${percent(served.length / wearers)} % [${percent(from)}, ${percent(to)}]  ${changes.toFixed(2)}${against}`,
      );
    }
    if (others.some((o) => o.served.length >= ours.served.length)) worse++;
  }
  console.log(`  advised is better than both in ${Object.keys(PERTURBED).length - worse} of ${Object.keys(PERTURBED).length} worlds`);
  console.log(`  ended: ${[...ends].map(([how, n]) => `${how} ${n}`).join(', ')} of ${wearers * Object.keys(PERTURBED).length}: every one in a verdict`);
}
