import type { NextRequest, NextResponse } from 'next/server';
import { CATALOGUE_MAX_BYTES } from '@/formats/catalogueCsv';
import { invalid } from '@/lib/outcome';
import { recordImport } from '@/services/catalogueImport/commands';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../access';
import { readBytes, sameOrigin } from '../../request';
import { answer } from '../answer';
import { outage } from '../../outage';

const MEGABYTE = 1024 * 1024;

/** A catalogue file: the body is the file itself, its name stands in the address. It is only put by; the jobs read it. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return answer({ ok: false, error: { kind: 'forbidden', why: 'origin' } });
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const declared = Number(request.headers.get('content-length') ?? '0');
  const tooLarge = invalid('file', 'fileTooLarge', { mb: Math.round(declared / MEGABYTE), max: CATALOGUE_MAX_BYTES / MEGABYTE });
  if (declared > CATALOGUE_MAX_BYTES) return answer(tooLarge);
  const bytes = await readBytes(request, CATALOGUE_MAX_BYTES);
  if (bytes === null) return answer(tooLarge);
  if (bytes.byteLength === 0 || bytes.byteLength !== declared) return answer(invalid('file', 'fileCut'));
  try {
    return answer(await perform(recordImport, deps(), caller.value, { fileName: request.nextUrl.searchParams.get('name') ?? '', bytes }));
  } catch (cause) {
    return outage(cause, 'catalogue upload failed');
  }
}
