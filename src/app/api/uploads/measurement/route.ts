import type { NextRequest, NextResponse } from 'next/server';
import { MEASUREMENT_MAX_BYTES } from '@/schema/measurement';
import { readMeasurementFile } from '@/services/measurement/queries';
import { perform } from '@/services/perform';
import { deps } from '../../../access';
import { receive } from '../receive';

const EXPECTED = {
  field: 'file',
  most: MEASUREMENT_MAX_BYTES,
  tooLarge: 'measurementTooLarge',
  cut: 'measurementCut',
  failed: 'a measurement could not be read',
} as const;

/** A file of an instrument: `?visit=`; it is looked at, nothing is kept. */
export const POST = (request: NextRequest): Promise<NextResponse> =>
  receive(request, EXPECTED, (caller, bytes) => perform(readMeasurementFile, deps(), caller, { visitId: request.nextUrl.searchParams.get('visit'), bytes }));
