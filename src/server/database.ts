import 'server-only';
import { connect, type Sql } from '../db/client';
import { environment } from './environment';

const holder = globalThis as typeof globalThis & { keenfitSql?: Sql };

/** The process's one pool; survives reloads in development. */
export function database(): Sql {
  holder.keenfitSql ??= connect(environment().databaseUrl, { applicationName: 'keenfit-web' });
  return holder.keenfitSql;
}
