import 'server-only';
import { findOnlyPractice } from '../db/practice';
import { log } from '../server/log';
import { takeSent } from '../services/request/arrive';
import { sentRequests } from '../schema/sentRequest';
import type { SellerDeps } from './answerSellers';

/** Most of what a seller's system says that is read, bytes. */
const MOST = 512 * 1024;

/**
 * Asks a seller's system what it wants confirmed, and keeps what is new: each once, under the name that the seller gave it. What
 * cannot be read is passed over and said in the log.
 * @param after how many of its requests were read before
 * @returns how many it has now; `after` where it did not answer
 */
export async function takeRequests(deps: SellerDeps, after: number): Promise<number> {
  const practice = await findOnlyPractice(deps.sql);
  if (!practice) return after;
  let text: string;
  try {
    const response = await fetch(new URL(`/requests?after=${after}`, deps.sellerUrl), { redirect: 'manual', signal: AbortSignal.timeout(deps.timeoutMs) });
    if (!response.ok || Number(response.headers.get('content-length') ?? '0') > MOST) return after;
    text = await response.text();
  } catch {
    return after;
  }
  const read = sentRequests(text);
  if (read === null) return after;
  for (const problem of read.passedOver) log.warn({ problem }, 'a seller’s request could not be read');
  for (const request of read.requests) await deps.sql.begin(async (tx) => takeSent(tx, practice.id, request, await deps.clock.now()));
  // A number that it has not handed out yet would hide what comes.
  return Math.min(read.next, after + read.requests.length + read.passedOver.length);
}
