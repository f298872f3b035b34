import 'server-only';
import { err, notFound, ok, type Result } from '../lib/outcome';

/** What was found and is held, if it still is as the page knew it; a conflict when somebody changed it since. @param what its noun */
export function asKnown<Found extends { readonly version: number }>(found: Found | null, version: number, what: string): Result<Found> {
  if (!found) return notFound(what);
  return found.version === version ? ok(found) : err({ kind: 'conflict', what, differs: [] });
}
