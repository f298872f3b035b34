import { z } from 'zod';
import { FACT_KIND_NAMES, FIT_WORDS, SWAPPABLE, type FactKind, type SwappableKind } from '../core';
import { acuity, dayText, inVisit, limited, reason, refractionText, uuid } from './fields';

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
  z.object({ ...inVisit, reason, factId: uuid, kind: z.literal('eyeAcuity'), value: acuity.nullable() }),
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
export const swapForm = z.object({ ...inVisit, kind: z.enum(SWAPPABLE as [SwappableKind, ...SwappableKind[]]), reason });
export const undoForm = z.object({
  ...inVisit,
  facts: z
    .array(
      z.object({
        kind: z.enum(FACT_KIND_NAMES as [FactKind, ...FactKind[]]),
        id: uuid,
      }),
    )
    .min(1)
    .max(80),
});
