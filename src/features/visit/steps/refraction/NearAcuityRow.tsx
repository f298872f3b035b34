'use client';
import { useTranslations } from 'use-intl';
import { formatAcuity, parseNearAcuity, sizeInM, USUAL_NEAR_CM, type Eye } from '@/core';
import { Field } from '@/ui/Field';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import type { Powers } from './useRefraction';

/** Near sight with the add, in points or in M, at the near distance. */
export function NearAcuityRow({ powers }: { readonly powers: Powers }) {
  const t = useTranslations('refraction');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record, eye, problem } = useVisit();
  const { draft, nearCm } = powers;
  const { acuity } = record.session.settings;
  const cell = (e: Eye) => {
    const text = draft.body[`${e}NearVa`] ?? '';
    const read = text.trim() === '' ? null : parseNearAcuity(text, nearCm ?? USUAL_NEAR_CM);
    const server = problemAt(problem, `${e}Near`);
    const fault = read && !read.ok ? read.error : server;
    const row = eye(e).refraction?.current;
    return (
      <Field
        id={`near-va-${e}`}
        label={t('nearAcuityLabel', { eye: eyeWords.name(e) })}
        hideLabel
        mono
        className="max-w-[150px]"
        autoComplete="off"
        disabled={record.visit.closedAt !== null}
        value={text}
        onValue={(value) => draft.set(`${e}NearVa`, value)}
        problem={fault ? words(fault.code, fault.data) : null}
        hint={
          read?.ok ? (
            t('nearAngle', { size: sizeInM(read.value, nearCm ?? USUAL_NEAR_CM).toFixed(2), acuity: formatAcuity(read.value, acuity) })
          ) : row?.nearAcuityTyped && row.nearAcuityLogMar !== null ? (
            <span data-testid={`near-recorded-${e}`}>
              {t('nearRecorded', { typed: row.nearAcuityTyped, cm: row.nearCm ?? USUAL_NEAR_CM, acuity: formatAcuity(row.nearAcuityLogMar, acuity) })}
            </span>
          ) : null
        }
      />
    );
  };
  return <SpineRow label={t('nearAcuity')} note={t('nearAcuityNote')} right={cell('right')} left={cell('left')} />;
}
