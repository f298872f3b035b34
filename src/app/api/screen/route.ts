import { NextResponse, type NextRequest } from 'next/server';
import { enterWithCode, readLessonScreen } from '@/services/lesson/screen';
import { perform } from '@/services/perform';
import { codeForm } from '@/schema/lessonScreen';
import { callerAddress, currentLink, deps, LINK_COOKIE } from '../../access';
import { outage } from '../outage';
import { readJson, sameOrigin } from '../request';

const COOKIE = { httpOnly: true, secure: true, sameSite: 'strict', path: '/' } as const;
const NO_STORE = { 'cache-control': 'no-store' } as const;

/** A code opens the wearer's screen of one lesson, once. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false, error: { kind: 'forbidden', why: 'origin' } }, { status: 403 });
  const body = await readJson(request);
  if (!body.ok) return NextResponse.json(body, { status: 422 });
  const form = codeForm.safeParse(body.value);
  try {
    const entered = await enterWithCode(deps(), form.success ? form.data.code : '', await callerAddress());
    if (!entered.ok) return NextResponse.json(entered, { status: entered.error.kind === 'throttled' ? 429 : 422, headers: NO_STORE });
    const response = NextResponse.json({ ok: true, value: null }, { headers: NO_STORE });
    response.cookies.set(LINK_COOKIE, entered.value.token, COOKIE);
    return response;
  } catch (cause) {
    return outage(cause, 'a code could not be tried');
  }
}

/** What the screen shows now. */
export async function GET(): Promise<NextResponse> {
  try {
    const link = await currentLink();
    if (!link.ok) return NextResponse.json(link, { status: 401, headers: NO_STORE });
    const read = await perform(readLessonScreen, deps(), link.value, { lessonId: link.value.subjectId });
    return NextResponse.json(read, { status: read.ok ? 200 : 404, headers: NO_STORE });
  } catch (cause) {
    return outage(cause, 'a lesson’s screen could not be read');
  }
}
