/** What pages that lie open are told of: a visit, the lens library, an order of a visit, the diary with its tasks, or what a lesson shows. */
export const NEWS = ['visit', 'library', 'order', 'diary', 'lesson'] as const;

/** Something changed: which thing, and to which version; never what was recorded. */
export interface News {
  readonly what: (typeof NEWS)[number];
  /** The visit, for `visit` and `order`; the practice, for `library` and `diary`. */
  readonly id: string;
  /** 0 where the thing has none. */
  readonly version: number;
}

/**
 * Reads a piece of news; null for what is none.
 * @example readNews('{"what":"visit","id":"v","version":3}')?.version → 3
 */
export function readNews(text: string): News | null {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch {
    return null;
  }
  if (typeof found !== 'object' || found === null) return null;
  const { what, id, version } = found as Readonly<Record<string, unknown>>;
  const known = NEWS.find((n) => n === what);
  return known !== undefined && typeof id === 'string' && typeof version === 'number' ? { what: known, id, version } : null;
}
