import { z } from 'zod';
import { LINK_PURPOSES } from '../core';
import { uuid } from './fields';

/** `subjectId`: the lesson, or the visit of which the paper is. */
export const openLinkForm = z.object({ purpose: z.enum(LINK_PURPOSES), subjectId: uuid });
export const endLinkForm = z.object({ linkId: uuid });
export const takeHomeForm = z.object({ visitId: uuid });
