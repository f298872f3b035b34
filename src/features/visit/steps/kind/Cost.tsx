'use client';
import type { Kind } from '@/core';
import { asShortlisted, productOf } from '../../shell/candidates';
import { CostOfYear, type CostOption } from '../../shell/CostOfYear';
import { useKindName } from '../../shell/kindWords';
import { useVisit } from '../../shell/VisitProvider';
import { firstFamily, type Needs } from './model';

/** What a year of both kinds costs, by the lens of each to try first. */
export function Cost({ first, second, needs }: { readonly first: Kind; readonly second: Kind | null; readonly needs: Needs }) {
  const kindName = useKindName();
  const { record } = useVisit();
  const options = [first, second].flatMap((kind): CostOption[] => {
    const family = kind && firstFamily(record, kind, needs);
    return kind && family ? [{ key: kind.modality, name: kindName(kind), family: asShortlisted(family) }] : [];
  });
  return (
    <div className="mt-5">
      <CostOfYear options={options} needs={needs} product={productOf(record, undefined)} />
    </div>
  );
}
