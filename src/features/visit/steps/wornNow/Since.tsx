'use client';
import { useTranslations } from 'use-intl';
import { EYES, WORN_HOW } from '@/core';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import { HOURS, timeOf } from '../../shell/worn';
import type { AskingState } from './useAsking';

/** Since when the lenses are in, and how it is known which they are: once for both eyes. */
export function Since({ asking }: { readonly asking: AskingState }) {
  const t = useTranslations('wornNow');
  const words = useProblemWords();
  const { problem } = useVisit();
  const time = problemAt(problem, 'since', 'time') ?? problemAt(problem, 'since');
  const days = problemAt(problem, 'since', 'daysAgo');
  const waits = EYES.some((eye) => asking.pending[eye]);
  return (
    <div className="flex flex-wrap gap-4 items-start px-6 pt-3 border-t border-rule">
      <div className="mb-3">
        <div className="field-label">{t('since')}</div>
        <Segment
          label={t('since')}
          values={HOURS}
          value={HOURS.find((hour) => asking.since === timeOf(hour))}
          word={String}
          onChoose={(hour) => asking.pressHour(timeOf(hour))}
          disabled={asking.closed}
        />
      </div>
      <Field
        id="worn-since"
        className="w-[110px]"
        label={t('sinceLabel')}
        value={asking.since}
        onValue={asking.setSince}
        hint={t('sinceHint')}
        problem={time ? words(time.code, time.data) : waits && asking.since.trim() !== '' ? words('notATime', { typed: asking.since }) : null}
        onKeyDown={(event) => {
          if (event.key === 'Enter') asking.letGo();
        }}
        autoComplete="off"
      />
      <Field
        className="w-[120px]"
        label={t('daysAgo')}
        value={asking.daysAgo}
        onValue={asking.setDaysAgo}
        inputMode="numeric"
        problem={days ? words(days.code, days.data) : null}
        autoComplete="off"
      />
      <div className="mb-3">
        <div className="field-label">{t('how')}</div>
        <Segment label={t('how')} values={WORN_HOW} value={asking.how} word={(how) => t(`hows.${how}`)} onChoose={asking.setHow} disabled={asking.closed} />
      </div>
    </div>
  );
}
