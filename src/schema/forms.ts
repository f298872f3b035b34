import { z } from 'zod';
import {
  EARLIEST_BIRTH_DATE,
  lensFindingProblem,
  LIMITS,
  onStep,
  parseAdd,
  parseDay,
  parseRefraction,
  FIT_WORDS,
  READ_HOW,
  splitPrism,
  withinLimit,
  ACUITY_LIMITS,
  type LimitName,
  type Refraction,
} from '../core';

/** Messages of these shapes are problem codes: words are made where they are shown. */

/** A prescription as typed, read by `parseRefraction`; its problems keep their data and repairs. */
export const refractionText = z.string({ error: 'required' }).transform((text, ctx): { typed: string; power: Refraction; prism: string | null } => {
  const read = parseRefraction(text);
  if (read.ok) return { typed: text.trim(), power: read.value, prism: splitPrism(text).prism?.slice(0, 60) ?? null };
  ctx.addIssue({ code: 'custom', message: read.error.code, params: { data: read.error.data, repairs: read.error.repairs } });
  return z.NEVER;
});

/** A near addition as typed. */
export const addText = z.string({ error: 'required' }).transform((text, ctx): number => {
  const read = parseAdd(text);
  if (read.ok) return read.value;
  ctx.addIssue({ code: 'custom', message: read.error.code, params: { data: read.error.data, repairs: read.error.repairs } });
  return z.NEVER;
});

/** An acuity: read where it was typed, in the practice's notation; the words are kept beside it. */
export const acuity = z.object({
  logMar: z.number({ error: 'acuityShape' }).min(ACUITY_LIMITS.min, 'acuityOutOfRange').max(ACUITY_LIMITS.max, 'acuityOutOfRange'),
  typed: z.string().trim().min(1, 'acuityEmpty').max(20, 'tooLong'),
});

/** A number within one of the limits, on its step. */
export const limited = (name: LimitName) =>
  z.number({ error: 'notANumber' }).superRefine((value, ctx) => {
    const limit = LIMITS[name];
    const data = { value, min: limit.min, max: limit.max, step: limit.step ?? 0 };
    if (!withinLimit(value, limit)) ctx.addIssue({ code: 'custom', message: `${name}OutOfRange`, params: { data } });
    else if (!onStep(value, limit)) ctx.addIssue({ code: 'custom', message: `${name}OffStep`, params: { data } });
  });

/** A calendar day as typed, at least `from`. */
export const dayText = (missing: string) =>
  z.string({ error: missing }).transform((text, ctx): string => {
    const read = parseDay(text);
    if (read.ok) return read.value;
    const message = read.error.code === 'empty' ? missing : read.error.code;
    ctx.addIssue({ code: 'custom', message, params: { data: { typed: text.trim() }, repairs: read.error.repairs } });
    return z.NEVER;
  });

const optionalText = (max: number) =>
  z
    .string()
    .trim()
    .max(max, 'tooLong')
    .optional()
    .transform((text) => (text ? text : null));

export const eye = z.enum(['right', 'left'], { error: 'required' });
export const uuid = z.uuid({ error: 'notAnIdentity' });
const version = z.number().int().positive();
const reason = z.string({ error: 'reasonRequired' }).trim().min(3, 'reasonRequired').max(400, 'tooLong');
const inVisit = { visitId: uuid, version };

const identity = {
  name: z.string({ error: 'nameRequired' }).trim().min(1, 'nameRequired').max(120, 'tooLong'),
  birthDate: dayText('birthDateRequired').superRefine((day, ctx) => {
    if (day < EARLIEST_BIRTH_DATE) ctx.addIssue({ code: 'custom', message: 'birthDateTooEarly' });
  }),
  telephone: optionalText(40),
  occupation: optionalText(80),
  guardian: optionalText(120),
};

export const createWearerForm = z.object({ ...identity, sameNameIsAnother: z.boolean().optional() });
export const updateWearerForm = z.object({ ...identity, wearerId: uuid, version });
export const searchForm = z.object({ search: z.string().trim().max(120).default('') });
export const wearerForm = z.object({ wearerId: uuid });
export const emptyForm = z.object({});

export const visitKind = z.enum(['firstFit', 'refit', 'lesson', 'aftercare', 'collection'], { error: 'required' });
export const openVisitForm = z.object({ wearerId: uuid, kind: visitKind, appointmentId: uuid.nullable().default(null) });
export const visitForm = z.object({ visitId: uuid });
export const closeVisitForm = z.object(inVisit);
export const draftForm = z.object({
  visitId: uuid,
  step: z.enum(['history', 'eyeHealth', 'power', 'lens', 'onEye', 'final', 'teach', 'supply']),
  body: z.record(z.string().max(60), z.string().max(2000)),
  sequence: z.number().int().nonnegative(),
});

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

