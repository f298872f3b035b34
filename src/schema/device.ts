import { z } from 'zod';
import { uuid } from './fields';

export const lightsForm = z.object({ deviceId: uuid, lights: z.enum(['up', 'down']) });
/** As far as the clock of a demo or a test may be set, each way: twenty years. */
const FURTHEST_SECONDS = 20 * 366 * 86_400;
const EARLIEST = '2000-01-01T00:00:00Z';
const LATEST = '2100-01-01T00:00:00Z';
export const clockForm = z.object({
  frozenAt: z.iso
    .datetime()
    .refine((at) => at >= EARLIEST && at <= LATEST)
    .nullable(),
  offsetSeconds: z.number().int().min(-FURTHEST_SECONDS).max(FURTHEST_SECONDS),
});
