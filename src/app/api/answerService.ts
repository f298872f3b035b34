import { NextResponse, type NextRequest } from 'next/server';
import type { z } from 'zod';
import { invalid, ok, type Problem, type Result } from '@/lib/outcome';
import type { Context, Service } from '@/services/define';
import { performWith } from '@/services/perform';
import { currentCaller, deps } from '../access';
import { outage } from './outage';
import { readJson, sameOrigin } from './request';

const STATUS: Readonly<Record<Problem['kind'], number>> = {
  invalid: 422,
  ruleBroken: 422,
  notFound: 404,
  conflict: 409,
  forbidden: 403,
  signedOut: 401,
  throttled: 429,
};
const NO_STORE = { 'cache-control': 'no-store' } as const;
const answer = (result: Result<unknown>): NextResponse => {
  const wait = !result.ok && result.error.kind === 'throttled' ? { 'retry-after': String(result.error.retryAfterSeconds) } : {};
  return NextResponse.json(result, { status: result.ok ? 200 : STATUS[result.error.kind], headers: { ...NO_STORE, ...wait } });
};
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/**
 * Answers a request for a use case. The path is a stable one, so that a page opened before an update can still be sent.
 * @param service null when there is none of this name
 * @param extra what else is answered, asked in the same transaction
 */
export async function answerService(request: NextRequest, service: unknown, extra?: (context: Context) => Promise<unknown>): Promise<NextResponse> {
  if (!sameOrigin(request)) return answer({ ok: false, error: { kind: 'forbidden', why: 'origin' } });
  if (service === null) return answer({ ok: false, error: { kind: 'notFound', what: 'service' } });
  // The services differ in shape; `perform` checks the input against the very service's own.
  const asked = service as Service<z.ZodType, unknown, unknown>;
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const body = await readJson(request);
  if (!body.ok) return answer(body);
  try {
    const key = request.headers.get('x-request-key');
    if (key !== null && !UUID.test(key)) return answer(invalid('form', 'notUnderstood'));
    const done = await performWith(asked, deps(), caller.value, body.value, { requestKey: key, ...(extra ? { extra } : {}) });
    if (!done.ok || !extra) return answer(done.ok ? ok(done.value.output) : done);
    return NextResponse.json({ ok: true, value: done.value.output, part: done.value.extra }, { headers: NO_STORE });
  } catch (cause) {
    return outage(cause, 'use case failed', { service: asked.name });
  }
}
