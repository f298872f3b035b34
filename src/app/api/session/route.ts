import { NextResponse, type NextRequest } from 'next/server';
import { signIn, signOut } from '@/services/access';
import { log } from '@/server/log';
import { callerAddress, deps, SESSION_COOKIE, sessionToken } from '../../access';
import { readJson, sameOrigin } from '../request';

const COOKIE = { httpOnly: true, secure: true, sameSite: 'strict', path: '/' } as const;

/** Signs in: a session on the server, its token in a cookie that no script can read. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false, error: { kind: 'forbidden', why: 'origin' } }, { status: 403 });
  const body = await readJson(request);
  if (!body.ok) return NextResponse.json(body, { status: 422 });
  try {
    const result = await signIn(deps(), body.value, await callerAddress());
    if (!result.ok) return NextResponse.json(result, { status: result.error.kind === 'throttled' ? 429 : 422 });
    // A session that this one replaces (the screen was locked) ends.
    await signOut(deps(), await sessionToken());
    const response = NextResponse.json({ ok: true, value: { personId: result.value.caller.personId, name: result.value.caller.name } });
    response.cookies.set(SESSION_COOKIE, result.value.token, COOKIE);
    return response;
  } catch (cause) {
    log.error({ err: cause }, 'sign-in failed');
    return NextResponse.json({ outage: true }, { status: 500 });
  }
}

export async function DELETE(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false }, { status: 403 });
  await signOut(deps(), await sessionToken());
  const response = NextResponse.json({ ok: true, value: null });
  response.cookies.set(SESSION_COOKIE, '', { ...COOKIE, maxAge: 0 });
  return response;
}
