import 'server-only';
import { randomBytes } from 'node:crypto';
import type { Sql } from './client';

/** A statement that hangs, a lock that is never given or a transaction left open ends by itself: none of them stops the server. */
const LIMITS = { statement_timeout: '15s', lock_timeout: '5s', idle_in_transaction_session_timeout: '30s' } as const;

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
  grant keenfit_app to "${login}";
  ${Object.entries(LIMITS)
    .map(([name, value]) => `alter role "${login}" set ${name} = '${value}';`)
    .join('\n  ')}`);
  const url = new URL(ownerUrl);
  url.username = login;
  url.password = password;
  return url.toString();
}
