import type { NextRequest, NextResponse } from 'next/server';
import { PICTURE_MAX_BYTES } from '@/formats/picture';
import { perform } from '@/services/perform';
import { recordPicture } from '@/services/picture/commands';
import { deps } from '../../../access';
import { receive } from '../receive';

const EXPECTED = { field: 'picture', most: PICTURE_MAX_BYTES, tooLarge: 'pictureTooLarge', cut: 'pictureCut', failed: 'picture failed' } as const;

/** A picture of an eye: the body is the file itself, everything else stands in the address. */
export const POST = (request: NextRequest): Promise<NextResponse> =>
  receive(request, EXPECTED, (caller, bytes) => {
    const { searchParams } = request.nextUrl;
    return perform(recordPicture, deps(), caller, {
      visitId: searchParams.get('visit'),
      version: Number(searchParams.get('version')),
      eye: searchParams.get('eye'),
      title: searchParams.get('title') ?? '',
      declaredType: (request.headers.get('content-type') ?? '').split(';')[0]?.trim() ?? '',
      bytes,
    });
  });
