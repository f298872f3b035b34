import 'server-only';
import type { Clock } from '../lib/clock';
import type { Sql } from '../db/client';
import { claimRequestDispatch, listCorrected, noteRequestDispatchFailure, recordRequestDispatchDone, type RequestDispatchRow } from '../db/requestDispatch';
import { deliverOne, type Delivered } from './deliver';

export interface SellerDeps {
  readonly sql: Sql;
  readonly clock: Clock;
  readonly sellerUrl: string;
  /** How long an answer may take, ms. */
  readonly timeoutMs: number;
}

async function bring({ sql, sellerUrl, timeoutMs }: SellerDeps, row: RequestDispatchRow): Promise<Delivered<null>> {
  const lenses = await listCorrected(sql, row.practiceId, row.answerId);
  try {
    const response = await fetch(new URL('/answers', sellerUrl), {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': row.answerId },
      body: JSON.stringify({ request: row.outsideRef, answer: row.answer, reason: row.reason, corrected: lenses }),
      redirect: 'manual',
      signal: AbortSignal.timeout(timeoutMs),
    });
    if (response.status === 400 || response.status === 422) return { kind: 'refused' };
    return response.ok ? { kind: 'answer', answer: null } : { kind: 'silent', problem: `status ${response.status}` };
  } catch (cause) {
    return { kind: 'silent', problem: cause instanceof Error && cause.name === 'TimeoutError' ? 'timeout' : 'unreached' };
  }
}

/** Brings one answer that a person gave to the system that asked, under the answer's own identity. @returns false when none was due */
export const answerOne = (deps: SellerDeps): Promise<boolean> =>
  deliverOne<RequestDispatchRow, null>(deps, {
    claim: claimRequestDispatch,
    bring: (row) => bring(deps, row),
    store: async (tx, { answerId }, came, at) => {
      if (came.kind === 'silent') await noteRequestDispatchFailure(tx, answerId, came.problem);
      else await recordRequestDispatchDone(tx, { answerId, outcome: came.kind === 'answer' ? 'taken' : 'refused', at });
    },
  });
