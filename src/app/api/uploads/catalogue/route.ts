import type { NextRequest, NextResponse } from 'next/server';
import { CATALOGUE_MAX_BYTES } from '@/formats/catalogueCsv';
import { recordImport } from '@/services/catalogueImport/commands';
import { perform } from '@/services/perform';
import { deps } from '../../../access';
import { receive } from '../receive';

const EXPECTED = { field: 'file', most: CATALOGUE_MAX_BYTES, tooLarge: 'fileTooLarge', cut: 'fileCut', failed: 'catalogue upload failed' } as const;

/** A catalogue file: the body is the file itself, its name stands in the address. It is only put by; the jobs read it. */
export const POST = (request: NextRequest): Promise<NextResponse> =>
  receive(request, EXPECTED, (caller, bytes) => perform(recordImport, deps(), caller, { fileName: request.nextUrl.searchParams.get('name') ?? '', bytes }));
