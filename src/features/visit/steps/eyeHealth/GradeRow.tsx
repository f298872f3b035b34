'use client';
import { useTranslations } from 'use-intl';
import { sign, type Eye, type HealthState, type SignId } from '@/core';
import { formatDay } from '@/i18n/format';
import { ProblemLine } from '@/ui/Field';
import { StateMark } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { useFindingWords } from '../../shell/evidenceWords';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords } from '../../../common/words';
import { GradeScale } from './GradeScale';
import { ruleOn, type FindingFault } from './model';

const TARGETS = [0, 1, 2, 3, 4] as const;

export interface GradeRowProps {
  readonly id: SignId;
  readonly note: string;
  readonly threshold: number | null;
  readonly health: HealthState;
  readonly trend: (eye: Eye) => readonly { readonly value: number; readonly at: string }[];
  readonly current: boolean;
  readonly eyeHere: Eye;
  readonly fault: (eye: Eye) => FindingFault | null;
  readonly closed: boolean;
  readonly onHere: (eye: Eye) => void;
  readonly onGrade: (eye: Eye, value: number) => void;
}

/** One graded sign of both eyes: bar, figure and word; the current row opens to targets for the finger. */
export function GradeRow({ id, note, threshold, health, trend, current, eyeHere, fault, closed, onHere, onGrade }: GradeRowProps) {
  const t = useTranslations('eyeHealth');
  const signs = useTranslations('signs');
  const words = useFindingWords();
  const problemWords = useProblemWords();
  const eyes = useEyeWords();
  const step = sign(id);
  const side = (eye: Eye) => {
    const value = health.today[eye][id];
    const number = typeof value === 'number' ? value : undefined;
    const earlier = trend(eye);
    const before = earlier.at(-1)?.value;
    const rule = number === undefined ? null : ruleOn(health.fired, eye, id);
    const state = rule === null ? null : rule.rule.strength === 'caution' || rule.rule.strength === 'overwear' ? 'watch' : 'stop';
    const rose = number !== undefined && before !== undefined && number - before >= 0.5 ? number - before : null;
    const problem = fault(eye);
    const here = current && eyeHere === eye;
    return (
      <div className="grade-side" data-eye={eye} data-here={here || undefined}>
        <button
          type="button"
          className="grade-value"
          data-testid={`${id}-${eye}`}
          aria-label={t('grade', {
            eye: eyes.name(eye),
            sign: signs(id),
            value: [
              number === undefined ? t('notSeen') : words(id, number),
              ...earlier.map((e) => t('wasOn', { value: e.value.toFixed(1), day: formatDay(e.at.slice(0, 10)) })),
            ].join(', '),
          })}
          onClick={() => onHere(eye)}
        >
          {number === undefined ? (
            <span className="label">
              {before === undefined ? t('notSeen') : t(health.repeated[eye][id] === undefined ? 'was' : 'asLastTime', { value: before.toFixed(1) })}
            </span>
          ) : (
            <>
              <strong className="value">{number.toFixed(1)}</strong>
              {state ? <StateMark state={state} size={13} /> : null}
              <span className={state ? `stated-${state}` : 'label'}>{step?.kind === 'grade' ? words(id, number).slice(4) : null}</span>
              {rose !== null ? <span className="note">{t('grew', { value: rose.toFixed(1) })}</span> : null}
            </>
          )}
        </button>
        <GradeScale
          eye={eye}
          value={number}
          trend={earlier.map((e) => e.value)}
          threshold={threshold}
          onPick={closed ? null : (grade) => (onHere(eye), onGrade(eye, grade))}
        />
        {current ? (
          <div className="grade-targets" role="group" aria-label={`${eyes.name(eye)}, ${signs(id)}`}>
            {TARGETS.map((g) => (
              <button
                key={g}
                type="button"
                className="grade-target"
                aria-pressed={number !== undefined && Math.floor(number) === g}
                disabled={closed}
                onClick={() => (onHere(eye), onGrade(eye, g))}
              >
                {g}
              </button>
            ))}
            <button
              type="button"
              className="grade-target"
              aria-pressed={number !== undefined && number % 1 !== 0}
              aria-label={t('keyHalf')}
              disabled={closed || (number ?? 0) >= 4}
              onClick={() => (onHere(eye), onGrade(eye, (number ?? 0) % 1 === 0 ? (number ?? 0) + 0.5 : (number ?? 0) - 0.5))}
            >
              {'½'}
            </button>
          </div>
        ) : null}
        {problem ? <ProblemLine>{problemWords(problem.code, problem.data)}</ProblemLine> : null}
      </div>
    );
  };
  return (
    <div id={`sign-${id}`} className="grade-row" data-current={current || undefined}>
      <SpineRow
        chosen={current}
        label={
          <button type="button" onClick={() => onHere(eyeHere)} className="w-full">
            {signs(id)}
          </button>
        }
        note={note}
        right={side('right')}
        left={side('left')}
      />
    </div>
  );
}
