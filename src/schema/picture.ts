import { eye, inVisit, uuid } from './fields';
import { z } from 'zod';

export const pictureForm = z.object({
  ...inVisit,
  eye,
  title: z.string().trim().max(120, 'tooLong'),
  declaredType: z.string().max(80),
  bytes: z.instanceof(Uint8Array, { error: 'pictureUnreadable' }),
});
/** Pictures that a camera takes in one go. */
export const takePicturesForm = z.object({ ...inVisit, eye, lensId: uuid, count: z.number().int().min(1).max(5) });
export const readPictureForm = z.object({ pictureId: uuid });
