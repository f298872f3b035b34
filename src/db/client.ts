import 'server-only';
import postgres from 'postgres';

/** A connection pool, or the connection of a transaction: query functions take either. */
export type Sql = postgres.Sql<{ asNumber: number; asText: string; asInstant: string }>;
export type Tx = postgres.TransactionSql<{ asNumber: number; asText: string; asInstant: string }>;
export type Db = Sql | Tx;

/**
 * Opens a pool. Numbers come as numbers, days as YYYY-MM-DD, instants as ISO 8601 text; only column names change
 * to camel case, never keys inside jsonb.
 */
export function connect(
  url: string,
  options: { readonly max?: number; readonly applicationName?: string; readonly onStatement?: (text: string, parameters: unknown[]) => void } = {},
): Sql {
  return postgres(url, {
    max: options.max ?? 8,
    onnotice: () => undefined,
    ...(options.onStatement ? { debug: (_connection: number, text: string, parameters: unknown[]) => options.onStatement?.(text, parameters) } : {}),
    connection: { application_name: options.applicationName ?? 'keenfit' },
    transform: { column: { to: postgres.fromCamel, from: postgres.toCamel } },
    types: {
      asNumber: { to: 1700, from: [20, 1700], serialize: (value: number) => String(value), parse: (text: string) => Number(text) },
      asText: { to: 1082, from: [1082], serialize: (value: string) => value, parse: (text: string) => text },
      asInstant: {
        to: 1184,
        from: [1184, 1114],
        serialize: (value: string) => value,
        parse: (text: string) => new Date(text).toISOString(),
      },
    },
  }) as Sql;
}
