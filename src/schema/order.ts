import { z } from 'zod';
import { inVisit, uuid } from './fields';

const packs = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'packsOutOfRange').max(60, 'packsOutOfRange');
export const orderForm = z
  .object({ ...inVisit, requestKey: uuid, prescriptionId: uuid, rightPacks: packs, leftPacks: packs })
  .refine((form) => form.rightPacks + form.leftPacks > 0, { message: 'packsRequired', path: ['rightPacks'] });
export const hastenForm = z.object({ orderId: uuid, visitId: uuid });
