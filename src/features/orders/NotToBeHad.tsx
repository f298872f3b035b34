'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { OrderStage } from '@/core';

/** Boxes that come late, or not at all: the ways on, none of which is another lens without a prescription. */
export function NotToBeHad({ stage, wearerId }: { readonly stage: OrderStage; readonly wearerId: string }) {
  const t = useTranslations('orderPage');
  if (stage !== 'backordered' && stage !== 'delayed' && stage !== 'refused') return null;
  return (
    <div className="py-2 flex flex-wrap gap-x-4 gap-y-2 items-center" data-testid="not-to-be-had">
      <p className="grow basis-[380px]">{t(stage === 'refused' ? 'refused' : 'waits')}</p>
      <Link className="btn btn-quiet" href={`/wearers/${wearerId}/reorder`} prefetch={false}>
        {t('until')}
      </Link>
      <Link className="btn" href={`/diary?for=${wearerId}&visit=refit`} prefetch={false}>
        {t('refit')}
      </Link>
    </div>
  );
}
