import type { NextRequest } from 'next/server';
import { perform } from '@/services/perform';
import { readPicture } from '@/services/picture/queries';
import { currentCaller, deps } from '../../../access';

/** A picture of an eye, to whoever may read the record; looked at, never run. */
export async function GET(_request: NextRequest, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const { id } = await params;
  const picture = await perform(readPicture, deps(), caller.value, { pictureId: id });
  if (!picture.ok) return new Response(null, { status: 404 });
  return new Response(new Uint8Array(picture.value.bytes), {
    headers: {
      'content-type': picture.value.mediaType,
      'cache-control': 'private, no-store',
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'; sandbox",
      'content-disposition': 'inline; filename="eye.jpg"',
      'cross-origin-resource-policy': 'same-origin',
    },
  });
}
