import { randomUUID } from 'node:crypto';
import { openAppLogin } from '../../src/db/appRole';
import { connect, type Sql } from '../../src/db/client';

const server = (): string => {
  const url = process.env.KEENFIT_TEST_SERVER;
  if (!url) throw new Error('Run through `npm test` (or `npm test db`): it starts the database that these tests need.');
  return url;
};
const urlOf = (database: string): string => {
  const url = new URL(server());
  url.pathname = `/${database}`;
  return url.toString();
};

/** A database of its own for one file of tests, copied from the loaded template. */
export interface TestDatabase {
  readonly name: string;
  readonly ownerUrl: string;
  readonly appUrl: string;
  readonly owner: Sql;
  readonly app: Sql;
  /** The small pool beside it. */
  readonly side: Sql;
  close(): Promise<void>;
}

export async function createDatabase(options: { readonly template?: string } = {}): Promise<TestDatabase> {
  const name = `t_${randomUUID().replace(/-/g, '').slice(0, 16)}`;
  const template = options.template ?? process.env.KEENFIT_TEST_TEMPLATE ?? 'template1';
  const admin = connect(server(), { max: 1 });
  await admin.unsafe(`create database "${name}" template "${template}"`);
  await admin.end();
  const ownerUrl = urlOf(name);
  const owner = connect(ownerUrl, { max: 3 });
  const appUrl = await openAppLogin(owner, ownerUrl);
  const app = connect(appUrl, { max: 6 });
  const side = connect(appUrl, { max: 2 });
  return {
    name,
    ownerUrl,
    appUrl,
    owner,
    app,
    side,
    close: async () => {
      await app.end({ timeout: 2 });
      await side.end({ timeout: 2 });
      await owner.end({ timeout: 2 });
      const last = connect(server(), { max: 1 });
      await last.unsafe(`drop database if exists "${name}" with (force)`);
      await last.end();
    },
  };
}
