import 'server-only';
import { claimCancel, noteCancelFailure, recordCancelDone, type CancelRow } from '../db/cancelDispatch';
import { insertOrderEvent } from '../db/supplierMessage';
import { deliverOne, type Delivered } from './deliver';
import type { DispatchDeps } from './dispatchOrders';
import { supplierAddress } from './supplierAddress';

async function ask({ supplierUrl, timeoutMs }: DispatchDeps, row: CancelRow): Promise<Delivered<null>> {
  try {
    const response = await fetch(supplierAddress(supplierUrl, row.endpoint, 'cancellations'), {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': row.orderId },
      body: JSON.stringify({ version: 1, number: row.number }),
      redirect: 'manual',
      signal: AbortSignal.timeout(timeoutMs),
    });
    // It is on the road, or was never known there.
    if (response.status === 409 || response.status === 404) return { kind: 'refused' };
    return response.ok ? { kind: 'answer', answer: null } : { kind: 'silent', problem: `status ${response.status}` };
  } catch (cause) {
    return { kind: 'silent', problem: cause instanceof Error && cause.name === 'TimeoutError' ? 'timeout' : 'unreached' };
  }
}

/** Brings one cancellation that is due to its supplier. @returns false when none was due */
export const cancelOne = (deps: DispatchDeps): Promise<boolean> =>
  deliverOne<CancelRow, null>(deps, {
    claim: claimCancel,
    bring: (row) => ask(deps, row),
    store: async (tx, { practiceId, orderId }, came, at) => {
      if (came.kind === 'silent' || came.kind === 'doubtful') return noteCancelFailure(tx, orderId, came.kind === 'silent' ? came.problem : came.doubt);
      const cancelled = came.kind === 'answer';
      await insertOrderEvent(tx, { id: crypto.randomUUID(), practiceId, orderId, at, state: cancelled ? 'cancelled' : 'cancelRefused' });
      await recordCancelDone(tx, practiceId, orderId, at, cancelled);
    },
  });
