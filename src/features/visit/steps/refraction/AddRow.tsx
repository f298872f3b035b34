'use client';
import { useTranslations } from 'use-intl';
import { addToRecord, demandOf, LIMITS, parseAdd, USUAL_NEAR_CM, type Eye } from '@/core';
import { Field } from '@/ui/Field';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { problemAt, useProblemWords } from '../../../common/words';
import { foundNear, nearCmProblem } from './toRecord';
import type { Powers } from './useRefraction';

/** Near additions: measured, or estimated from age and said so. */
export function AddRow({ powers }: { readonly powers: Powers }) {
  const t = useTranslations('refraction');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record, eye } = useVisit();
  const { age } = record.wearer;
  const { addByAge } = record.session.settings;
  const { draft, adds: typed, nearCm } = powers;
  const demand = demandOf(nearCm ?? USUAL_NEAR_CM);
  const estimate = addToRecord(age, addByAge, demand);
  const beside = addToRecord(age, addByAge === 'tradeTable' ? 'minimumAmplitude' : 'tradeTable', demand);
  const cell = (e: Eye) => {
    const text = typed.text[e];
    const read = text.trim() === '' ? null : parseAdd(text);
    const recorded = eye(e).refraction?.current;
    return (
      <Field
        label={t('addLabel', { eye: eyeWords.name(e) })}
        hideLabel
        mono
        className="max-w-[150px]"
        inputMode="decimal"
        autoComplete="off"
        value={text}
        onValue={(value) => {
          if (typed.source === 'age') {
            draft.set('addFromAge', '');
            draft.set('rightAdd', typed.text.right);
            draft.set('leftAdd', typed.text.left);
          }
          draft.set(`${e}Add`, value);
        }}
        problem={read && !read.ok ? words(read.error.code, read.error.data) : null}
        hint={
          text.trim() !== '' ? (
            t(typed.source === 'age' ? 'addEstimated' : 'addMeasured')
          ) : recorded?.addD ? (
            <span data-testid={`add-${e}`}>{`+${recorded.addD.toFixed(2)} · ${t(recorded.addSource === 'age' ? 'addEstimated' : 'addMeasured')}`}</span>
          ) : (
            t('addNone')
          )
        }
      />
    );
  };
  const offered = estimate !== null && age >= record.session.settings.presbyopiaAge - 5 && typed.source !== 'age';
  return (
    <SpineRow
      label={<NearDistance powers={powers} />}
      note={
        offered ? (
          <span className="flex flex-col items-center gap-1">
            {t('addEstimate', { age, add: estimate.toFixed(2), by: addByAge })}
            <span className="block">{t('addBeside', { add: beside === null ? '0.00' : beside.toFixed(2), by: addByAge })}</span>
            <button type="button" className="btn btn-quiet" title={t('addWhy')} onClick={() => draft.set('addFromAge', 'yes')}>
              {t('addUse')}
            </button>
          </span>
        ) : (
          t('addNote', { cm: nearCm ?? USUAL_NEAR_CM })
        )
      }
      right={cell('right')}
      left={cell('left')}
    />
  );
}

/** How far away near was tested: an addition without its distance says nothing. */
function NearDistance({ powers }: { readonly powers: Powers }) {
  const t = useTranslations('refraction');
  const words = useProblemWords();
  const { problem } = useVisit();
  const { draft, nearCmText } = powers;
  const { min, max } = LIMITS.nearCm;
  const code = nearCmProblem(nearCmText, foundNear(draft.body));
  const server = problemAt(problem, 'nearCm');
  return (
    <span className="flex items-baseline justify-center gap-2 flex-wrap">
      {t('add')}
      <Field
        id="near-cm"
        label={t('nearCm')}
        hideLabel
        mono
        className="w-16!"
        inputMode="numeric"
        autoComplete="off"
        value={nearCmText}
        onValue={(value) => draft.set('nearCm', value)}
        problem={code ? words(code, { value: nearCmText, min, max }) : server ? words(server.code, server.data) : null}
      />
      <span className="note">{t('cm')}</span>
    </span>
  );
}
