import { NextResponse, type NextRequest } from 'next/server';
import { hashToken } from '@/server/token';
import { resume } from '@/services/session/access';
import { deps, sessionToken } from '../../access';
import { newsStream } from '../newsStream';

/** What changes in the practice. Listening is no sign of life, and ends with the session. */
export async function GET(request: NextRequest): Promise<Response> {
  const token = await sessionToken();
  const caller = await resume(deps(), token, false);
  if (!caller.ok || token === undefined) return new NextResponse(null, { status: 401, headers: { 'cache-control': 'no-store' } });
  return newsStream(request, {
    practiceId: caller.value.practiceId,
    session: hashToken(token),
    // What a wearer's screen shows is between it and its teacher.
    wants: (news) => news.what !== 'lesson',
    still: async () => (await resume(deps(), token, false)).ok,
  });
}