/** A lens of a family in the library. */
export const lensSpec = z.object({
  familyId: uuid,
  sphere: limited('sphere'),
  cylinder: limited('cylinder'),
  axis: limited('axis'),
  add: z.enum(['low', 'medium', 'high']).nullable(),
  baseCurve: limited('baseCurveMm'),
  diameter: limited('diameterMm'),
});
export type LensSpecInput = z.infer<typeof lensSpec>;

export const putOnForm = z
  .object({
    ...inVisit,
    right: lensSpec.nullable(),
    left: lensSpec.nullable(),
    /** Why a lens the wearer stopped with is tried again. */
    sameLensReason: optionalText(400),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });

export const broughtInForm = z.object({
  ...inVisit,
  eye,
  /** What it is called: from the box, or as the wearer says. */
  description: z.string({ error: 'lensNameRequired' }).trim().min(2, 'lensNameRequired').max(120, 'tooLong'),
  /** Null when nobody knows the power: then nothing can be read against it. */
  power: refractionText.nullable(),
  modality: z.enum(['daily', 'twoWeekly', 'monthly']).default('monthly'),
  how: z.enum(['wearerSaid', 'boxSeen']).nullable(),
});
export const confirmLensForm = z.object({ ...inVisit, lensOnEyeId: uuid, how: z.enum(['wearerSaid', 'boxSeen']) });
export const putBackForm = z.object({ ...inVisit, lensOnEyeId: uuid, reason });
export const takeOffForm = z.object({ ...inVisit, lensOnEyeIds: z.array(uuid).min(1).max(2) });

/** One blink: where the mark sits, and how it was read. */
const blink = z
  .object({
    rotationLeft: limited('rotationLeft'),
    how: z.enum(READ_HOW).default('typed'),
    scaleReading: z.number().int().min(0, 'rotation_offScale').max(180, 'rotation_offScale').nullable().default(null),
    instrumentId: uuid.nullable().default(null),
  })
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

const onScale = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'rotation_offScale').max(180, 'rotation_offScale');
export const addInstrumentForm = z.object({
  name: z.string({ error: 'nameRequired' }).trim().min(1, 'nameRequired').max(60, 'tooLong'),
  readStraight: onScale,
  readTurned: onScale,
});
export const endInstrumentForm = z.object({ instrumentId: uuid });

/** A correction by kind of fact; `value` null means: this should not stand at all. */
export const correctForm = z.discriminatedUnion('kind', [
  z.object({
    ...inVisit,
    reason,
    factId: uuid,
    kind: z.literal('refraction'),
    value: z.object({ text: refractionText, vertexMm: limited('vertexMm') }).nullable(),
  }),
  z.object({
    ...inVisit,
    reason,
    factId: uuid,
    kind: z.literal('overRefraction'),
    value: z.object({ text: refractionText, vertexMm: limited('vertexMm') }).nullable(),
  }),
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('rotation'), value: z.object({ rotationLeft: limited('rotationLeft') }).nullable() }),
  z.object({
    ...inVisit,
    reason,
    factId: uuid,
    kind: z.literal('finding'),
    value: z.object({ value: z.union([z.number({ error: 'notANumber' }), z.string().max(30)]) }).nullable(),
  }),
  z.object({
    ...inVisit,
    reason,
    factId: uuid,
    kind: z.literal('lensFinding'),
    value: z
      .object({ value: z.union([z.number({ error: 'notANumber' }), z.string().max(30)]), typed: z.string().trim().min(1).max(40).nullable().default(null) })
      .nullable(),
  }),
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('acuityBoth'), value: acuity.nullable() }),
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('fit'), value: z.object({ verdict: z.enum(FIT_WORDS) }).nullable() }),
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('lensOnEye'), value: z.null(), backInDrawer: z.boolean().default(false) }),
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('lessonAttempt'), value: z.object({ worked: z.boolean() }).nullable() }),
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('lessonTopic'), value: z.null() }),
  z.object({
    ...inVisit,
    reason,
    factId: uuid,
    kind: z.literal('handOver'),
    value: z.object({ lot: z.string().trim().min(1, 'lotRequired').max(40, 'tooLong'), expiresOn: dayText('expiryRequired') }).nullable(),
  }),
]);
export const swapForm = z.object({ ...inVisit, kind: z.enum(['refraction', 'lensOnEye', 'rotation', 'overRefraction']), reason });
export const undoForm = z.object({
  ...inVisit,
  facts: z
    .array(
      z.object({
        kind: z.enum([
          'refraction',
          'finding',
          'lensOnEye',
          'fit',
          'rotation',
          'overRefraction',
          'lensFinding',
          'acuityBoth',
          'lessonAttempt',
          'lessonTopic',
          'handOver',
        ]),
        id: uuid,
      }),
    )
    .min(1)
    .max(80),
});

