import 'server-only';
import { randomBytes } from 'node:crypto';
import type { Sql } from './client';

/**
 * Gives the application a login of its own that has only the rights of `keenfit_app`, with a new random password.
 * @returns the address to connect with
 */
export async function openAppLogin(owner: Sql, ownerUrl: string): Promise<string> {
  const database = decodeURIComponent(new URL(ownerUrl).pathname.slice(1));
  const login = `keenfit_web_${database.replace(/[^a-z0-9_]/gi, '_')}`.slice(0, 60);
  const password = randomBytes(24).toString('hex');
  await owner.unsafe(`do $$ begin
    if not exists (select from pg_roles where rolname = '${login}') then create role "${login}" login; end if;
  end $$;
  alter role "${login}" with login password '${password}';
  grant keenfit_app to "${login}";`);
  const url = new URL(ownerUrl);
  url.username = login;
  url.password = password;
  return url.toString();
}
