import { acuity, addText, inVisit, limited, refractionText } from './fields';
import { z } from 'zod';
import { EYES, parseNearAcuity } from '../core';

/** A near acuity as it was typed: read with its distance, in any notation that names a size. */
const nearText = z.string().trim().min(1, 'nearAcuityEmpty').max(20, 'tooLong');

export const refractionForm = z
  .object({
    ...inVisit,
    right: refractionText.nullable(),
    left: refractionText.nullable(),
    vertexMm: limited('vertexMm'),
    rightAdd: addText.nullable().default(null),
    leftAdd: addText.nullable().default(null),
    addSource: z.enum(['measured', 'age']).default('measured'),
    /** Sight with these glasses. */
    rightAcuity: acuity.nullable().default(null),
    leftAcuity: acuity.nullable().default(null),
    /** Distance that near was tested at, cm, and the near acuity of each eye there, with its add. */
    nearCm: limited('nearCm').nullable().default(null),
    rightNear: nearText.nullable().default(null),
    leftNear: nearText.nullable().default(null),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] })
  .refine((form) => form.rightAdd === null || form.right !== null, { message: 'addNeedsPower', path: ['rightAdd'] })
  .refine((form) => form.leftAdd === null || form.left !== null, { message: 'addNeedsPower', path: ['leftAdd'] })
  .refine((form) => form.nearCm !== null || (form.rightAdd === null && form.leftAdd === null), { message: 'addWithoutDistance', path: ['nearCm'] })
  .refine((form) => form.nearCm !== null || (form.rightNear === null && form.leftNear === null), { message: 'nearWithoutDistance', path: ['nearCm'] })
  .superRefine((form, ctx) => {
    for (const eye of EYES) {
      const typed = form[`${eye}Near`];
      if (typed === null || form.nearCm === null) continue;
      const read = parseNearAcuity(typed, form.nearCm);
      if (!read.ok) ctx.addIssue({ code: 'custom', path: [`${eye}Near`], message: read.error.code, params: { data: read.error.data } });
      else if (form[eye] === null) ctx.addIssue({ code: 'custom', path: [`${eye}Near`], message: 'acuityNeedsPower' });
    }
  })
  .refine((form) => form.rightAcuity === null || form.right !== null, { message: 'acuityNeedsPower', path: ['rightAcuity'] })
  .refine((form) => form.leftAcuity === null || form.left !== null, { message: 'acuityNeedsPower', path: ['leftAcuity'] });
