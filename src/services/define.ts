import 'server-only';
import type { z } from 'zod';
import type { IsoDate, IsoInstant, LinkPurpose, PracticeSettings, Right, Role, SliceName, VisitRow } from '../core';
import type { Sql, Tx } from '../db/client';
import type { NewFact } from '../db/fact';
import type { DraftDone, Hung } from '../db/pending';
import type { PracticeWithSettings } from '../db/practice';
import type { Clock } from '../lib/clock';
import type { Result } from '../lib/outcome';
import type { Named } from './visit/lenses';
import type { VisitReading } from './visit/reading';

/** One of the staff, signed in. */
export interface StaffCaller {
  readonly kind: 'staff';
  readonly practiceId: string;
  readonly personId: string;
  readonly name: string;
  readonly title: string;
  readonly account: string;
  readonly roles: readonly Role[];
  readonly registerNumber: string | null;
}

/** A wearer who holds a link: it opens one lesson, or one paper. */
export interface LinkCaller {
  readonly kind: 'link';
  readonly practiceId: string;
  readonly linkId: string;
  readonly wearerId: string;
  readonly purpose: LinkPurpose;
  /** The lesson, or the visit of which the paper is. */
  readonly subjectId: string;
}
/** Who asks. */
export type Caller = StaffCaller | LinkCaller;

export interface Deps {
  readonly sql: Sql;
  /** A small pool of its own for what is counted beside the use cases: tries of passwords. */
  readonly side: Sql;
  readonly clock: Clock;
  readonly mode: 'production' | 'demo' | 'test';
  /** A slit-lamp camera that takes pictures when it is asked to; none where left out. */
  readonly cameraUrl?: string | null;
}

/**
 * What a use case works with: one transaction, one moment, one practice. No pool is in reach here: a use case that waited
 * for a second connection while holding its first would stop the whole server as soon as enough of them did.
 */
export interface Context<By extends Caller = StaffCaller> {
  readonly tx: Tx;
  readonly now: IsoInstant;
  /** The practice's calendar day. */
  readonly today: IsoDate;
  readonly caller: By;
  readonly practice: PracticeWithSettings;
  readonly settings: PracticeSettings;
  readonly mode: Deps['mode'];
  /** Can a slit-lamp camera be asked for pictures? */
  readonly camera: boolean;
  readonly newId: () => string;
  /** What is to be written down, sent together by `flush`. */
  readonly pending: { readonly facts: NewFact[]; readonly hung: Hung[]; readonly drafts: DraftDone[] };
  readonly flush: () => Promise<void>;
  /** What was read of visits and lenses in this transaction. */
  readonly readings: Map<string, VisitReading>;
  readonly named: Map<string, Named>;
  /** Wearers of whose lenses something changed: how far they reach is reckoned anew when the command is done. */
  readonly supplyOf: Set<string>;
  /** The visit that a command changes, and the parts of it that changed: what its answer carries. `behind`: its page was an older one, and is brought up to date. */
  readonly answer: { visit: VisitRow | null; behind: boolean; readonly changed: Set<SliceName> };
}

/** Names the state of the practice's lens library: it changes with what is recorded, and with the day. */
export const libraryTag = (context: Context): string => `${context.practice.libraryVersion}.${context.today}`;

/** What is in reach before the transaction: pools, and no record held. */
export interface Before {
  readonly deps: Deps;
  readonly caller: StaffCaller;
  readonly now: IsoInstant;
}

export interface Audited {
  readonly subjectKind: string;
  readonly subjectId: string;
}

/** A use case, a command or a query: authorise, check the shape, run in one transaction, audit. */
export interface Service<Shape extends z.ZodType, Output, Prepared = undefined> {
  /** A command is done once for one press; a query only reads. */
  readonly kind: 'command' | 'query';
  readonly name: string;
  readonly right: Right;
  /** Wearers' links that open it too; none where left out. Only `defineLinkQuery` and `defineLinkCommand` set it. */
  readonly links?: readonly LinkPurpose[];
  readonly input: Shape;
  /** False for what touches no record: autosaved typing, lights, a sign of life; or whether this time something was read. */
  readonly audited?: false | ((output: Output) => boolean);
  /** What the command was about, for the audit; null for lists. */
  readonly about: (input: z.output<Shape>, output: Output) => Audited | null;
  /** What takes time or another connection and must not hold a record meanwhile: a password checked, a picture decoded. */
  readonly prepare?: (before: Before, input: z.output<Shape>) => Promise<Result<Prepared>>;
  readonly run: (context: Context, input: z.output<Shape>, prepared: Prepared) => Promise<Result<Output>>;
}

/** What authorising needs to know of a use case. */
export type AnyService = Pick<Service<z.ZodType, unknown, unknown>, 'right' | 'links'>;

export const defineCommand = <Shape extends z.ZodType, Output, Prepared = undefined>(
  service: Omit<Service<Shape, Output, Prepared>, 'kind' | 'links'>,
): Service<Shape, Output, Prepared> & { readonly kind: 'command' } => ({ ...service, kind: 'command' });
export const defineQuery = <Shape extends z.ZodType, Output>(
  service: Omit<Service<Shape, Output>, 'kind' | 'links'>,
): Service<Shape, Output> & { readonly kind: 'query' } => ({ ...service, kind: 'query' });

/** A command that a wearer's link may give as well: it is written for whoever asks. */
export const defineLinkCommand = <Shape extends z.ZodType, Output>(
  service: Omit<Service<Shape, Output>, 'kind' | 'links' | 'run' | 'prepare'> & {
    readonly links: readonly LinkPurpose[];
    readonly run: (context: Context<Caller>, input: z.output<Shape>) => Promise<Result<Output>>;
  },
): Service<Shape, Output> & { readonly kind: 'command' } => ({ ...service, kind: 'command' });

/** A query that a wearer's link opens as well: it is written for whoever asks. */
export const defineLinkQuery = <Shape extends z.ZodType, Output>(
  service: Omit<Service<Shape, Output>, 'kind' | 'links' | 'run'> & {
    readonly links: readonly LinkPurpose[];
    readonly run: (context: Context<Caller>, input: z.output<Shape>) => Promise<Result<Output>>;
  },
): Service<Shape, Output> & { readonly kind: 'query' } => ({ ...service, kind: 'query' });
