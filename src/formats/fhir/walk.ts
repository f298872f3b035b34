import type { LeftAside } from '../../core';

/** JSON of whoever: nothing is known of its shape. */
export type Json = unknown;
export const isObject = (value: Json): value is Readonly<Record<string, Json>> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A file nested deeper than this is no prescription. */
const DEEPEST = 40;

/** Nested deeper than any prescription? Looked at without recursion: a hostile file must not end the process. */
export function isTooDeep(value: Json): boolean {
  let level: Json[] = [value];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) return true;
    level = level.flatMap((v) => (Array.isArray(v) ? (v as Json[]) : isObject(v) ? Object.values(v) : []));
  }
  return false;
}

const MOST_CHARACTERS = 200;
/** Things that are left aside and listed, at most. */
const MOST_LEFT = 200;

/**
 * Reads values out of a JSON tree and remembers which: what nobody asked for is left aside, with where it stands.
 */
export class Walker {
  private readonly taken = new Set<string>();

  /** The value at a path, marked as understood. */
  take(from: Json, path: string, key: string): Json {
    if (!isObject(from)) return undefined;
    this.taken.add(`${path}.${key}`);
    return from[key];
  }
  /** A text; anything else stays, and is left aside. */
  text(from: Json, path: string, key: string): string | null {
    if (!isObject(from) || typeof from[key] !== 'string') return null;
    this.taken.add(`${path}.${key}`);
    return from[key];
  }
  number(from: Json, path: string, key: string): number | null {
    if (!isObject(from) || typeof from[key] !== 'number' || !Number.isFinite(from[key])) return null;
    this.taken.add(`${path}.${key}`);
    return from[key];
  }
  /** The items of a list, with their paths. */
  list(from: Json, path: string, key: string): readonly { readonly item: Json; readonly path: string }[] {
    if (!isObject(from) || !Array.isArray(from[key])) return [];
    return (from[key] as Json[]).map((item, index) => ({ item, path: `${path}.${key}[${index}]` }));
  }
  /** Marks a whole branch as understood. */
  all(path: string): void {
    this.taken.add(path);
  }
  /** What is left of a tree: every leaf that nobody took. */
  left(root: Json, path: string): LeftAside[] {
    const out: LeftAside[] = [];
    const visit = (value: Json, at: string): void => {
      if (this.taken.has(at) || out.length >= MOST_LEFT) return;
      if (Array.isArray(value)) (value as Json[]).forEach((item, index) => visit(item, `${at}[${index}]`));
      else if (isObject(value)) for (const [key, item] of Object.entries(value)) visit(item, `${at}.${key}`);
      else out.push({ path: at, value: String(value).slice(0, MOST_CHARACTERS) });
    };
    visit(root, path);
    return out;
  }
}
