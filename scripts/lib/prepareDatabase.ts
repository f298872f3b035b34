import { loadDemo } from '../../demo/load';
import { openAppLogin } from '../../src/db/appRole';
import { connect } from '../../src/db/client';
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

/** Removes a database of a server with all that is in it. */
export async function dropDatabase(ownerUrl: (database: string) => string, name: string): Promise<void> {
  const admin = connect(ownerUrl('postgres'), { max: 1 });
  try {
    await admin.unsafe(`drop database if exists "${name}" with (force)`);
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
