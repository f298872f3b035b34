import { NextResponse, type NextRequest } from 'next/server';
import { readFamilies } from '@/services/family/queries';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../access';

/** The practice's lens library: kept by the browser, and asked for again only by its name. */
export async function GET(request: NextRequest): Promise<NextResponse> {
  const caller = await currentCaller();
  if (!caller.ok) return new NextResponse(null, { status: 401, headers: { 'cache-control': 'no-store' } });
  const known = /^(?:W\/)?"([^"]{1,40})"$/.exec(request.headers.get('if-none-match') ?? '')?.[1] ?? null;
  const read = await perform(readFamilies, deps(), caller.value, { known });
  if (!read.ok) return new NextResponse(null, { status: 403, headers: { 'cache-control': 'no-store' } });
  const headers = { etag: `"${read.value.tag}"`, 'cache-control': 'private, no-cache', vary: 'cookie' };
  return read.value.library === null ? new NextResponse(null, { status: 304, headers }) : NextResponse.json(read.value, { headers });
}