/** One eye: a lens in final figures, or, raw, the lens that was on it with the curve to order. */
const prescribedEye = z.discriminatedUnion('mode', [
  z.object({ mode: z.literal('final'), lens: lensSpec, triedLensOnEyeId: uuid.nullable() }),
  z.object({ mode: z.literal('raw'), triedLensOnEyeId: uuid, baseCurve: limited('baseCurveMm'), diameter: limited('diameterMm') }),
]);
export const signForm = z
  .object({
    ...inVisit,
    password: z.string({ error: 'passwordRequired' }).min(1, 'passwordRequired').max(200),
    right: prescribedEye.nullable(),
    left: prescribedEye.nullable(),
    expiresOn: dayText('expiryRequired'),
    waitNote: optionalText(600),
    daysPerWeek: z.number().int().min(1, 'daysPerWeek').max(7, 'daysPerWeek'),
  })
  .refine((form) => form.right !== null || form.left !== null, { message: 'oneEyeRequired', path: ['right'] });

export const startLessonForm = z.object({ ...inVisit, handler: optionalText(120) });
export const attemptForm = z.object({
  ...inVisit,
  lessonId: uuid,
  eye,
  move: z.enum(['on', 'off']),
  worked: z.boolean(),
  unaided: z.boolean().default(true),
  miss: z.enum(['blinked', 'lashes', 'lidSlipped', 'folded', 'fell']).nullable(),
});
export const topicForm = z.object({ ...inVisit, lessonId: uuid, topic: z.string().max(60) });
export const signOffForm = z.object({ ...inVisit, lessonId: uuid });

const handedOver = z.object({
  lensOnEyeId: uuid,
  lot: z.string({ error: 'lotRequired' }).trim().min(1, 'lotRequired').max(40, 'tooLong'),
  expiresOn: dayText('expiryRequired'),
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

const packs = z.number({ error: 'notANumber' }).int('wholeNumber').min(0, 'packsOutOfRange').max(60, 'packsOutOfRange');
export const orderForm = z
  .object({ ...inVisit, requestKey: uuid, prescriptionId: uuid, rightPacks: packs, leftPacks: packs })
  .refine((form) => form.rightPacks + form.leftPacks > 0, { message: 'packsRequired', path: ['rightPacks'] });
export const hastenForm = z.object({ orderId: uuid, visitId: uuid });

export const lightsForm = z.object({ deviceId: uuid, lights: z.enum(['up', 'down']) });
export const clockForm = z.object({ frozenAt: z.iso.datetime().nullable(), offsetSeconds: z.number().int() });

export const password = z.string({ error: 'passwordRequired' }).min(10, 'passwordTooShort').max(200, 'tooLong');
const role = z.enum(['prescriber', 'technician', 'coordinator', 'admin']);
export const addStaffForm = z
  .object({
    account: z
      .string({ error: 'required' })
      .trim()
      .toLowerCase()
      .regex(/^[a-z0-9._-]{2,40}$/, 'accountShape'),
    displayName: z.string({ error: 'nameRequired' }).trim().min(1, 'nameRequired').max(120, 'tooLong'),
    title: z.string().trim().min(1, 'required').max(80, 'tooLong'),
    registerNumber: optionalText(40),
    roles: z.array(role).min(1, 'roleRequired'),
    password,
  })
  .refine((form) => !form.roles.includes('prescriber') || form.registerNumber !== null, { message: 'registerRequired', path: ['registerNumber'] });
export const endStaffForm = z.object({ personId: uuid, version });
export const resetPasswordForm = z.object({ personId: uuid, password });
export const signInForm = z.object({
  account: z.string({ error: 'required' }).trim().toLowerCase().min(1, 'required').max(40),
  password: z.string({ error: 'passwordRequired' }).min(1, 'passwordRequired').max(200),
});
