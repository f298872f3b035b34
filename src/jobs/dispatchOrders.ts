import 'server-only';
import { z } from 'zod';
import { answerDoubt, REFERENCE_MAX, type AnswerDoubt } from '../core';
import {
  claimDispatch,
  isReferenceUsed,
  listDispatchLines,
  noteDispatchFailure,
  recordSupplierAnswer,
  type DispatchLine,
  type DispatchRow,
} from '../db/dispatch';
import type { Sql } from '../db/client';
import type { Clock } from '../lib/clock';
import type { supplierOrder } from '../schema/supplierMessage';
import { deliverOne, type Delivered } from './deliver';
import { supplierAddress } from './supplierAddress';

export interface DispatchDeps {
  readonly sql: Sql;
  readonly clock: Clock;
  readonly supplierUrl: string;
  /** How long an answer may take, ms. */
  readonly timeoutMs: number;
}

const answerShape = z.object({
  order: z.number().int(),
  reference: z
    .string()
    .min(1)
    .max(REFERENCE_MAX)
    .regex(/^[\x20-\x7e]+$/),
  state: z.enum(['acknowledged', 'backordered']),
  dueOn: z.iso.date(),
});
/** Most of an answer that is read, and of one not understood that is kept, characters. */
const ANSWER_MAX = 16_384;
const KEPT_MAX = 400;

/** A line as the supplier reads it: figures to make, or raw data to work them out from; never both. */
const lineOf = (l: DispatchLine) =>
  l.mode === 'raw'
    ? { eye: l.eye, mode: l.mode, packs: l.packs, familyCode: l.raw.familyCode, baseCurve: l.raw.baseCurveMm, diameter: l.raw.diameterMm, raw: { ...l.raw } }
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
const doubtful = (doubt: AnswerDoubt, said: string): Delivered<Answer> => ({
  kind: 'doubtful',
  doubt,
  said: said.replace(/[^\x20-\x7e]/g, ' ').slice(0, KEPT_MAX),
});

/** Reads an answer to its end, or to the most that is read; null when there is more. */
async function textOf(response: Response): Promise<string | null> {
  if (Number(response.headers.get('content-length') ?? '0') > ANSWER_MAX) return null;
  const decoder = new TextDecoder();
  let text = '';
  for await (const chunk of response.body ?? []) {
    text += decoder.decode(chunk, { stream: true });
    if (text.length > ANSWER_MAX) return null;
  }
  return text;
}

/** What was answered, if it is an answer to this order. */
async function read(deps: DispatchDeps, row: DispatchRow, response: Response): Promise<Delivered<Answer>> {
  const text = await textOf(response);
  if (text === null) return doubtful('tooLong', '');
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch {
    return doubtful('notUnderstood', text);
  }
  const answer = answerShape.safeParse(body);
  if (!answer.success) return doubtful('notUnderstood', text);
  const used = await isReferenceUsed(deps.sql, row.practiceId, row.orderId, answer.data.reference);
  const doubt = answerDoubt(answer.data, row, used);
  return doubt === null ? { kind: 'answer', answer: answer.data } : doubtful(doubt, text);
}

async function ask(deps: DispatchDeps, row: DispatchRow): Promise<Delivered<Answer>> {
  const lines = await listDispatchLines(deps.sql, row.practiceId, row.orderId);
  try {
    const response = await fetch(supplierAddress(deps.supplierUrl, row.endpoint, 'orders'), {
      method: 'POST',
      // The order's own identity is the key: however often it is sent, the supplier takes it once.
      headers: { 'content-type': 'application/json', 'idempotency-key': row.orderId },
      body: JSON.stringify({
        version: 1,
        number: row.number,
        kind: row.kind,
        deliverTo: row.deliverTo,
        deliveryAddress: row.deliveryAddress,
        lines: lines.map(lineOf),
      } satisfies z.input<typeof supplierOrder>),
      // A prescription goes to the address that the practice named, and to no other.
      redirect: 'manual',
      signal: AbortSignal.timeout(deps.timeoutMs),
    });
    if (response.status >= 300 && response.status < 400) return doubtful('redirected', response.headers.get('location') ?? '');
    if (response.status === 422 || response.status === 400) return { kind: 'refused' };
    if (!response.ok) return { kind: 'silent', problem: `status ${response.status}` };
    return await read(deps, row, response);
  } catch (cause) {
    return { kind: 'silent', problem: cause instanceof Error && cause.name === 'TimeoutError' ? 'timeout' : 'unreached' };
  }
}

/** Sends one order that is due, under the order's own identity. @returns false when none was due */
export const dispatchOne = (deps: DispatchDeps): Promise<boolean> =>
  deliverOne<DispatchRow, Answer>(deps, {
    claim: claimDispatch,
    bring: (row) => ask(deps, row),
    store: async (tx, { practiceId, orderId }, came, at) => {
      const base = { id: crypto.randomUUID(), practiceId, orderId, at };
      if (came.kind === 'silent') await noteDispatchFailure(tx, { ...base, state: 'sendFailed', detail: { problem: came.problem } });
      else if (came.kind === 'doubtful') await noteDispatchFailure(tx, { ...base, state: 'doubtful', detail: { problem: came.doubt, said: came.said } });
      else {
        const { state, reference, dueOn } = came.kind === 'answer' ? came.answer : { state: 'refused' as const, reference: null, dueOn: null };
        await recordSupplierAnswer(tx, { ...base, state, supplierReference: reference, dueOn, detail: {} });
      }
    },
  });
