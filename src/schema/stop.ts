import { STOP_ENDINGS } from '../core';
import { inVisit, reason, uuid } from './fields';
import { z } from 'zod';

export const overrideStopForm = z.object({ ...inVisit, rule: z.string().max(40), reason });
export const endStopForm = z.object({ ...inVisit, stopId: uuid, how: z.enum(STOP_ENDINGS), reason });
