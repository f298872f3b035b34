/**
 * The one vocabulary for how things turn out. Expected failures are values: codes with data, never words.
 * Words are made where they are shown. Bugs and outages stay exceptions.
 */

/** Success with a value, or failure with a problem. */
export type Result<T, E = Problem> = Ok<T> | Err<E>;
export interface Ok<T> {
  readonly ok: true;
  readonly value: T;
}
export interface Err<E> {
  readonly ok: false;
  readonly error: E;
}

export const ok = <T>(value: T): Ok<T> => ({ ok: true, value });
export const err = <E>(error: E): Err<E> => ({ ok: false, error });

/** Values that a message needs: plain, so that they cross the wire unchanged. */
export type ProblemData = Readonly<Record<string, string | number>>;

/** One thing wrong with one field. `path` leads from the form's root to the input that shows it. */
export interface FieldProblem {
  readonly path: readonly string[];
  readonly code: string;
  readonly data?: ProblemData;
  /** Texts that would be accepted in place of what was typed, likeliest first. */
  readonly repairs?: readonly string[];
}

/** Why a use case did not happen. */
export type Problem =
  | { readonly kind: 'invalid'; readonly fields: readonly FieldProblem[] }
  | { readonly kind: 'notFound'; readonly what: string }
  | { readonly kind: 'conflict'; readonly what: string; readonly differs: readonly ChangedFact[] }
  | { readonly kind: 'forbidden'; readonly why: string }
  | { readonly kind: 'signedOut'; readonly why: 'none' | 'idle' | 'locked' | 'ended' }
  | { readonly kind: 'throttled'; readonly retryAfterSeconds: number }
  | { readonly kind: 'ruleBroken'; readonly rule: string; readonly data?: ProblemData };

/** What somebody else recorded in the meantime: shown beside what was about to be saved. */
export interface ChangedFact {
  readonly what: string;
  readonly eye: string | null;
  readonly text: string;
  readonly by: string;
  readonly at: string;
}

export const invalid = (path: string | readonly string[], code: string, data?: ProblemData): Err<Problem> =>
  err({
    kind: 'invalid',
    fields: [{ path: typeof path === 'string' ? [path] : path, code, ...(data ? { data } : {}) }],
  });
export const ruleBroken = (rule: string, data?: ProblemData): Err<Problem> => err({ kind: 'ruleBroken', rule, ...(data ? { data } : {}) });
export const notFound = (what: string): Err<Problem> => err({ kind: 'notFound', what });
export const forbidden = (why: string): Err<Problem> => err({ kind: 'forbidden', why });
