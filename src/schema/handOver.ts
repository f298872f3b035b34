import { dayText, inVisit, lotText, optionalText, uuid } from './fields';
import { z } from 'zod';

const handedOver = z.object({
  lensOnEyeId: uuid,
  lot: lotText,
  expiresOn: dayText('expiryRequired'),
  /** Lenses that go home, the one on the eye counted: daily ones for as many days. */
  lensCount: z.number({ error: 'lensCount' }).int('lensCount').min(1, 'lensCount').max(90, 'lensCount').default(1),
});
export const handOverForm = z
  .object({
    ...inVisit,
    right: handedOver.nullable(),
    left: handedOver.nullable(),
    /** Why no lesson was needed; only for those who handle lenses already. */
    experienceNote: optionalText(400),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });
