'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { firstStep, stepSlug, type VisitRow, type WearerFile } from '@/core';
import { formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';

/** The visits of a wearer, newest first, by pages. */
export function Visits({ file, zone }: { readonly file: WearerFile; readonly zone: string }) {
  const t = useTranslations('wearer');
  const today = useTranslations('today');
  const { query } = useServer();
  const [earlier, setEarlier] = useState<readonly VisitRow[]>([]);
  const [more, setMore] = useState(file.moreVisits);
  const [busy, setBusy] = useState(false);
  const shown = [...file.visits, ...earlier];
  const last = shown.at(-1);
  const showMore = async (): Promise<void> => {
    if (!last) return;
    setBusy(true);
    const page = await query('readWearer', { wearerId: file.wearer.id, after: { openedAt: last.openedAt, id: last.id } });
    setBusy(false);
    if (!page?.ok) return;
    setEarlier([...earlier, ...page.value.visits]);
    setMore(page.value.moreVisits);
  };
  return (
    <section className="p-6">
      <h2 className="border-b border-rule-2 pb-1">{t('visits')}</h2>
      {shown.length === 0 ? <p className="py-3 label">{t('noVisits')}</p> : null}
      {shown.map((v) => (
        <div key={v.id} className="flex justify-between gap-4 border-b border-rule py-2">
          <Link href={`/visits/${v.id}/${stepSlug(firstStep(v.kind))}`} prefetch={false} className="value flex-1">
            {today(`kind.${v.kind}`)}
          </Link>
          <span className="label w-40 shrink-0 self-center">{formatMoment(v.openedAt, zone)}</span>
          {v.closedAt ? <Stated state="ok">{t('closed')}</Stated> : <Stated state="watch">{t('open')}</Stated>}
        </div>
      ))}
      {more ? (
        <p className="pt-3">
          <Button disabled={busy} onClick={() => void showMore()}>
            {t('earlierVisits')}
          </Button>
        </p>
      ) : null}
    </section>
  );
}
