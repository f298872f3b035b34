import 'server-only';
import { connect, type Sql } from '../db/client';
import { environment } from './environment';

const holder = globalThis as typeof globalThis & { keenfitSql?: Sql; keenfitSide?: Sql };

/** The process's one pool of use cases; survives reloads in development. */
export function database(): Sql {
  holder.keenfitSql ??= connect(environment().databaseUrl, { applicationName: 'keenfit-web' });
  return holder.keenfitSql;
}

/** A small pool beside it, for what is counted whatever a use case comes to. */
export function sideDatabase(): Sql {
  holder.keenfitSide ??= connect(environment().databaseUrl, { max: 2, applicationName: 'keenfit-side' });
  return holder.keenfitSide;
}
