import 'server-only';
import { z } from 'zod';
import { addSeconds } from '../core';
import { claimDispatch, listDispatchLines, noteDispatchFailure, recordSupplierAnswer, type DispatchLine, type DispatchRow } from '../db/dispatch';
import type { Sql } from '../db/client';
import type { Clock } from '../lib/clock';

export interface DispatchDeps {
  readonly sql: Sql;
  readonly clock: Clock;
  readonly supplierUrl: string;
  /** How long an answer may take, ms. */
  readonly timeoutMs: number;
}

const answerShape = z.object({
  reference: z.string().min(1),
  state: z.enum(['acknowledged', 'backordered']),
  dueOn: z.iso.date(),
});

/** Seconds until the next try: 2, 4, 8 … at most five minutes. */
export const retrySeconds = (attempts: number): number => Math.min(300, 2 ** (attempts + 1));

/** A line as the supplier reads it: figures to make, or raw data to work them out from; never both. */
const lineOf = (l: DispatchLine) =>
  l.mode === 'raw'
    ? { eye: l.eye, mode: l.mode, packs: l.packs, familyCode: l.raw.familyCode, baseCurve: l.raw.baseCurveMm, diameter: l.raw.diameterMm, raw: l.raw }
    : {
        eye: l.eye,
        mode: l.mode,
        packs: l.packs,
        familyCode: l.familyCode,
        sphere: l.sphereD,
        cylinder: l.cylinderD,
        axis: l.axisDeg,
        add: l.addBand,
        baseCurve: l.baseCurveMm,
        diameter: l.diameterMm,
      };

type Answer =
  | { readonly kind: 'answer'; readonly body: z.infer<typeof answerShape> }
  | { readonly kind: 'refused' }
  | { readonly kind: 'silent'; readonly problem: string };

async function ask(deps: DispatchDeps, row: DispatchRow): Promise<Answer> {
  const lines = await listDispatchLines(deps.sql, row.practiceId, row.orderId);
  try {
    const response = await fetch(new URL('/orders', deps.supplierUrl), {
      method: 'POST',
      // The order's own identity is the key: however often it is sent, the supplier takes it once.
      headers: { 'content-type': 'application/json', 'idempotency-key': row.orderId },
      body: JSON.stringify({
        number: row.number,
        lines: lines.map(lineOf),
      }),
      signal: AbortSignal.timeout(deps.timeoutMs),
    });
    if (response.status === 422 || response.status === 400) return { kind: 'refused' };
    if (!response.ok) return { kind: 'silent', problem: `status ${response.status}` };
    const read = answerShape.safeParse(await response.json());
    return read.success ? { kind: 'answer', body: read.data } : { kind: 'silent', problem: 'answer not understood' };
  } catch (cause) {
    return { kind: 'silent', problem: cause instanceof Error && cause.name === 'TimeoutError' ? 'no answer in time' : 'not reached' };
  }
}

/**
 * Sends one order that is due. The claim is committed before anything leaves, the answer after: a crash in between
 * only means that the same order, under the same key, is sent again.
 * @returns false when none was due
 */
export async function dispatchOne(deps: DispatchDeps): Promise<boolean> {
  const now = await deps.clock.now();
  const row = await deps.sql.begin((tx) => claimDispatch(tx, now, (attempts) => addSeconds(now, retrySeconds(attempts))));
  if (!row) return false;
  const answer = await ask(deps, row);
  const at = await deps.clock.now();
  const base = { id: crypto.randomUUID(), practiceId: row.practiceId, orderId: row.orderId, at };
  await deps.sql.begin(async (tx) => {
    switch (answer.kind) {
      case 'answer':
        await recordSupplierAnswer(tx, { ...base, state: answer.body.state, supplierReference: answer.body.reference, dueOn: answer.body.dueOn, detail: {} });
        break;
      case 'refused':
        await recordSupplierAnswer(tx, { ...base, state: 'refused', supplierReference: null, dueOn: null, detail: {} });
        break;
      case 'silent':
        await noteDispatchFailure(tx, { ...base, problem: answer.problem });
        break;
    }
  });
  return true;
}
