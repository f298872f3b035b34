import { z } from 'zod';
import { uuid } from './fields';

/** A file of an instrument, as it came. */
export const MEASUREMENT_MAX_BYTES = 2 * 1024 * 1024;
export const measurementFileForm = z.object({ visitId: uuid, bytes: z.instanceof(Uint8Array, { error: 'fileRequired' }) });
