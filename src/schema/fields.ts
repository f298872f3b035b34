import { z } from 'zod';
import {
  ACUITY_LIMITS,
  type LensAdd,
  type LimitName,
  LIMITS,
  onStep,
  parseAdd,
  parseLensAdd,
  parseDay,
  parseRefraction,
  parseTime,
  type Refraction,
  splitPrism,
  withinLimit,
} from '../core';

/** Messages of these shapes are problem codes: words are made where they are shown. */

/** A prescription as typed, read by `parseRefraction`; its problems keep their data and repairs. */
export const refractionText = z.string({ error: 'required' }).transform((text, ctx): { typed: string; power: Refraction; prism: string | null } => {
  const read = parseRefraction(text);
  if (read.ok) return { typed: text.trim(), power: read.value, prism: splitPrism(text).prism?.slice(0, 60) ?? null };
  ctx.addIssue({ code: 'custom', message: read.error.code, params: { data: read.error.data, repairs: read.error.repairs } });
  return z.NEVER;
});

/** An addition as it stands on a box. */
export const lensAdd = z.string({ error: 'required' }).transform((text, ctx): LensAdd => {
  const add = parseLensAdd(text);
  if (add) return add;
  ctx.addIssue({ code: 'custom', message: 'lensAddUnknown', params: { data: { typed: text.slice(0, 20) } } });
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

/** A time of day as typed: minutes from midnight. */
export const timeText = z.string({ error: 'timeRequired' }).transform((text, ctx): number => {
  const read = parseTime(text);
  if (read.ok) return read.value;
  ctx.addIssue({ code: 'custom', message: read.error.code === 'empty' ? 'timeRequired' : 'notATime', params: { data: { typed: text.trim().slice(0, 40) } } });
  return z.NEVER;
});

export const optionalText = (max: number) =>
  z
    .string()
    .trim()
    .max(max, 'tooLong')
    .optional()
    .transform((text) => (text ? text : null));

export const eye = z.enum(['right', 'left'], { error: 'required' });
export const uuid = z.uuid({ error: 'notAnIdentity' });
/** Most that a whole number of the database can be: whatever is larger is no version of anything. */
export const MOST_WHOLE = 2_147_483_647;
export const version = z.number().int().positive().max(MOST_WHOLE);

/** Characters that cannot be seen, or that turn the writing around, but for the two joiners that some scripts spell with. */
const HIDDEN = /(?![\u200c\u200d])[\p{Cc}\p{Cf}\p{Zl}\p{Zp}\p{Co}]/u;
const spaced = (text: string | undefined): string => (text ?? '').replace(/\p{Zs}+/gu, ' ').trim();
const seen = (max: number) =>
  z
    .string()
    .max(max, 'tooLong')
    .refine((text) => !HIDDEN.test(text), 'hiddenCharacters');
/** A name as it is written: one space between its parts, nothing hidden in it. */
export const nameText = (max: number, missing: string) => z.string({ error: missing }).transform(spaced).pipe(seen(max).min(1, missing));
/** A lot as it stands on a pack. */
export const lotText = nameText(40, 'lotRequired');
/** A name that may be left out. */
export const optionalName = (max: number) =>
  z
    .string()
    .optional()
    .transform(spaced)
    .pipe(seen(max))
    .transform((text) => (text === '' ? null : text));
export const reason = z.string({ error: 'reasonRequired' }).trim().min(3, 'reasonRequired').max(400, 'tooLong');
export const inVisit = { visitId: uuid, version };
export const emptyForm = z.object({});
