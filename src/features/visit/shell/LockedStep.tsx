'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { StateMark } from '@/ui/marks';
import { useVisit } from './VisitProvider';

/** What a step shows while an absolute stop stands: no way on, and the two ways that are open. */
export function LockedStep() {
  const t = useTranslations('visitFrame');
  const stops = useWordsOf('ruleNames');
  const { record } = useVisit();
  const base = `/visits/${record.visit.id}`;
  return (
    <div className="p-8 max-w-[620px] flex flex-col gap-4" data-testid="shut">
      <div className="flex gap-4 items-center">
        <span className="text-stop">
          <StateMark state="stop" size={48} />
        </span>
        <h1 className="power">{t('shutTitle')}</h1>
      </div>
      <p>{t('shutText', { name: record.stops.map((rule) => stops(rule)).join(', ') })}</p>
      <p className="flex gap-3">
        <Link className="btn btn-act" href={`${base}/eye-health`} prefetch={false}>
          {t('shutGo')}
        </Link>
        <Link className="btn btn-plain" href={`${base}/print/referral`} prefetch={false}>
          {t('shutPrint')}
        </Link>
      </p>
    </div>
  );
}
