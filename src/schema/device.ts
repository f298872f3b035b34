import { z } from 'zod';
import { uuid } from './fields';

export const lightsForm = z.object({ deviceId: uuid, lights: z.enum(['up', 'down']) });
export const clockForm = z.object({ frozenAt: z.iso.datetime().nullable(), offsetSeconds: z.number().int() });
