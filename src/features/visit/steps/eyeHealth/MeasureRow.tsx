'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { KERATOMETER, sign, type Eye, type HealthState, type SignId } from '@/core';
import { Field } from '@/ui/Field';
import { StateMark } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { SpineRow } from '@/ui/Spine';
import { useFindingWords } from '../../shell/evidenceWords';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords } from '../../../common/words';
import { draftKey, ruleOn, type FindingFault } from './model';

export interface MeasureRowProps {
  readonly id: SignId;
  readonly health: HealthState;
  readonly body: Readonly<Record<string, string>>;
  readonly fault: (eye: Eye) => FindingFault | null;
  readonly closed: boolean;
  readonly onText: (eye: Eye, text: string) => void;
}

/** A figure typed, or a word chosen, for each eye. */
export function MeasureRow({ id, health, body, fault, closed, onText }: MeasureRowProps) {
  const t = useTranslations('eyeHealth');
  const signs = useTranslations('signs');
  const signsOf = useWordsOf('signs');
  const finding = useFindingWords();
  const words = useProblemWords();
  const eyes = useEyeWords();
  const s = sign(id);
  const curve = id === 'kFlatMm' || id === 'kSteepMm';
  const side = (eye: Eye) => {
    const now = health.today[eye][id];
    const before = health.baseline[eye][id];
    const text = body[draftKey(eye, id)] ?? '';
    const problem = fault(eye);
    const rule = now === undefined ? null : ruleOn(health.fired, eye, id);
    const hint = problem
      ? null
      : now === undefined
        ? before === undefined
          ? ''
          : t('was', { value: finding(id, before) })
        : curve && typeof now === 'number'
          ? t('curve', { mm: now.toFixed(2), dioptres: (KERATOMETER / now).toFixed(2) })
          : finding(id, now);
    if (s?.kind === 'word')
      return (
        <Segment
          label={t('typeValue', { eye: eyes.name(eye), sign: signs(id) })}
          kind="wrapping"
          values={s.options}
          value={now}
          disabled={closed}
          onChoose={(option) => onText(eye, option)}
          testId={(option) => `${id}-${eye}-${option}`}
          word={(option) => (
            <>
              {now === option && rule ? <StateMark state={rule.rule.strength === 'caution' ? 'watch' : 'stop'} size={12} /> : null} {signsOf(`words.${option}`)}
            </>
          )}
        />
      );
    return (
      <div className="measure-side" data-eye={eye}>
        <Field
          label={t('typeValue', { eye: eyes.name(eye), sign: signs(id) })}
          hideLabel
          value={text}
          onValue={(value) => onText(eye, value)}
          mono
          inputMode="decimal"
          className="w-[112px]"
          disabled={closed}
          maxLength={8}
        />
        <div className="measure-note">
          {problem ? (
            <span className="problem">
              <StateMark state="stop" /> {words(problem.code, problem.data)}
            </span>
          ) : (
            <span className={rule ? 'stated stated-watch' : 'label'}>
              {rule ? <StateMark state={rule.rule.strength === 'absolute' ? 'stop' : 'watch'} size={12} /> : null} {hint}
            </span>
          )}
        </div>
      </div>
    );
  };
  return <SpineRow label={signs(id)} note={curve ? t('kHint') : undefined} right={side('right')} left={side('left')} />;
}
