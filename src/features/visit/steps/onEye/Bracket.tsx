'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import {
  CYLINDER_ANSWERS,
  CYLINDER_STEPS,
  formatAxis,
  formatPower,
  formatRefraction,
  middleOfBlur,
  nextCylinder,
  withCylinder,
  type BracketedAxis,
  type CylinderAnswer,
  type CylinderTry,
  type Eye,
} from '@/core';
import bracketWords from '@/i18n/messages/en/bracket.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords, useRefusalWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';

interface Of {
  readonly eye: Eye;
  readonly lensOnEyeId: string;
  /** Spherical over-refraction that stands, D. */
  readonly sphere: number;
  /** Takes the over-refraction that was found, as text. */
  readonly onFound: (text: string) => void;
  readonly onClose: () => void;
}

/** A whole axis as typed; null for an empty field, NaN for what is none. */
const axisOf = (typed: string): number | null => (typed.trim() === '' ? null : /^\d{1,3}$/.test(typed.trim()) ? Number(typed) : Number.NaN);
/** The middle of two blur points as typed; null while one is missing. */
function middleOf(start: string, one: string, other: string): BracketedAxis | null {
  const [s, a, b] = [axisOf(start), axisOf(one), axisOf(other)];
  return a === null || b === null ? null : middleOfBlur(a, b, s);
}

/** Axis by two blur points, cylinder by answers: what is found goes into the over-refraction, with all that was said. */
function BracketPart({ eye, lensOnEyeId, sphere, onFound, onClose }: Of) {
  const t = useTranslations('bracket');
  const eyeWords = useEyeWords();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { run, busy, problem } = useVisit();
  const [start, setStart] = useState('');
  const [one, setOne] = useState('');
  const [other, setOther] = useState('');
  const [step, setStep] = useState<number>(1);
  const [tries, setTries] = useState<readonly CylinderTry[]>([]);
  const middle = middleOf(start, one, other);
  const next = nextCylinder(tries, step);
  const found = middle?.ok && next.settled !== null ? withCylinder(sphere, next.settled, middle.axis) : null;
  const say = (answer: CylinderAnswer): void => {
    if (next.offer !== null) setTries([...tries, { cylinder: next.offer, answer }]);
  };
  const keep = async (): Promise<void> => {
    if (!found || !middle?.ok) return;
    const blur: [number, number] = [Number(one), Number(other)];
    const done = await run('recordGuidedCylinder', { eye, lensOnEyeId, startAxis: axisOf(start), blur, step, answers: tries.map((x) => x.answer) }, t('kept'));
    if (!done?.ok) return;
    onFound(formatRefraction(found));
    onClose();
  };
  return (
    <Panel open wide onClose={onClose} title={t('title', { eye: eyeWords.name(eye) })}>
      <p className="note">{t('why')}</p>
      <div className="flex flex-wrap gap-3 mt-3">
        <Field className="w-32" label={t('start')} value={start} onValue={setStart} inputMode="numeric" mono autoComplete="off" />
        <Field className="w-32" label={t('one')} value={one} onValue={setOne} inputMode="numeric" mono autoComplete="off" />
        <Field className="w-32" label={t('other')} value={other} onValue={setOther} inputMode="numeric" mono autoComplete="off" />
        <div className="pt-7" data-testid="bracket-axis">
          {middle === null ? <span className="label">{t('turn')}</span> : null}
          {middle?.ok ? <span className="value">{t(`middle.${middle.rule}`, { axis: formatAxis(middle.axis), span: Math.round(middle.span) })}</span> : null}
          {middle && !middle.ok ? <ProblemLine>{words(`bracket_${middle.problem}`)}</ProblemLine> : null}
        </div>
      </div>
      <div className="flex flex-wrap gap-3 items-end mt-3">
        <div>
          <span className="field-label">{t('step')}</span>
          <Segment label={t('step')} values={CYLINDER_STEPS} value={step} word={(s) => s.toFixed(2)} disabled={tries.length > 0} onChoose={(s) => setStep(s)} />
        </div>
        {next.offer === null ? (
          <span className="value" data-testid="bracket-cylinder">
            {next.settled === 0 ? t('noCylinder') : t('settled', { cylinder: formatPower(next.settled) })}
          </span>
        ) : (
          <div className="flex flex-wrap gap-2 items-center" role="group" aria-label={t('offerLabel')}>
            <span className="value">{t('offer', { cylinder: formatPower(next.offer) })}</span>
            {CYLINDER_ANSWERS.map((answer) => (
              <Button key={answer} disabled={!middle?.ok} onClick={() => say(answer)}>
                {t(`answer.${answer}`)}
              </Button>
            ))}
          </div>
        )}
        {tries.length > 0 ? (
          <button type="button" className="btn btn-quiet" onClick={() => setTries(tries.slice(0, -1))}>
            {t('back')}
          </button>
        ) : null}
      </div>
      <ol className="mt-3" data-testid="bracket-log">
        {tries.map((x, i) => (
          <li key={i} className="border-t border-rule py-1">
            <span className="font-mono">{formatPower(x.cylinder)}</span> {t(`answer.${x.answer}`)}
          </li>
        ))}
      </ol>
      {found ? (
        <p className="mt-3">
          <Stated state="ok">{t('found', { power: formatRefraction(found), sphere: formatPower(sphere) })}</Stated>
        </p>
      ) : null}
      {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <div className="flex justify-end gap-3 mt-4">
        <Button onClick={onClose}>{t('close')}</Button>
        <Button look="act" disabled={busy || found === null} onClick={() => void keep()}>
          {t('use')}
        </Button>
      </div>
    </Panel>
  );
}

export const Bracket = withWords({ bracket: bracketWords }, BracketPart);
