'use client';
import { useTranslations } from 'use-intl';
import { DKT_LIMITS, isPassableFilter, may } from '@/core';
import { formatDay } from '@/i18n/format';
import { StateMark } from '@/ui/marks';
import type { LeftOut } from '../../shell/candidates';
import { useVisit } from '../../shell/VisitProvider';

/** Families that the list does not hold, each with what leaves it out and where that comes from. */
export function LeftOutList({ leftOut, onAnyway }: { readonly leftOut: readonly LeftOut[]; readonly onAnyway: (code: string) => void }) {
  const t = useTranslations('lens');
  const ofFamily = useTranslations('family');
  const { record } = useVisit();
  const limits = DKT_LIMITS[record.session.settings.oxygenSchool];
  if (leftOut.length === 0) return null;
  return (
    <details className="px-6 py-3 max-w-[860px] mx-auto" data-testid="left-out">
      <summary className="cursor-pointer">
        <strong>{t('leftOutTitle')}</strong> <span className="label">{t('leftOutCount', { count: leftOut.length })}</span>
      </summary>
      <ul className="mt-2">
        {leftOut.map(({ family, by }) => (
          <li key={family.code} className="border-t border-rule py-2 flex gap-3 items-baseline flex-wrap">
            <StateMark state="stop" />
            <strong>{family.name}</strong>
            <span>
              {t(`by.${by.id}`, {
                last: family.lastOrderOn ? formatDay(family.lastOrderOn) : '',
                dkt: family.dktThickest ?? ofFamily('unknown'),
                limit: by.id === 'oxygenByDay' ? limits.day : limits.overnight,
                age: family.minAge ?? 0,
              })}
            </span>
            <span className="note">{t(`source.${by.source.mark}`)}</span>
            {isPassableFilter(by.id) && (by.id === 'failedBefore' || may(record.session.viewer.roles, 'sign')) ? (
              <button type="button" className="btn btn-quiet" onClick={() => onAnyway(family.code)}>
                {t('chooseAnyway')}
              </button>
            ) : null}
          </li>
        ))}
      </ul>
    </details>
  );
}
