import { z } from 'zod';
import { CYLINDER_ANSWERS, CYLINDER_STEPS } from '../core';
import { eye, inVisit, uuid } from './fields';

const axis = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'axisOutside').max(180, 'axisOutside');

/** A cylinder found by answers: where it blurred on either side, and what was said of each cylinder. */
export const guidedCylinderForm = z.object({
  ...inVisit,
  eye,
  lensOnEyeId: uuid,
  startAxis: axis.nullable().default(null),
  blur: z.tuple([axis, axis]),
  step: z.number().refine((step) => CYLINDER_STEPS.includes(step), 'required'),
  answers: z.array(z.enum(CYLINDER_ANSWERS)).min(1, 'required').max(12, 'tooLong'),
});
