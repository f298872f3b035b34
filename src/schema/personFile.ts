import { z } from 'zod';
import { TIMELINE_FILTERS } from '../core';
import { uuid } from './fields';

export const exportPersonForm = z.object({ wearerId: uuid });
/** `before`: the last line of the page before. `whole`: everything at once, for paper. */
export const timelineForm = z.object({
  wearerId: uuid,
  filter: z.enum(TIMELINE_FILTERS).default('all'),
  before: z.object({ at: z.iso.datetime(), id: uuid }).nullable().default(null),
  whole: z.boolean().default(false),
});
