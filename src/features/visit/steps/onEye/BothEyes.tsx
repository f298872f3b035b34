'use client';
import { useTranslations } from 'use-intl';
import { EYES, formatAcuity, type Eye } from '@/core';
import { Stated } from '@/ui/marks';
import { AcuityField } from '../../../common/AcuityField';
import { problemAt } from '../../../common/words';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import type { Readings } from './useReadings';

/** What both eyes see together through the two lenses: it lies on the spine, being of neither eye alone. */
export function BothEyes({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('sightDesk');
  const { record, problem } = useVisit();
  const { together, draft, bothOn } = readings;
  const text = draft.body.bothVa ?? '';
  const notation = record.session.settings.acuity;
  if (text === '' && !EYES.every((e) => readings.live[e].state.onEye)) return <>{t('bothEyesNeed')}</>;
  return (
    <span className="flex flex-col items-center gap-1" data-testid="both-eyes">
      <AcuityField
        id="both-va"
        label={t('bothEyesLabel')}
        text={text}
        onText={(typed) => draft.set('bothVa', typed)}
        // What was typed before a lens came off can still be taken away.
        disabled={!bothOn && text === ''}
        problem={bothOn || text.trim() === '' ? problemAt(problem, 'both', 'acuity') : { code: 'bothLensesNeeded' }}
      />
      {together ? (
        <span className="flex flex-wrap items-baseline justify-center gap-2">
          <span className="value">{formatAcuity(together.current.acuityLogMar, notation)}</span>
          <Correctable kind="acuityBoth" chain={together} show={(row) => formatAcuity(row.acuityLogMar, notation)} textOf={(row) => row.acuityTyped} />
        </span>
      ) : null}
      {together?.current.provisional ? <Stated state="watch">{t('bothEarly')}</Stated> : null}
    </span>
  );
}

/** Two eyes see at least as much as the better one: where they do not, the weaker eye's lens is looked at again. */
export function LostTogether({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('sightDesk');
  const { lostTogether, live } = readings;
  const mine = live[eye].acuities.lens;
  const other = live[eye === 'right' ? 'left' : 'right'].acuities.lens;
  const weaker = mine !== null && (other === null || mine >= other);
  return lostTogether !== null && weaker ? <Stated state="watch">{t('lostTogether', { lines: Math.round(lostTogether) })}</Stated> : null;
}
