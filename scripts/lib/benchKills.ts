import { toOrder } from '../../tests/support/toOrder';
import { killing, VICTIMS } from './killing';

/** Parts of the product killed at random under load, and what of it was lost or done twice. */
export async function benchKills(kills: number): Promise<void> {
  console.log(`\n${kills} kills −9 at random under load: web server, one web process, jobs, supplier stand-in, database, one connection of it`);
  const victims = Array.from({ length: kills }, () => VICTIMS[Math.floor(Math.random() * VICTIMS.length)] ?? 'web');
  const kept = await killing({ distDir: '.next', victims, everyMs: 2500, orders: kills, andThen: 20, say: (line) => console.log(`  ${line}`) }, toOrder);
  const { acknowledged, again, lost, doubled, refused, seconds } = kept;
  console.log(
    `  ${acknowledged} presses answered as done, ${again} sent again because nobody answered; ${lost} lost, ${doubled} doubled, ${refused.length} refused; ${seconds} s`,
  );
  for (const line of refused.slice(0, 5)) console.log(`    ${line}`);
}
