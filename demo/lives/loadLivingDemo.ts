import type { AddressInfo } from 'node:net';
import { addDays, addSeconds, dayIn, type IsoInstant } from '../../src/core';
import type { Sql } from '../../src/db/client';
import { dispatchOne } from '../../src/jobs/dispatchOrders';
import { supplierServer } from '../../src/standins/supplier/server';
import { DEMO_PASSWORD, loadDay, loadPractice } from '../load';
import { chanceFrom } from '../../src/lib/chance';
import { coneLife } from './cone';
import { drawerLife } from './drawer';
import { lifeOf, type Life } from './life';
import { STORIES, type Story } from './people';
import { beginHalfMade, endHalfMade } from './halfMade';
import { Practice } from './practice';

/** How long before today the practice opened, days: before its first wearer's first call. */
const OPENED = 1200;
const SEED = 20_261_128;
/** How long before today the wearers of the day are put into the diary, days: whoever is booked later goes around them. */
const DAY_BOOKED = 40;

/** What came of it. */
export interface Told {
  readonly practiceId: string;
  readonly wearers: number;
  /** Lives that came to nothing further, because something they tried was refused. */
  readonly refused: readonly string[];
}

/**
 * The demo as a practice that has been at work for years: every entry made through the use cases, at its own moment, in the
 * order in which they happened, and answered by the supplier's stand-in. Until it is whole the database says that it is not.
 * @param sql one connection to an empty, migrated database
 * @param now the moment up to which it is told
 * @param supplierFile where the stand-in keeps what was ordered; null for nowhere
 */
export async function loadLivingDemo(sql: Sql, now: IsoInstant, supplierFile: string | null, stories: readonly Story[] = STORIES): Promise<Told> {
  await beginHalfMade(sql);
  // What a crash would lose is made anew as a whole.
  await sql`set synchronous_commit = off`;
  const since = addSeconds(now, -OPENED * 86_400);
  const practiceId = await sql.begin((tx) => loadPractice(tx, now, since));
  const practice = await Practice.open(sql, practiceId, since);
  const supplier = supplierServer({ file: supplierFile, slowMs: 0, today: () => practice.today });
  await new Promise<void>((ready) => supplier.listen(0, '127.0.0.1', ready));
  const supplierUrl = `http://127.0.0.1:${(supplier.address() as AddressInfo).port}`;
  try {
    const today = dayIn(now, practice.timeZone);
    const lives: { readonly life: Life; at: IsoInstant }[] = [
      { life: dayOf(practice, now), at: `${addDays(today, -DAY_BOOKED)}T12:00:00.000Z` },
      { life: drawerLife(practice, today), at: since },
      { life: coneLife(practice, today, DEMO_PASSWORD), at: since },
      ...stories.map((story, n) => ({ life: lifeOf(practice, chanceFrom(SEED + n), n, story, today, DEMO_PASSWORD), at: since })),
    ];
    const refused = await tell(practice, lives, now, () => sendOrders(practice, supplierUrl));
    await endHalfMade(sql);
    return { practiceId, wearers: stories.length, refused };
  } finally {
    supplier.close();
    supplier.closeAllConnections();
  }
}

async function* dayOf(practice: Practice, now: IsoInstant): Life {
  await practice.sql.begin((tx) => loadDay(tx, practice.id, now));
}

/** Tells lives up to a moment, whatever comes first going first. @returns why a life came to nothing further */
async function tell(practice: Practice, lives: { readonly life: Life; at: IsoInstant }[], until: IsoInstant, after: () => Promise<void>): Promise<string[]> {
  const refused: string[] = [];
  for (let steps = 0; ; steps++) {
    // The server's own upkeep comes too late for tables that fill within seconds, and it would plan as if they were empty: at every doubling.
    if ((steps & (steps - 1)) === 0) await practice.sql`analyze`;
    const next = lives.reduce<(typeof lives)[number] | null>((first, one) => (first === null || one.at < first.at ? one : first), null);
    if (next === null || next.at > until) break;
    // A visit may have taken longer than until the next one was due: time never runs back.
    if (next.at > practice.now) practice.now = next.at;
    const step = await next.life.next().catch((cause: unknown) => {
      refused.push(cause instanceof Error ? cause.message : String(cause));
      return { done: true as const, value: undefined };
    });
    if (step.done) lives.splice(lives.indexOf(next), 1);
    else next.at = step.value;
    await after();
  }
  return refused;
}

/** What is ordered goes to the supplier, by the same job as in the practice. */
async function sendOrders({ sql, deps }: Practice, supplierUrl: string): Promise<void> {
  const [waiting] = await sql`select 1 from order_dispatch where done_at is null limit 1`;
  if (waiting) while (await dispatchOne({ sql: deps.sql, clock: deps.clock, supplierUrl, timeoutMs: 4000 }));
}
