'use client';
import { useTranslations } from 'use-intl';
import { LIMITS } from '@/core';
import { FromInstrument } from './FromInstrument';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { useVisit } from '../../shell/VisitProvider';
import { problemAt, useProblemWords } from '../../../common/words';
import type { Powers } from './useRefraction';

/** The vertex distance the powers were measured at; beside it, the other ways in that are seldom wanted. */
export function VertexRow({ powers }: { readonly powers: Powers }) {
  const t = useTranslations('refraction');
  const words = useProblemWords();
  const { record, problem } = useVisit();
  const { settings } = record.session;
  const { draft, vertexText, vertexMm, vertexFine, asCross, addShown } = powers;
  const vertexProblem = !vertexFine ? words('vertexMmOutOfRange', { value: vertexText, min: LIMITS.vertexMm.min, max: LIMITS.vertexMm.max }) : null;
  const serverVertex = problemAt(problem, 'vertexMm');
  return (
    <SpineRow
      label={
        <Field
          label={t('vertex')}
          value={vertexText}
          onValue={(value) => draft.set('vertex', value)}
          mono
          inputMode="decimal"
          problem={vertexProblem ?? (serverVertex ? words(serverVertex.code, serverVertex.data) : null)}
          hint={t('vertexHint')}
        />
      }
      right={<span className="label">{t('vertexBoth')}</span>}
      left={
        !vertexFine ? (
          <button type="button" className="btn btn-quiet" onClick={() => draft.set('vertex', String(settings.vertexMm))}>
            {t('vertexRepair', { value: settings.vertexMm })}
          </button>
        ) : vertexMm < LIMITS.vertexMm.likelyMin || vertexMm > LIMITS.vertexMm.likelyMax ? (
          <Stated state="watch">{t('vertexUnlikely')}</Stated>
        ) : (
          <span className="flex flex-wrap gap-4">
            <button type="button" className="btn btn-quiet" aria-expanded={asCross} onClick={() => draft.set('asCross', asCross ? '' : 'yes')}>
              {asCross ? t('crossClose') : t('crossOpen')}
            </button>
            <FromInstrument draft={draft} />
            {addShown ? null : (
              <button type="button" className="btn btn-quiet" onClick={() => draft.set('addOpen', 'yes')}>
                {t('addOpen')}
              </button>
            )}
          </span>
        )
      }
    />
  );
}
