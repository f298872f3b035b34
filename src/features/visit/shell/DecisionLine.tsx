'use client';
import { useTranslations } from 'use-intl';
import { formatTime } from '@/i18n/format';
import { decisionOf } from './health';
import { useKindName } from './kindWords';
import { useVisit } from './VisitProvider';

/** The decision that holds, in one sentence. */
export function DecisionLine() {
  const t = useTranslations('kind');
  const kindName = useKindName();
  const { record } = useVisit();
  const d = decisionOf(record);
  if (!d) return <>{t('noKind')}</>;
  const base = { kind: kindName(d.chosen), name: d.decidedByName, time: formatTime(d.decidedAt, record.session.practice.timeZone) };
  return (
    <>
      {d.asRecommended
        ? t('decidedAs', base)
        : t('decidedOther', { ...base, recommended: d.recommended ? kindName(d.recommended) : '', reason: d.reason ?? '' })}
    </>
  );
}
