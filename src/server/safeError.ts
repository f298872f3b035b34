/** An error as the log keeps it: what kind, where, and no value of any row. */
export interface SafeError {
  readonly type: string;
  readonly message: string;
  readonly code?: string;
  readonly constraint?: string;
  readonly table?: string;
  readonly stack?: string;
}

const text = (value: unknown): string | undefined => (typeof value === 'string' ? value : undefined);
const frames = (stack: string | undefined): string | undefined =>
  stack
    ?.split('\n')
    .filter((line) => /^\s+at /.test(line))
    .join('\n');

/**
 * What of an error may be written down. A database says in its message, detail and parameters which values it stumbled on, and
 * these are somebody's: of its errors only code, constraint and table are kept.
 */
export function safeError(cause: unknown): SafeError {
  if (!(cause instanceof Error)) return { type: typeof cause, message: 'no error was thrown' };
  const of = cause as Error & { readonly severity?: unknown; readonly code?: unknown; readonly constraint_name?: unknown; readonly table_name?: unknown };
  const fromDatabase = of.severity !== undefined;
  const [code, constraint, table, stack] = [text(of.code), text(of.constraint_name), text(of.table_name), frames(cause.stack)];
  return {
    type: cause.name,
    message: fromDatabase ? 'the database refused' : cause.message,
    ...(code ? { code } : {}),
    ...(constraint ? { constraint } : {}),
    ...(table ? { table } : {}),
    ...(stack ? { stack } : {}),
  };
}
