import 'server-only';
import type { z } from 'zod';
import { DEFAULT_SETTINGS, dayIn, may, type IsoDate, type IsoInstant, type PracticeSettings, type Right, type Role } from '../core';
import type { Sql, Tx } from '../db/client';
import { findPractice, findSettings, insertAudit, type PracticeRow } from '../db/practices';
import { holdRequest, insertRequestDone } from '../db/requests';
import type { Clock } from '../lib/clock';
import { err, ok, type Problem, type Result } from '../lib/outcome';
import { must } from '../lib/assert';
import { toProblem } from '../schema/problems';

/** Who asks. */
export interface Caller {
  readonly practiceId: string;
  readonly personId: string;
  readonly name: string;
  readonly title: string;
  readonly account: string;
  readonly roles: readonly Role[];
}

export interface Deps {
  readonly sql: Sql;
  /** A small pool of its own for what is counted beside the use cases: tries of passwords. */
  readonly side: Sql;
  readonly clock: Clock;
  readonly mode: 'production' | 'demo' | 'test';
}

/**
 * What a use case works with: one transaction, one moment, one practice. No pool is in reach here: a use case that waited
 * for a second connection while holding its first would stop the whole server as soon as enough of them did.
 */
export interface Context {
  readonly tx: Tx;
  readonly now: IsoInstant;
  /** The practice's calendar day. */
  readonly today: IsoDate;
  readonly caller: Caller;
  readonly practice: PracticeRow;
  readonly settings: PracticeSettings;
  readonly mode: Deps['mode'];
  readonly newId: () => string;
}

/** What is in reach before the transaction: pools, and no record held. */
export interface Before {
  readonly deps: Deps;
  readonly caller: Caller;
  readonly now: IsoInstant;
}

export interface Audited {
  readonly subjectKind: string;
  readonly subjectId: string;
}

/** A use case: authorise, check the shape, run in one transaction, audit. */
export interface Service<Shape extends z.ZodType, Output, Prepared = undefined> {
  readonly name: string;
  readonly right: Right;
  readonly input: Shape;
  /** False for what touches no record: autosaved typing, lights, a sign of life. */
  readonly audited?: false;
  /** What the deed was about, for the audit; null for lists. */
  readonly about: (input: z.output<Shape>, output: Output) => Audited | null;
  /** What takes time or another connection and must not hold a record meanwhile: a password checked, a picture decoded. */
  readonly prepare?: (before: Before, input: z.output<Shape>) => Promise<Result<Prepared>>;
  readonly run: (context: Context, input: z.output<Shape>, prepared: Prepared) => Promise<Result<Output>>;
}

export const defineService = <Shape extends z.ZodType, Output, Prepared = undefined>(
  service: Service<Shape, Output, Prepared>,
): Service<Shape, Output, Prepared> => service;

/** Names of what only reads. Everything else is done once for one press. */
export const isQuery = (name: string): boolean => /^(read|search|export)[A-Z]/.test(name);

/** Thrown inside a transaction to undo it and hand an expected failure out. */
class Rollback extends Error {
  constructor(readonly problem: Problem) {
    super('rolled back');
  }
}

/**
 * Does a use case for somebody. An expected failure leaves nothing behind; a bug or an outage throws.
 * @param raw untrusted input
 * @param requestKey the press's own: sent again, it is not done again but answered as before
 */
export async function perform<Shape extends z.ZodType, Output, Prepared>(
  service: Service<Shape, Output, Prepared>,
  deps: Deps,
  caller: Caller,
  raw: unknown,
  requestKey: string | null = null,
): Promise<Result<Output>> {
  if (!may(caller.roles, service.right)) return err({ kind: 'forbidden', why: service.right });
  const read = service.input.safeParse(raw);
  if (!read.success) return err(toProblem(read.error));
  const now = await deps.clock.now();
  const prepared = service.prepare ? await service.prepare({ deps, caller, now }, read.data) : ok(undefined as Prepared);
  if (!prepared.ok) return prepared;
  const once = service.audited === false || isQuery(service.name) ? null : requestKey;
  try {
    return await deps.sql.begin(async (tx): Promise<Result<Output>> => {
      const practice = must(await findPractice(tx, caller.practiceId), 'practice');
      if (once !== null) {
        const done = await holdRequest(tx, practice.id, once);
        if (done && (done.action !== service.name || done.personId !== caller.personId)) throw new Rollback({ kind: 'conflict', what: 'request', differs: [] });
        if (done) return ok(done.output as Output);
      }
      const context: Context = {
        tx,
        now,
        today: dayIn(now, practice.timeZone),
        caller,
        practice,
        settings: { ...DEFAULT_SETTINGS, ...(await findSettings(tx, practice.id)) },
        mode: deps.mode,
        newId: () => crypto.randomUUID(),
      };
      const result = await service.run(context, read.data, prepared.value);
      if (!result.ok) throw new Rollback(result.error);
      if (once !== null)
        await insertRequestDone(tx, {
          practiceId: practice.id,
          requestKey: once,
          personId: caller.personId,
          action: service.name,
          output: result.value,
          at: now,
        });
      if (service.audited === false) return result;
      const about = service.about(read.data, result.value);
      await insertAudit(tx, {
        id: context.newId(),
        practiceId: caller.practiceId,
        at: now,
        personId: caller.personId,
        action: service.name,
        subjectKind: about?.subjectKind ?? null,
        subjectId: about?.subjectId ?? null,
      });
      return result;
    });
  } catch (cause) {
    if (cause instanceof Rollback) return err(cause.problem);
    throw cause;
  }
}
