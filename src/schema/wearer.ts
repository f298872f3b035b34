import { EARLIEST_BIRTH_DATE } from '../core';
import { dayText, nameText, optionalName, optionalText, uuid, version } from './fields';
import { z } from 'zod';

const identity = {
  name: nameText(120, 'nameRequired'),
  birthDate: dayText('birthDateRequired').superRefine((day, ctx) => {
    if (day < EARLIEST_BIRTH_DATE) ctx.addIssue({ code: 'custom', message: 'birthDateTooEarly' });
  }),
  telephone: optionalText(40),
  occupation: optionalText(80),
  guardian: optionalName(120),
};

export const createWearerForm = z.object({ ...identity, sameNameIsAnother: z.boolean().optional() });
export const updateWearerForm = z.object({ ...identity, wearerId: uuid, version });
/** `after`: the last wearer of the page before; only the whole list has pages. */
export const searchForm = z.object({
  search: z.string().trim().max(120).default(''),
  after: z
    .object({ name: z.string().max(120), id: uuid })
    .nullable()
    .default(null),
});
/** `after`: the last visit of the page before. */
export const wearerForm = z.object({ wearerId: uuid, after: z.object({ openedAt: z.iso.datetime(), id: uuid }).nullable().default(null) });
