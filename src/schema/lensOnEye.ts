import { FIT_WORDS, lensFindingProblem, MODALITIES, OVER_CONTROLS, PHOTO_LIDS, PLUS_HALF, READ_HOW, WORN_HOW } from '../core';
import { acuity, dayText, eye, inVisit, limited, lotText, optionalText, reason, refractionText, uuid, lensAdd } from './fields';
import { z } from 'zod';

/** A lens of a family in the library. */
export const lensSpec = z.object({
  familyId: uuid,
  sphere: limited('sphere'),
  cylinder: limited('cylinder'),
  axis: limited('axis'),
  add: lensAdd.nullable(),
  baseCurve: limited('baseCurveMm'),
  diameter: limited('diameterMm'),
});
export type LensSpecInput = z.infer<typeof lensSpec>;

/** What stands on the blister of a lens that the drawer does not know of. */
const inHand = z.object({
  lot: lotText,
  expiresOn: dayText('expiryRequired'),
});
const trialSpec = lensSpec.extend({ inHand: inHand.nullable().default(null) });

export const putOnForm = z
  .object({
    ...inVisit,
    right: trialSpec.nullable(),
    left: trialSpec.nullable(),
    /** Why a lens that a judgement leaves out is tried all the same. */
    despiteReason: optionalText(400),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });

export const broughtInForm = z.object({
  ...inVisit,
  eye,
  /** What it is called: from the box, or as the wearer says. */
  description: z.string({ error: 'lensNameRequired' }).trim().min(2, 'lensNameRequired').max(120, 'tooLong'),
  /** Null when nobody knows the power: then nothing can be read against it. */
  power: refractionText.nullable(),
  modality: z.enum(MODALITIES).default('monthly'),
  how: z.enum(WORN_HOW).nullable(),
});
export const confirmLensForm = z.object({ ...inVisit, lensOnEyeId: uuid, how: z.enum(WORN_HOW) });
export const putBackForm = z.object({ ...inVisit, lensOnEyeId: uuid, reason });
export const takeOffForm = z.object({ ...inVisit, lensOnEyeIds: z.array(uuid).min(1).max(2) });

/** One blink: where the mark sits, and how it was read. */
const blink = z
  .object({
    rotationLeft: limited('rotationLeft'),
    how: z.enum(READ_HOW).default('typed'),
    scaleReading: z.number().int().min(0, 'rotation_offScale').max(180, 'rotation_offScale').nullable().default(null),
    instrumentId: uuid.nullable().default(null),
    /** The picture it was read off; what else is kept of it. */
    photo: z
      .object({ pictureId: uuid, rollDeg: z.number().min(-90).max(90), lid: z.enum(PHOTO_LIDS), foundDeg: z.number().min(-90).max(90).nullable() })
      .nullable()
      .default(null),
  })
  .refine((b) => (b.how === 'photo') === (b.photo !== null), { message: 'photoNeedsPicture', path: ['photo'] })
  .refine((b) => (b.scaleReading === null) === (b.instrumentId === null) && (b.how !== 'scale' || b.scaleReading !== null), {
    message: 'rotation_needsSide',
    path: ['rotationLeft'],
  });
/** Something seen of a lens on an eye. */
const lensFinding = z
  .object({
    sign: z.string().max(30),
    value: z.union([z.number({ error: 'findingNotANumber' }), z.string().max(30)]),
    typed: z.string().trim().min(1).max(40).nullable().default(null),
  })
  .superRefine((f, ctx) => {
    const problem = lensFindingProblem(f.sign, f.value);
    if (problem) ctx.addIssue({ code: 'custom', message: problem.code, path: ['value'], params: { data: problem.data } });
    else if (f.sign.startsWith('acuity') && f.typed === null) ctx.addIssue({ code: 'custom', message: 'acuityEmpty', path: ['value'] });
  });
const onEyeReading = z.object({
  lensOnEyeId: uuid,
  fit: z.enum(FIT_WORDS).nullable().default(null),
  findings: z.array(lensFinding).max(40).default([]),
  blinks: z.array(blink).max(20, 'tooManyBlinks').default([]),
  /** These blinks go on with the last series, rather than begin another. */
  continues: z.boolean().default(false),
  overRefraction: refractionText.nullable().default(null),
  overAcuity: acuity.nullable().default(null),
  /** Cylinder was looked for, whether or not any was found. */
  cylinderTested: z.boolean().default(false),
  /** How the first +0.50 looked. */
  plusHalf: z.enum(PLUS_HALF).nullable().default(null),
  /** How accommodation was relaxed. */
  control: z.enum(OVER_CONTROLS).default('none'),
  vertexMm: limited('vertexMm'),
  /** Asked whether this is the lens, and it is. */
  sureOfLens: z.boolean().default(false),
});
/** What both eyes see together through the two lenses on them. */
const sightTogether = z.object({ rightLensOnEyeId: uuid, leftLensOnEyeId: uuid, acuity });
export const onEyeForm = z
  .object({ ...inVisit, right: onEyeReading.nullable(), left: onEyeReading.nullable(), both: sightTogether.nullable().default(null) })
  .refine(
    (form) =>
      form.both !== null || [form.right, form.left].some((e) => e && (e.fit !== null || e.overRefraction !== null || e.blinks.length + e.findings.length > 0)),
    {
      message: 'nothingToRecord',
      path: ['right'],
    },
  )
  .refine((form) => [form.right, form.left].every((e) => e === null || e.overAcuity === null || e.overRefraction !== null), {
    message: 'acuityNeedsOver',
    path: ['right', 'overAcuity'],
  });
export const chooseLensForm = z.object({ ...inVisit, lensOnEyeId: uuid, why: reason });
