import 'server-only';
import { addSeconds, type IsoInstant } from '../core';
import type { Sql, Tx } from '../db/client';
import type { Clock } from '../lib/clock';

/** What somebody outside answered: done with, refused for good, nothing yet, or something that cannot be believed. */
export type Delivered<Answer> =
  | { readonly kind: 'answer'; readonly answer: Answer }
  | { readonly kind: 'refused' }
  | { readonly kind: 'silent'; readonly problem: string }
  | { readonly kind: 'doubtful'; readonly doubt: string; readonly said: string };

/** Something that waits to be brought to somebody outside. */
export interface Delivery<Row, Answer> {
  /** Claims one that is due, and sets its next try. */
  readonly claim: (tx: Tx, now: IsoInstant, retryAt: (attempts: number) => IsoInstant) => Promise<Row | null>;
  /** Brings it, outside any transaction, under an identity of its own: however often it is brought, it is taken once. */
  readonly bring: (row: Row) => Promise<Delivered<Answer>>;
  /** Stores what came of it, once however often it comes. */
  readonly store: (tx: Tx, row: Row, came: Delivered<Answer>, at: IsoInstant) => Promise<void>;
}

/** Seconds until the next try: 2, 4, 8 … at most five minutes. */
export const retrySeconds = (attempts: number): number => Math.min(300, 2 ** (attempts + 1));

/**
 * Brings one thing that is due. The claim is committed before anything leaves, what came of it after: a crash anywhere only
 * means that the same thing is brought again under the same identity.
 * @returns false when none was due
 */
export async function deliverOne<Row, Answer>(deps: { readonly sql: Sql; readonly clock: Clock }, delivery: Delivery<Row, Answer>): Promise<boolean> {
  const now = await deps.clock.now();
  const claimed = await deps.sql.begin(async (tx) => ({ row: await delivery.claim(tx, now, (attempts) => addSeconds(now, retrySeconds(attempts))) }));
  const row = claimed.row as Row | null;
  if (row === null) return false;
  const came = await delivery.bring(row);
  const at = await deps.clock.now();
  await deps.sql.begin((tx) => delivery.store(tx, row, came, at));
  return true;
}
