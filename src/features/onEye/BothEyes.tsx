'use client';
import { useTranslations } from 'use-intl';
import { EYES, formatAcuity } from '@/core';
import { Stated } from '@/ui/marks';
import { AcuityField } from '../common/AcuityField';
import { problemAt } from '../common/words';
import { Correctable } from '../common/visit/Correct';
import { useVisit } from '../common/visit/VisitProvider';
import type { Readings } from './useReadings';

/** What both eyes see together through the two lenses: it lies on the spine, being of neither eye alone. */
export function BothEyes({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('sightDesk');
  const onEye = useTranslations('onEye');
  const { record, problem } = useVisit();
  const { together, lostTogether, draft } = readings;
  const notation = record.house.settings.acuity;
  if (!EYES.every((e) => readings.live[e].state.onEye)) return <>{t('bothEyesNeed')}</>;
  return (
    <span className="flex flex-col items-center gap-1" data-testid="both-eyes">
      <AcuityField
        id="both-va"
        label={t('bothEyesLabel')}
        text={draft.body.bothVa ?? ''}
        onText={(text) => draft.set('bothVa', text)}
        disabled={!EYES.every((e) => readings.usable(e))}
        problem={problemAt(problem, 'both', 'acuity')}
      />
      {together ? (
        <>
          <span className="value">{formatAcuity(together.current.acuityLogMar, notation)}</span>
          {together.current.provisional ? <Stated state="watch">{onEye('provisional')}</Stated> : null}
          <Correctable
            kind="acuityBoth"
            chain={together}
            show={(row) => formatAcuity(row.acuityLogMar, notation)}
            typed="acuity"
            textOf={(row) => row.acuityTyped}
          />
        </>
      ) : null}
      {lostTogether === null ? null : <Stated state="watch">{t('lostTogether', { lines: Math.round(lostTogether) })}</Stated>}
    </span>
  );
}
