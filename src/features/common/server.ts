import type { Problem, Result } from '@/lib/outcome';
import type { CommandName, COMMANDS, QueryName, QUERIES } from '@/services';
import type { Service } from '@/services/define';
import type { VisitPart } from '@/services/visit/slices';
import type { VisitPage } from '@/core';
import type { z } from 'zod';

export type { CommandName, QueryName };
type Services = typeof COMMANDS & typeof QUERIES;
type ServiceName = CommandName | QueryName;
export type ServiceInput<N extends ServiceName> = Services[N] extends Service<infer Shape, infer _Output, infer _Prepared> ? z.input<Shape> : never;
export type ServiceOutput<N extends ServiceName> = Services[N] extends Service<infer _Shape, infer Output, infer _Prepared> ? Output : never;

/** The server could not be reached, or fell over: nothing is known to have happened. */
export class Unreached extends Error {
  constructor(
    message: string,
    readonly why: 'away' | 'diskFull' = 'away',
  ) {
    super(message);
  }
}

/** A server that has not answered after so long hangs: the page says so instead of waiting for ever, ms. */
const HANGS_AFTER_MS = 20_000;

/** Why a server that answers cannot do what it was asked. */
async function whyOf(response: Response): Promise<Unreached['why']> {
  const said = (await response.json().catch(() => null)) as { readonly why?: unknown } | null;
  return said?.why === 'diskFull' ? 'diskFull' : 'away';
}

async function send(path: string, method: string, body: unknown, headers: Readonly<Record<string, string>> = {}): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: { 'content-type': 'application/json', ...headers },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(HANGS_AFTER_MS),
    });
  } catch {
    throw new Unreached('no connection');
  }
  if (response.status >= 500) throw new Unreached(`status ${response.status}`, await whyOf(response));
  return response.json().catch(() => {
    throw new Unreached('answer not understood');
  });
}

export interface CallOptions {
  /** The press's own key: sent again after an outage, it is not done twice. */
  readonly requestKey?: string;
  /** Asked by the page itself: no sign of life. */
  readonly background?: boolean;
}

const headersOf = (options: CallOptions): Record<string, string> => ({
  ...(options.requestKey ? { 'x-request-key': options.requestKey } : {}),
  ...(options.background ? { 'x-keenfit-background': '1' } : {}),
});

/** Has a command done. Expected failures come back as values; an outage throws `Unreached`. */
export const callCommand = async <N extends CommandName>(name: N, input: ServiceInput<N>, options: CallOptions = {}): Promise<Result<ServiceOutput<N>>> =>
  (await send(`/api/commands/${name}`, 'POST', input, headersOf(options))) as Result<ServiceOutput<N>>;

/** What a command in a visit came to, and the parts of the page that it changed; none when it was done by an earlier sending. */
export type InVisitResult<Output> =
  { readonly ok: true; readonly value: Output; readonly part: VisitPart | null } | { readonly ok: false; readonly error: Problem };

/** Has a command done in a visit. @param page what the page shows: its answer brings what of it has changed */
export const callCommandInVisit = async <N extends CommandName>(
  name: N,
  input: ServiceInput<N>,
  page: VisitPage,
  options: CallOptions = {},
): Promise<InVisitResult<ServiceOutput<N>>> =>
  (await send(`/api/commands/${name}`, 'POST', input, { ...headersOf(options), 'x-visit-page': page })) as InVisitResult<ServiceOutput<N>>;

/** Asks a query. Expected failures come back as values; an outage throws `Unreached`. */
export const callQuery = async <N extends QueryName>(name: N, input: ServiceInput<N>, options: CallOptions = {}): Promise<Result<ServiceOutput<N>>> =>
  (await send(`/api/queries/${name}`, 'POST', input, headersOf(options))) as Result<ServiceOutput<N>>;

/** Locks the session on the server: no tab and no reload shows anything until its person signs in again. */
export const callLock = async (): Promise<void> => {
  await send('/api/session', 'PUT', {});
};

export const callSignIn = async (account: string, password: string): Promise<Result<{ personId: string; name: string }, Problem>> =>
  (await send('/api/session', 'POST', { account, password })) as Result<{ personId: string; name: string }>;

export const callSignOut = async (): Promise<void> => {
  await send('/api/session', 'DELETE', {});
};

/** Opens a page anew: at a change of person nothing of the one before stays in the browser's memory. */
export const openFresh = (path: string): void => window.location.assign(path);
