import { NextResponse, type NextRequest } from 'next/server';
import { lock, signIn, signOut } from '@/services/session/access';
import type { Problem } from '@/lib/outcome';
import { callerAddress, deps, DEVICE_COOKIE, deviceToken, SESSION_COOKIE, sessionToken } from '../../access';
import { outage } from '../outage';
import { readJson, sameOrigin } from '../request';

const YEAR = 365 * 24 * 3600;
const COOKIE = { httpOnly: true, secure: true, sameSite: 'strict', path: '/' } as const;

/** Signs in: a session on the server, its token in a cookie that no script can read. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false, error: { kind: 'forbidden', why: 'origin' } }, { status: 403 });
  const body = await readJson(request);
  if (!body.ok) return NextResponse.json(body, { status: 422 });
  try {
    const from = { address: await callerAddress(), device: await deviceToken(), session: await sessionToken() };
    const result = await signIn(deps(), body.value, from);
    if (!result.ok) return refuse(result.error);
    // A session that this one replaces (the screen was locked) ends.
    await signOut(deps(), await sessionToken());
    const response = NextResponse.json({ ok: true, value: { personId: result.value.caller.personId, name: result.value.caller.name } });
    response.cookies.set(SESSION_COOKIE, result.value.token, COOKIE);
    response.cookies.set(DEVICE_COOKIE, result.value.device, { ...COOKIE, maxAge: YEAR });
    return response;
  } catch (cause) {
    return outage(cause, 'sign-in failed');
  }
}

function refuse(error: Problem): NextResponse {
  const throttled = error.kind === 'throttled';
  const headers = throttled ? { 'retry-after': String(error.retryAfterSeconds) } : {};
  return NextResponse.json({ ok: false, error }, { status: throttled ? 429 : 422, headers });
}

/** Locks: the cookie stays, and stands for nobody until its person signs in again. */
export async function PUT(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false }, { status: 403 });
  await lock(deps(), await sessionToken());
  return NextResponse.json({ ok: true, value: null });
}

export async function DELETE(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false }, { status: 403 });
  await signOut(deps(), await sessionToken());
  const response = NextResponse.json({ ok: true, value: null });
  response.cookies.set(SESSION_COOKIE, '', { ...COOKIE, maxAge: 0 });
  return response;
}
