'use client';
import { useTranslations } from 'use-intl';
import { addToRecord, parseAdd, type Eye } from '@/core';
import { Field } from '@/ui/Field';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import type { Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { useProblemWords } from '../../../common/words';
import { addsTyped } from './model';

/** Near additions: measured, or estimated from age and said so. */
export function AddRow({ draft }: { readonly draft: Draft<'refraction'> }) {
  const t = useTranslations('refraction');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record, eye } = useVisit();
  const { age } = record.wearer;
  const { addByAge } = record.session.settings;
  const typed = addsTyped(draft.body, age, addByAge);
  const estimate = addToRecord(age, addByAge);
  const beside = addToRecord(age, addByAge === 'tradeTable' ? 'minimumAmplitude' : 'tradeTable');
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
      label={t('add')}
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
          t('addNote')
        )
      }
      right={cell('right')}
      left={cell('left')}
    />
  );
}
