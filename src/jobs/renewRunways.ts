import 'server-only';
import { DEFAULT_SETTINGS, dayIn, learnedLead } from '../core';
import type { Sql } from '../db/client';
import { listStale, markAll, markNight } from '../db/eyeRunway';
import { findPractice, listPractices } from '../db/practice';
import { reckonTurns } from '../db/figures';
import { listLeads, listSuppliers, setLearnedLead } from '../db/supplier';
import type { Clock } from '../lib/clock';
import { renewRunways } from '../services/runway/renew';
import { followThrough } from './followThrough';
import { writeReminders } from './writeReminders';

export interface RunwayDeps {
  readonly sql: Sql;
  readonly clock: Clock;
}

/** Wearers whose runways are reckoned in one transaction. */
const BATCH = 200;

/** Reckons runways that something was recorded for by whoever keeps none: a supplier's answer, an import. @returns how many wearers */
export async function renewStale({ sql, clock }: RunwayDeps, most = BATCH): Promise<number> {
  const stale = await listStale(sql, most);
  const practices = [...new Set(stale.map((s) => s.practiceId))];
  for (const practiceId of practices) {
    const practice = await findPractice(sql, practiceId);
    if (!practice) continue;
    const now = await clock.now();
    const { reorderMarginDays } = { ...DEFAULT_SETTINGS, ...practice.settings };
    const wearerIds = stale.flatMap((s) => (s.practiceId === practiceId ? s.wearerId : []));
    const terms = { today: dayIn(now, practice.timeZone), timeZone: practice.timeZone, marginDays: reorderMarginDays };
    await sql.begin((tx) => renewRunways(tx, practiceId, wearerIds, terms));
  }
  return stale.length;
}

/** Orders of a supplier from which its lead time is learned. */
const LEARNED_ORDERS = 20;

/** Learns within how many days each supplier's orders come; a changed one changes every due day. */
async function learnLeads(sql: Sql, practiceId: string, timeZone: string): Promise<void> {
  let changed = false;
  for (const { id, learnedLeadDays } of await listSuppliers(sql, practiceId)) {
    const days = (await listLeads(sql, practiceId, id, timeZone, LEARNED_ORDERS)).map((l) => Math.max(0, l.days));
    const learned = learnedLead(days);
    if (learned === learnedLeadDays) continue;
    changed = true;
    await setLearnedLead(sql, practiceId, id, learned);
  }
  if (changed) await markAll(sql, practiceId);
}

/** Once a practice's day has begun: what the day changed is marked, and reckoned by `renewStale` a batch at a time. @returns the day of each practice */
export async function beginDays({ sql, clock }: RunwayDeps, begun: ReadonlyMap<string, string>): Promise<ReadonlyMap<string, string>> {
  const now = await clock.now();
  const days = new Map<string, string>();
  for (const { id, timeZone } of await listPractices(sql)) {
    const today = dayIn(now, timeZone);
    days.set(id, today);
    if (begun.get(id) === today) continue;
    await learnLeads(sql, id, timeZone);
    await reckonTurns(sql, id, today);
    await markNight(sql, id, today);
    await writeReminders(sql, id, now);
    await followThrough(sql, id, now);
  }
  return days;
}
