import { acuity, addText, inVisit, limited, refractionText } from './fields';
import { z } from 'zod';

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
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] })
  .refine((form) => form.rightAdd === null || form.right !== null, { message: 'addNeedsPower', path: ['rightAdd'] })
  .refine((form) => form.leftAdd === null || form.left !== null, { message: 'addNeedsPower', path: ['leftAdd'] })
  .refine((form) => form.rightAcuity === null || form.right !== null, { message: 'acuityNeedsPower', path: ['rightAcuity'] })
  .refine((form) => form.leftAcuity === null || form.left !== null, { message: 'acuityNeedsPower', path: ['leftAcuity'] });
