import { loadDemo } from '../../demo/load';
import { openAppLogin } from '../../src/db/appRole';
import { connect, type Sql } from '../../src/db/client';
import { migrate } from '../../src/db/migrate';

/** Makes a database on a server when it is not there yet. */
export async function ensureDatabase(ownerUrl: (database: string) => string, name: string): Promise<void> {
  const admin = connect(ownerUrl('postgres'), { max: 1 });
  try {
    const [there] = await admin`select 1 as one from pg_database where datname = ${name}`;
    if (!there) await admin.unsafe(`create database "${name}"`);
  } finally {
    await admin.end();
  }
}

/** Migrates, loads the demo where the database is empty, and opens the application's login. */
export async function prepareDatabase(url: string, options: { readonly demoAt: string | null }): Promise<{ appUrl: string; applied: number; loaded: boolean }> {
  const owner = connect(url, { max: 2 });
  try {
    const applied = await migrate(owner);
    const [count] = await owner<{ n: number }[]>`select count(*)::int as n from practice`;
    const loaded = options.demoAt !== null && count?.n === 0;
    if (loaded && options.demoAt !== null) await loadDemo(owner, options.demoAt);
    return { appUrl: await openAppLogin(owner, url), applied: applied.length, loaded };
  } finally {
    await owner.end();
  }
}

/** Brings the demo's diary to today, so that a demo loaded last week still has a day to show; what happened to each appointment moves with it. */
export async function moveDiaryToToday(sql: Sql, today: string, timeZone: string): Promise<void> {
  const [late] = await sql<{ days: number }[]>`
    select ${today}::date - max((starts_at at time zone ${timeZone})::date) as days from appointment having max((starts_at at time zone ${timeZone})::date) < ${today}::date`;
  if (!late) return;
  await sql.begin(async (tx) => {
    await tx`update appointment set starts_at = starts_at + ${late.days} * interval '1 day', state = 'booked', late_minutes = 0`;
    await tx`update appointment_event set starts_at = starts_at + ${late.days} * interval '1 day'`;
  });
}
