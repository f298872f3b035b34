import { dayText, uuid } from './fields';
import { z } from 'zod';

export const importUploadForm = z.object({
  fileName: z.string({ error: 'required' }).trim().min(1, 'required').max(200, 'tooLong'),
  bytes: z.instanceof(Uint8Array, { error: 'required' }),
});
export const importForm = z.object({ importId: uuid });
export const takeImportForm = z.object({ importId: uuid, startsOn: dayText('startRequired') });
