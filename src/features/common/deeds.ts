import type { Problem, Result } from '@/lib/outcome';
import type { SERVICES } from '@/services';
import type { Service } from '@/services/define';
import type { z } from 'zod';

type Services = typeof SERVICES;
export type DeedName = keyof Services;
export type DeedInput<N extends DeedName> = Services[N] extends Service<infer Shape, infer _Output, infer _Prepared> ? z.input<Shape> : never;
export type DeedOutput<N extends DeedName> = Services[N] extends Service<infer _Shape, infer Output, infer _Prepared> ? Output : never;

/** The server could not be reached, or fell over: nothing is known to have happened. */
export class Unreached extends Error {}

/** A server that has not answered after so long hangs: the page says so instead of waiting for ever, ms. */
const HANGS_AFTER_MS = 20_000;

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
  if (response.status >= 500) throw new Unreached(`status ${response.status}`);
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

/** Asks the server for a deed. Expected failures come back as values; an outage throws `Unreached`. */
export const callDeed = async <N extends DeedName>(name: N, input: DeedInput<N>, options: CallOptions = {}): Promise<Result<DeedOutput<N>>> =>
  (await send(`/api/deeds/${name}`, 'POST', input, {
    ...(options.requestKey ? { 'x-request-key': options.requestKey } : {}),
    ...(options.background ? { 'x-keenfit-background': '1' } : {}),
  })) as Result<DeedOutput<N>>;

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
