import { disinfects } from '@/core';
import type { VisitRecord } from './visitData';

export type CareProduct = VisitRecord['careProducts'][number];

/** Care products on sale that lenses can be kept with; the first is taken while nobody chose. */
export const onSale = (record: Pick<VisitRecord, 'careProducts'>): readonly CareProduct[] =>
  record.careProducts.filter((p) => !p.ended && disinfects(p.system));
