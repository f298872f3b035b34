import { uuid } from './fields';
import { z } from 'zod';

const onScale = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'rotation_offScale').max(180, 'rotation_offScale');
export const addInstrumentForm = z.object({
  name: z.string({ error: 'nameRequired' }).trim().min(1, 'nameRequired').max(60, 'tooLong'),
  readStraight: onScale,
  readTurned: onScale,
});
export const endInstrumentForm = z.object({ instrumentId: uuid });
