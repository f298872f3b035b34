/** Throws when a thing the code relies on is not so: a bug, never the user's mistake. */
export function assert(condition: unknown, what: string): asserts condition {
  if (!condition) throw new Error(`Assertion failed: ${what}`);
}

/** Marks a branch the types rule out; throws if data got there all the same. */
export function unreachable(value: never): never {
  throw new Error(`Unreachable: ${JSON.stringify(value)}`);
}

/** The value, or an error naming what was missing. For look-ups that cannot fail unless there is a bug. */
export function must<T>(value: T | null | undefined, what: string): T {
  assert(value !== null && value !== undefined, `${what} is missing`);
  return value;
}
