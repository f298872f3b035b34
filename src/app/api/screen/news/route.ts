import { NextResponse, type NextRequest } from 'next/server';
import { hashToken } from '@/server/token';
import { resumeLink } from '@/services/session/link';
import { deps, linkToken } from '../../../access';
import { newsStream } from '../../newsStream';

/** That something else is shown: of this lesson alone, and only that it is. */
export async function GET(request: NextRequest): Promise<Response> {
  const token = await linkToken();
  const link = await resumeLink(deps(), token);
  if (!link.ok || link.value.purpose !== 'lesson' || token === undefined)
    return new NextResponse(null, { status: 401, headers: { 'cache-control': 'no-store' } });
  const { practiceId, subjectId } = link.value;
  return newsStream(request, {
    practiceId,
    session: hashToken(token),
    wants: (news) => news.what === 'lesson' && news.id === subjectId,
    still: async () => (await resumeLink(deps(), token)).ok,
  });
}
