'use client';
import type { ReactNode } from 'react';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { formatDay, formatRecord } from '@/i18n/format';
import type { WearerFile } from '@/core';
import { WallClock } from './Clock';
import { SettleClocks } from './LazySettleClocks';

/** Whose this is: name and birth date, always, so that nobody works on the wrong wearer. */
export function WearerStrip({ wearer, lines }: { readonly wearer: WearerFile['wearer']; readonly lines?: ReactNode }) {
  const t = useTranslations('frame');
  return (
    <>
      <div className="px-6 py-2 flex flex-col justify-center min-w-0">
        <Link href={`/wearers/${wearer.id}`} prefetch={false} className="power">
          {wearer.name}
        </Link>
        <div className="label" data-testid="birth-date">
          <span className="font-[560] text-ink">{t('born', { day: formatDay(wearer.birthDate) })}</span>{' '}
          {t('ageRecord', { age: wearer.age, record: formatRecord(wearer.recordNumber) })}
        </div>
      </div>
      {wearer.guardian ? (
        <div className="strip-cell drop-narrow">
          <div className="label">{t('guardian')}</div>
          <div>{wearer.guardian}</div>
        </div>
      ) : null}
      {lines}
      <span className="ml-auto" />
      <SettleClocks />
      <WallClock />
    </>
  );
}
