import 'server-only';
import { DEFAULT_SETTINGS, dayIn } from '../core';
import { findPractice } from '../db/practice';
import { listPolled, setSupplierCursor } from '../db/supplier';
import { MESSAGE_MAX_BYTES, supplierNews } from '../schema/supplierMessage';
import { log } from '../server/log';
import { writtenAt } from '../services/outbox/write';
import { takeMessage } from '../services/supplier/takeMessage';
import type { DispatchDeps } from './dispatchOrders';
import { supplierAddress } from './supplierAddress';

/** Most of an answer that is read, characters: two hundred messages of the largest that is sent in earnest. */
const MOST = 16 * MESSAGE_MAX_BYTES;

async function newsOf(deps: DispatchDeps, endpoint: string, cursor: string | null) {
  try {
    const address = supplierAddress(deps.supplierUrl, endpoint, 'messages');
    if (cursor !== null) address.searchParams.set('after', cursor);
    const response = await fetch(address, { redirect: 'manual', signal: AbortSignal.timeout(deps.timeoutMs) });
    if (!response.ok || Number(response.headers.get('content-length') ?? '0') > MOST) return null;
    const read = supplierNews.safeParse(JSON.parse(await response.text()));
    return read.success ? read.data : null;
  } catch {
    // Not reached, or not understood: asked again.
    return null;
  }
}

/**
 * Asks each supplier what became of its orders, and takes what is new. The place to ask from next is kept with what was taken: a
 * crash in between means that the same is told again, and known. One that does not answer does not hold up the others.
 * @returns messages that were new
 */
export async function askSuppliers(deps: DispatchDeps): Promise<number> {
  let taken = 0;
  for (const { id, practiceId, endpoint, cursor } of await listPolled(deps.sql)) {
    const news = await newsOf(deps, endpoint, cursor);
    const practice = await findPractice(deps.sql, practiceId);
    if (!news || !practice || (news.messages.length === 0 && news.cursor === cursor)) continue;
    const at = await deps.clock.now();
    const { dueAt } = writtenAt(at, null, { ...DEFAULT_SETTINGS, ...practice.settings }, practice.timeZone);
    const from = { practiceId, supplierId: id, cameBy: 'poll', at, today: dayIn(at, practice.timeZone), dueAt } as const;
    taken += await deps.sql.begin(async (tx) => {
      let count = 0;
      for (const message of news.messages) {
        const came = await takeMessage(tx, from, message, () => crypto.randomUUID());
        if (came.kind === 'notUnderstood') log.warn({ supplier: id, path: came.path }, 'a supplier’s message could not be read');
        if (came.kind === 'taken') count += 1;
      }
      await setSupplierCursor(tx, practiceId, id, news.cursor);
      return count;
    });
  }
  return taken;
}
