'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import instrumentWords from '@/i18n/messages/en/instrument.messages.json';
import { withWords } from '@/i18n/withWords';
import { useVisit } from '../../shell/VisitProvider';
import type { Readings } from './useReadings';

const SetUpInstrument = lazy(() => import('./SetUpInstrument').then((m) => ({ default: m.SetUpInstrument })));

/** Which slit lamp stands here. Without one a bare number is never turned into a direction. */
function InstrumentChoicePart({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('instrument');
  const { record } = useVisit();
  const [open, setOpen] = useState(false);
  const { instrument } = readings;
  return (
    <span className="flex flex-col gap-1 items-center">
      {record.instruments.length > 0 ? (
        <select className="choice" aria-label={t('label')} value={instrument?.id ?? ''} onChange={(event) => readings.chooseInstrument(event.target.value)}>
          <option value="">{t('none')}</option>
          {record.instruments.map((i) => (
            <option key={i.id} value={i.id}>
              {i.name}
            </option>
          ))}
        </select>
      ) : null}
      <span className="note">{instrument ? t('reads', { zero: instrument.zero, side: t(`grows.${instrument.grows}`) }) : t('noScale')}</span>
      <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)}>
        {t('setUp')}
      </button>
      {open ? (
        <Suspense fallback={null}>
          <SetUpInstrument onClose={() => setOpen(false)} onAdded={readings.chooseInstrument} />
        </Suspense>
      ) : null}
    </span>
  );
}

export const InstrumentChoice = withWords({ instrument: instrumentWords }, InstrumentChoicePart);
