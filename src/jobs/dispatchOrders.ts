import 'server-only';
import { z } from 'zod';
import { claimDispatch, listDispatchLines, noteDispatchFailure, recordSupplierAnswer, type DispatchLine, type DispatchRow } from '../db/dispatch';
import type { Sql } from '../db/client';
import type { Clock } from '../lib/clock';
import { deliverOne, type Delivered } from './deliver';

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

type Answer = z.infer<typeof answerShape>;

async function ask(deps: DispatchDeps, row: DispatchRow): Promise<Delivered<Answer>> {
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
    return read.success ? { kind: 'answer', answer: read.data } : { kind: 'silent', problem: 'answer not understood' };
  } catch (cause) {
    return { kind: 'silent', problem: cause instanceof Error && cause.name === 'TimeoutError' ? 'no answer in time' : 'not reached' };
  }
}

/** Sends one order that is due, under the order's own identity. @returns false when none was due */
export const dispatchOne = (deps: DispatchDeps): Promise<boolean> =>
  deliverOne<DispatchRow, Answer>(deps, {
    claim: claimDispatch,
    bring: (row) => ask(deps, row),
    store: async (tx, { practiceId, orderId }, came, at) => {
      const base = { id: crypto.randomUUID(), practiceId, orderId, at };
      if (came.kind === 'silent') await noteDispatchFailure(tx, { ...base, problem: came.problem });
      else {
        const { state, reference, dueOn } = came.kind === 'answer' ? came.answer : { state: 'refused' as const, reference: null, dueOn: null };
        await recordSupplierAnswer(tx, { ...base, state, supplierReference: reference, dueOn, detail: {} });
      }
    },
  });
