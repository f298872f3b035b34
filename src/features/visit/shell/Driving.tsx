'use client';
import { useTranslations } from 'use-intl';
import { DRIVING_WORDS, drivingSaid, farOfBoth, formatAcuity, type DrivingWord } from '@/core';
import drivingWords from '@/i18n/messages/en/driving.messages.json';
import { formatDay } from '@/i18n/format';
import { withWords } from '@/i18n/withWords';
import { Segment } from '@/ui/Segment';
import { useVisit } from './VisitProvider';

/** Driving with lenses that serve near: one press, kept before they go home. */
function DrivingAsked() {
  const t = useTranslations('driving');
  const { record, run, busy } = useVisit();
  const { acuity, drivingDecimal } = record.session.settings;
  const said = drivingSaid(record.nearFindings);
  const word = DRIVING_WORDS.find((w) => w === said?.wordValue);
  const far = farOfBoth(record.facts);
  const keep = (value: DrivingWord): void => void run('recordDriving', { said: value }, t('recorded'));
  return (
    <section className="px-6 py-3" aria-label={t('title')} data-testid="driving">
      <h3 className="font-[620] mb-1">{t('title')}</h3>
      <p className="note">{t('say')}</p>
      <Segment
        label={t('title')}
        kind="wrapping"
        values={DRIVING_WORDS}
        value={word}
        word={(w) => t(`word.${w}`)}
        disabled={busy || record.visit.closedAt !== null}
        onChoose={keep}
      />
      {said && word ? (
        <p className="note">{t('kept', { word: t(`word.${word}`), day: formatDay(said.recordedAt.slice(0, 10)), name: said.recordedByName })}</p>
      ) : null}
      <p className="note">
        {t('needs', { least: formatAcuity(-Math.log10(drivingDecimal), acuity) })} {far === null ? null : t('read', { acuity: formatAcuity(far, acuity) })}
      </p>
    </section>
  );
}

export const Driving = withWords({ driving: drivingWords }, DrivingAsked);
