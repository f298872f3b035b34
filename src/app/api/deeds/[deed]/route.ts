import { NextResponse, type NextRequest } from 'next/server';
import { invalid, type Problem, type Result } from '@/lib/outcome';
import { log } from '@/server/log';
import { perform, type Service } from '@/services/define';
import { isServiceName, SERVICES } from '@/services';
import type { z } from 'zod';
import { currentCaller, deps } from '../../../access';
import { readJson, sameOrigin } from '../../request';

const STATUS: Readonly<Record<Problem['kind'], number>> = {
  invalid: 422,
  ruleBroken: 422,
  notFound: 404,
  conflict: 409,
  forbidden: 403,
  signedOut: 401,
  throttled: 429,
};
const answer = (result: Result<unknown>): NextResponse => {
  const wait = !result.ok && result.error.kind === 'throttled' ? { 'retry-after': String(result.error.retryAfterSeconds) } : {};
  return NextResponse.json(result, { status: result.ok ? 200 : STATUS[result.error.kind], headers: { 'cache-control': 'no-store', ...wait } });
};
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** Every deed by its name: a stable path, so that a page opened before an update can still be sent. */
export async function POST(request: NextRequest, { params }: { params: Promise<{ deed: string }> }): Promise<NextResponse> {
  const { deed } = await params;
  if (!sameOrigin(request)) return answer({ ok: false, error: { kind: 'forbidden', why: 'origin' } });
  if (!isServiceName(deed)) return answer({ ok: false, error: { kind: 'notFound', what: 'deed' } });
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const body = await readJson(request);
  if (!body.ok) return answer(body);
  try {
    const key = request.headers.get('x-request-key');
    if (key !== null && !UUID.test(key)) return answer(invalid('form', 'notUnderstood'));
    // The registry's services differ in shape; `perform` checks the input against the very service's own.
    return answer(await perform(SERVICES[deed] as unknown as Service<z.ZodType, unknown>, deps(), caller.value, body.value, key));
  } catch (cause) {
    log.error({ err: cause, deed }, 'deed failed');
    return NextResponse.json({ outage: true }, { status: 500 });
  }
}
