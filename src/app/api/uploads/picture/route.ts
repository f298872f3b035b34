import type { NextRequest, NextResponse } from 'next/server';
import { PICTURE_MAX_BYTES } from '@/formats/picture';
import { invalid } from '@/lib/outcome';
import { perform } from '@/services/perform';
import { recordPicture } from '@/services/picture/commands';
import { currentCaller, deps } from '../../../access';
import { readBytes, sameOrigin } from '../../request';
import { answer } from '../answer';
import { outage } from '../../outage';

/** A picture of an eye: the body is the file itself, everything else stands in the address. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return answer({ ok: false, error: { kind: 'forbidden', why: 'origin' } });
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const declared = Number(request.headers.get('content-length') ?? '0');
  if (declared > PICTURE_MAX_BYTES)
    return answer(invalid('picture', 'pictureTooLarge', { mb: Math.round(declared / 1048576), max: PICTURE_MAX_BYTES / 1048576 }));
  const bytes = await readBytes(request, PICTURE_MAX_BYTES);
  if (bytes === null) return answer(invalid('picture', 'pictureTooLarge', { mb: PICTURE_MAX_BYTES / 1048576, max: PICTURE_MAX_BYTES / 1048576 }));
  // A body cut short on its way is no picture, even where what came can be opened.
  if (bytes.byteLength === 0 || bytes.byteLength !== declared) return answer(invalid('picture', 'pictureCut'));
  const { searchParams } = request.nextUrl;
  try {
    const input = {
      visitId: searchParams.get('visit'),
      version: Number(searchParams.get('version')),
      eye: searchParams.get('eye'),
      title: searchParams.get('title') ?? '',
      declaredType: (request.headers.get('content-type') ?? '').split(';')[0]?.trim() ?? '',
      bytes,
    };
    return answer(await perform(recordPicture, deps(), caller.value, input));
  } catch (cause) {
    return outage(cause, 'picture failed');
  }
}
