import 'server-only';
import type { z } from 'zod';
import { DEFAULT_SETTINGS, dayIn, may, type IsoDate, type IsoInstant, type PracticeSettings, type Right, type Role } from '../core';
import type { Sql, Tx } from '../db/client';
import { findPractice, findSettings, insertAudit, type PracticeRow } from '../db/practices';
import type { Clock } from '../lib/clock';
import { err, type Problem, type Result } from '../lib/outcome';
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
  readonly clock: Clock;
  readonly mode: 'production' | 'demo' | 'test';
}

/** What a use case works with: one transaction, one moment, one practice. */
export interface Context {
  readonly tx: Tx;
  readonly now: IsoInstant;
  /** The practice's calendar day. */
  readonly today: IsoDate;
  readonly caller: Caller;
  readonly practice: PracticeRow;
  readonly settings: PracticeSettings;
  readonly mode: Deps['mode'];
  /** For what must stay when the transaction is undone: the note of a wrong password. */
  readonly deps: Deps;
  readonly newId: () => string;
}

export interface Audited {
  readonly subjectKind: string;
  readonly subjectId: string;
}

/** A use case: authorise, check the shape, run in one transaction, audit. */
export interface Service<Shape extends z.ZodType, Output> {
  readonly name: string;
  readonly right: Right;
  readonly input: Shape;
  /** False for what touches no record: autosaved typing, lights, a sign of life. */
  readonly audited?: false;
  /** What the deed was about, for the audit; null for lists. */
  readonly about: (input: z.output<Shape>, output: Output) => Audited | null;
  readonly run: (context: Context, input: z.output<Shape>) => Promise<Result<Output>>;
}

export const defineService = <Shape extends z.ZodType, Output>(service: Service<Shape, Output>): Service<Shape, Output> => service;

/** Thrown inside a transaction to undo it and hand an expected failure out. */
class Rollback extends Error {
  constructor(readonly problem: Problem) {
    super('rolled back');
  }
}

/**
 * Does a use case for somebody. An expected failure leaves nothing behind; a bug or an outage throws.
 * @param raw untrusted input
 */
export async function perform<Shape extends z.ZodType, Output>(
  service: Service<Shape, Output>,
  deps: Deps,
  caller: Caller,
  raw: unknown,
): Promise<Result<Output>> {
  if (!may(caller.roles, service.right)) return err({ kind: 'forbidden', why: service.right });
  const read = service.input.safeParse(raw);
  if (!read.success) return err(toProblem(read.error));
  const now = await deps.clock.now();
  try {
    return await deps.sql.begin(async (tx): Promise<Result<Output>> => {
      const practice = must(await findPractice(tx, caller.practiceId), 'practice');
      const context: Context = {
        tx,
        now,
        today: dayIn(now, practice.timeZone),
        caller,
        practice,
        settings: { ...DEFAULT_SETTINGS, ...(await findSettings(tx, practice.id)) },
        mode: deps.mode,
        deps,
        newId: () => crypto.randomUUID(),
      };
      const result = await service.run(context, read.data);
      if (!result.ok) throw new Rollback(result.error);
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
