import { inVisit, uuid } from './fields';
import { z } from 'zod';

export const referralForm = z.object({ ...inVisit, stopId: uuid });
export const referralStepForm = z.object({
  ...inVisit,
  referralId: uuid,
  step: z.enum(['lensOff', 'phoned', 'printed', 'leftWithLetter', 'calledNextDay']),
});
