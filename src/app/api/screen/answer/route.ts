import { NextResponse, type NextRequest } from 'next/server';
import { answerExercise } from '@/services/lesson/screen';
import { perform } from '@/services/perform';
import { currentLink, deps } from '../../../access';
import { outage } from '../../outage';
import { readJson, sameOrigin } from '../../request';

/** An answer of the exercise, from the wearer's screen. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return NextResponse.json({ ok: false, error: { kind: 'forbidden', why: 'origin' } }, { status: 403 });
  const body = await readJson(request);
  if (!body.ok) return NextResponse.json(body, { status: 422 });
  try {
    const link = await currentLink();
    if (!link.ok) return NextResponse.json(link, { status: 401 });
    const done = await perform(answerExercise, deps(), link.value, body.value);
    return NextResponse.json(done, { status: done.ok ? 200 : 422, headers: { 'cache-control': 'no-store' } });
  } catch (cause) {
    return outage(cause, 'an answer could not be kept');
  }
}
