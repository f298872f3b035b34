import { z } from 'zod';
import { FACT_KIND_NAMES, FACT_KINDS, FIT_WORDS, SWAPPABLE, type FactKind, type SwappableKind } from '../core';
import { acuity, dayText, inVisit, limited, lotText, reason, refractionText, uuid } from './fields';

/** The right value of a fact, by what it is given as. */
const newValue = z.discriminatedUnion('as', [
  z.object({ as: z.literal('power'), text: refractionText, vertexMm: limited('vertexMm') }),
  z.object({ as: z.literal('rotation'), rotationLeft: limited('rotationLeft') }),
  acuity.extend({ as: z.literal('acuity') }),
  z.object({ as: z.literal('fit'), verdict: z.enum(FIT_WORDS) }),
  z.object({ as: z.literal('box'), lot: lotText, expiresOn: dayText('expiryRequired') }),
  z.object({
    as: z.literal('sign'),
    value: z.union([z.number({ error: 'notANumber' }), z.string().max(30)]),
    typed: z.string().trim().min(1).max(40).nullable().default(null),
  }),
]);
const kindOfFact = z.enum(FACT_KIND_NAMES as [FactKind, ...FactKind[]]);

/** A correction of any kind of fact; `value` null means: this should not stand at all. */
export const correctForm = z
  .object({ ...inVisit, reason, factId: uuid, kind: kindOfFact, value: newValue.nullable(), backInDrawer: z.boolean().default(false) })
  .refine(({ kind, value }) => value === null || value.as === FACT_KINDS[kind].takes, { path: ['value'], error: 'notUnderstood' });
export const swapForm = z.object({ ...inVisit, kind: z.enum(SWAPPABLE as [SwappableKind, ...SwappableKind[]]), reason });
export const undoForm = z.object({
  ...inVisit,
  facts: z
    .array(z.object({ kind: kindOfFact, id: uuid }))
    .min(1)
    .max(80),
});
