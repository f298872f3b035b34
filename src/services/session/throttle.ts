import 'server-only';
import { addSeconds, secondsBetween } from '../../core';
import { noteSuccess, reserveTry } from '../../db/signInTry';
import { err, ok, type Result } from '../../lib/outcome';
import type { Deps } from '../define';

/** Wrong passwords of one account from one place before it has to wait, and for how long they count. */
const MOST_TRIES = 5;
const THROTTLE_SECONDS = 300;

/**
 * Lets a password be tried, counting the try before it is made. Tries are counted by account *and* place, so that nobody can
 * lock somebody else out: a stranger's address, a device on which this person has signed in before, this person's own
 * session and this person's signature each have tries of their own. Counted beside the transaction, on a pool of its own, so
 * that a refusal does not undo the count.
 * @param place where it is tried from
 * @returns a function that clears the count after a success; or how long to wait
 */
export async function tryPassword(deps: Deps, account: string, place: string, now: string): Promise<Result<() => Promise<void>>> {
  const row = (): { id: string; account: string; place: string; at: string } => ({ id: crypto.randomUUID(), account, place, at: now });
  const oldest = await reserveTry(deps.side, row(), MOST_TRIES, addSeconds(now, -THROTTLE_SECONDS));
  if (oldest !== null) return err({ kind: 'throttled', retryAfterSeconds: Math.max(1, THROTTLE_SECONDS - secondsBetween(oldest, now)) });
  return ok(() => noteSuccess(deps.side, row()));
}

/** Places that have tries of their own. */
export const placeOf = {
  address: (address: string): string => address,
  device: (tokenHash: string): string => `device:${tokenHash}`,
  session: (tokenHash: string): string => `session:${tokenHash}`,
  signing: 'signing',
} as const;
