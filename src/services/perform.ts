import 'server-only';
import type { z } from 'zod';
import { DEFAULT_SETTINGS, dayIn, type IsoInstant } from '../core';
import { auditInsert } from '../db/audit';
import type { Tx } from '../db/client';
import { sendPending } from '../db/pending';
import { findPractice, type PracticeWithSettings } from '../db/practice';
import { findRequestDone, requestDoneInsert } from '../db/requestKey';
import { must } from '../lib/assert';
import { err, ok, type Problem, type Result } from '../lib/outcome';
import { toProblem } from '../schema/problems';
import { actorOf, refusalOf } from './authorise';
import { renewRunways } from './runway/renew';
import type { Caller, Context, Deps, Service, StaffCaller } from './define';

/** Thrown inside a transaction to undo it and hand an expected failure out. */
class Rollback extends Error {
  constructor(readonly problem: Problem) {
    super('rolled back');
  }
}

/** What a use case came to, and what else its caller wanted to know in the same transaction. */
export interface Performed<Output, Extra> {
  readonly output: Output;
  readonly extra: Extra | null;
}

export interface PerformOptions<Extra> {
  /** The press's own: sent again, it is not done again but answered as before. */
  readonly requestKey?: string | null;
  /** Asked once the use case is done, of what is then so. */
  readonly extra?: (context: Context) => Promise<Extra>;
}

/** What a use case works with, from its transaction and its practice. A use case that staff alone may ask for is authorised for them, and sees none but them. */
function contextOf(tx: Tx, deps: Deps, caller: Caller, practice: PracticeWithSettings, now: IsoInstant): Context {
  const pending: Context['pending'] = { facts: [], hung: [], drafts: [] };
  return {
    tx,
    now,
    today: dayIn(now, practice.timeZone),
    caller: caller as StaffCaller,
    practice,
    settings: { ...DEFAULT_SETTINGS, ...practice.settings },
    mode: deps.mode,
    camera: typeof deps.cameraUrl === 'string',
    newId: () => crypto.randomUUID(),
    pending,
    flush: () => sendPending(tx, { facts: pending.facts.splice(0), hung: pending.hung.splice(0), drafts: pending.drafts.splice(0) }),
    readings: new Map(),
    named: new Map(),
    supplyOf: new Set(),
    answer: { visit: null, behind: false, changed: new Set() },
  };
}

/** Reckons anew how far lenses reach of which something changed. */
async function renewSupply({ tx, caller, today, practice, settings, supplyOf }: Context): Promise<void> {
  if (supplyOf.size === 0) return;
  await renewRunways(tx, caller.practiceId, [...supplyOf], { today, timeZone: practice.timeZone, marginDays: settings.reorderMarginDays });
}

/** Writes down that it was done: the audit's line and, for a press with a key, what it came to. */
async function record<Shape extends z.ZodType, Output, Prepared>(
  context: Context,
  service: Service<Shape, Output, Prepared>,
  input: z.output<Shape>,
  output: Output,
  requestKey: string | null,
): Promise<void> {
  if (service.audited === false || service.audited?.(output) === false) return;
  const { tx, caller, now } = context;
  const about = service.about(input, output);
  const by = { practiceId: caller.practiceId, ...actorOf(caller), action: service.name, at: now };
  const audit = auditInsert(tx, { ...by, id: context.newId(), subjectKind: about?.subjectKind ?? null, subjectId: about?.subjectId ?? null });
  if (requestKey === null) await audit;
  else await tx`with done as (${requestDoneInsert(tx, { ...by, requestKey, output })} returning 1), line as (${audit} returning 1) select 1`;
}

/**
 * Does a use case for somebody. An expected failure leaves nothing behind; a bug or an outage throws.
 * @param raw untrusted input
 */
export async function performWith<Shape extends z.ZodType, Output, Prepared, Extra>(
  service: Service<Shape, Output, Prepared>,
  deps: Deps,
  caller: Caller,
  raw: unknown,
  options: PerformOptions<Extra> = {},
): Promise<Result<Performed<Output, Extra>>> {
  const refused = refusalOf(service, caller);
  if (refused) {
    // Whoever tries what they may not is on record; what they sent is not.
    const at = await deps.clock.now();
    await auditInsert(deps.sql, {
      id: crypto.randomUUID(),
      practiceId: caller.practiceId,
      ...actorOf(caller),
      at,
      action: service.name,
      detail: { refused: refused.kind },
    });
    return err(refused);
  }
  const read = service.input.safeParse(raw);
  if (!read.success) return err(toProblem(read.error));
  const now = await deps.clock.now();
  const prepared = service.prepare ? await service.prepare({ deps, caller: caller as StaffCaller, now }, read.data) : ok(undefined as Prepared);
  if (!prepared.ok) return prepared;
  const once = service.audited === false || service.kind === 'query' ? null : (options.requestKey ?? null);
  try {
    return await deps.sql.begin(async (tx): Promise<Result<Performed<Output, Extra>>> => {
      const practice = must(await findPractice(tx, caller.practiceId, once), 'practice');
      if (once !== null) {
        const done = await findRequestDone(tx, practice.id, once);
        const by = actorOf(caller);
        if (done && (done.action !== service.name || done.personId !== by.personId || done.linkId !== by.linkId))
          throw new Rollback({ kind: 'conflict', what: 'request', differs: [] });
        if (done) return ok({ output: done.output as Output, extra: null });
      }
      const context = contextOf(tx, deps, caller, practice, now);
      const result = await service.run(context, read.data, prepared.value);
      if (!result.ok) throw new Rollback(result.error);
      await context.flush();
      await renewSupply(context);
      const extra = options.extra ? await options.extra(context) : null;
      await record(context, service, read.data, result.value, once);
      return ok({ output: result.value, extra });
    });
  } catch (cause) {
    if (cause instanceof Rollback) return err(cause.problem);
    throw cause;
  }
}

/** Does a use case for somebody, and asks nothing else. @param requestKey the press's own */
export async function perform<Shape extends z.ZodType, Output, Prepared>(
  service: Service<Shape, Output, Prepared>,
  deps: Deps,
  caller: Caller,
  raw: unknown,
  requestKey: string | null = null,
): Promise<Result<Output>> {
  const done = await performWith(service, deps, caller, raw, { requestKey });
  return done.ok ? ok(done.value.output) : done;
}
