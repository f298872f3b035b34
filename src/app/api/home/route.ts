import { NextResponse, type NextRequest } from 'next/server';
import { homeTokenForm } from '@/schema/takeHome';
import { enterHome } from '@/services/takeHome/enter';
import { callerAddress, deps, HOME_COOKIE } from '../../access';
import { outage } from '../outage';
import { readJson, sameOrigin } from '../request';

const NO_STORE = { 'cache-control': 'no-store' } as const;

/** The token behind a link's hash becomes this browser's own, until the link ends. Guesses are counted. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false, error: { kind: 'forbidden', why: 'origin' } }, { status: 403 });
  const body = await readJson(request);
  if (!body.ok) return NextResponse.json(body, { status: 422 });
  const form = homeTokenForm.safeParse(body.value);
  try {
    const entered = await enterHome(deps(), form.success ? form.data.token : '', await callerAddress());
    if (!entered.ok) return NextResponse.json(entered, { status: entered.error.kind === 'throttled' ? 429 : 422, headers: NO_STORE });
    const response = NextResponse.json({ ok: true, value: null }, { headers: NO_STORE });
    response.cookies.set(HOME_COOKIE, form.success ? form.data.token : '', {
      ...{ httpOnly: true, secure: true, sameSite: 'lax', path: '/' },
      expires: new Date(entered.value.expiresAt),
    });
    return response;
  } catch (cause) {
    return outage(cause, 'a link could not be opened');
  }
}
