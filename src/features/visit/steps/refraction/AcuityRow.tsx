'use client';
import { useTranslations } from 'use-intl';
import { formatAcuity, type Eye } from '@/core';
import { SpineRow } from '@/ui/Spine';
import { AcuityField } from '../../../common/AcuityField';
import { useEyeWords } from '../../../common/eyeWords';
import type { Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';

/** Sight with these glasses: what a lens has to come up to. */
export function AcuityRow({ draft }: { readonly draft: Draft<'refraction'> }) {
  const t = useTranslations('refraction');
  const eyeWords = useEyeWords();
  const { record, eye } = useVisit();
  const cell = (e: Eye) => {
    const recorded = eye(e).refraction?.current.acuityLogMar ?? null;
    return (
      <>
        <AcuityField
          id={`va-${e}`}
          label={t('acuityLabel', { eye: eyeWords.name(e) })}
          text={draft.body[`${e}Va`] ?? ''}
          onText={(text) => draft.set(`${e}Va`, text)}
          disabled={record.visit.closedAt !== null}
          problem={null}
        />
        {recorded === null ? null : (
          <span className="note" data-testid={`va-recorded-${e}`}>
            {formatAcuity(recorded, record.session.settings.acuity)}
          </span>
        )}
      </>
    );
  };
  return <SpineRow label={t('acuity')} note={t('acuityNote')} right={cell('right')} left={cell('left')} />;
}
