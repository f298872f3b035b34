import type { NextRequest, NextResponse } from 'next/server';
import { invalid } from '@/lib/outcome';
import { MEASUREMENT_MAX_BYTES } from '@/schema/measurement';
import { readMeasurementFile } from '@/services/measurement/queries';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../access';
import { readBytes, sameOrigin } from '../../request';
import { answer } from '../answer';
import { outage } from '../../outage';

const MEGABYTE = 1024 * 1024;

/** A file of an instrument: `?visit=`; it is looked at, nothing is kept. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return answer({ ok: false, error: { kind: 'forbidden', why: 'origin' } });
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const declared = Number(request.headers.get('content-length') ?? '0');
  const tooLarge = invalid('file', 'measurementTooLarge', { mb: Math.round(declared / MEGABYTE), max: MEASUREMENT_MAX_BYTES / MEGABYTE });
  if (declared > MEASUREMENT_MAX_BYTES) return answer(tooLarge);
  const bytes = await readBytes(request, MEASUREMENT_MAX_BYTES);
  if (bytes === null) return answer(tooLarge);
  if (bytes.byteLength === 0 || bytes.byteLength !== declared) return answer(invalid('file', 'measurementCut'));
  try {
    return answer(await perform(readMeasurementFile, deps(), caller.value, { visitId: request.nextUrl.searchParams.get('visit'), bytes }));
  } catch (cause) {
    return outage(cause, 'a measurement could not be read');
  }
}
