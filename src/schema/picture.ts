import { eye, inVisit, uuid } from './fields';
import { z } from 'zod';

export const pictureForm = z.object({
  ...inVisit,
  eye,
  title: z.string().trim().max(120, 'tooLong'),
  declaredType: z.string().max(80),
  bytes: z.instanceof(Uint8Array, { error: 'pictureUnreadable' }),
});
export const readPictureForm = z.object({ pictureId: uuid });
