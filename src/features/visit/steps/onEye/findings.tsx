'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { formatAcuity, lensSign, optionsOf, type Eye, type LensSignId, lensFindingProblem } from '@/core';
import { StateMark } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import { useProblemWords } from '../../../common/words';
import type { Readings } from './useReadings';

/** Names, words and figures of what is seen of a lens. */
export function useLensSignWords() {
  const t = useTranslations('lensSigns');
  const tOf = useWordsOf('lensSigns');
  const { record } = useVisit();
  const name = (sign: LensSignId): string => t(`${sign}.name`);
  const short = (sign: LensSignId): string => tOf(`${sign}.short`);
  const option = (sign: LensSignId, value: string): string => tOf(`${sign}.o.${value}`);
  const value = (sign: LensSignId, seen: number | string): string => {
    const s = lensSign(sign);
    if (!s || s.kind === 'word') return option(sign, String(seen));
    if (s.unit === 'logMAR') return formatAcuity(Number(seen), record.session.settings.acuity);
    const digits = s.step < 0.1 ? 2 : s.step < 1 ? 1 : 0;
    const figure = (Number(seen) < 0 ? '−' : '') + Math.abs(Number(seen)).toFixed(digits);
    return t(`units.${s.unit}`, { value: figure });
  };
  return { name, short, option, value };
}

export interface FindingProps {
  readonly readings: Readings;
  readonly eye: Eye;
  readonly sign: LensSignId;
}

/** What was recorded of a sign, with its corrections. */
export function RecordedFinding({ readings, eye, sign }: FindingProps) {
  const words = useLensSignWords();
  const chain = readings.live[eye].state.findingChains[sign];
  const def = lensSign(sign);
  if (!chain || !def) return null;
  const acuity = def.kind === 'measure' && def.unit === 'logMAR';
  const valueOf = (row: { readonly numberValue: number | null; readonly wordValue: string | null }): number | string => row.numberValue ?? row.wordValue ?? '';
  return (
    <span className="flex gap-2 items-baseline flex-wrap" data-testid={`seen-${eye}-${sign}`}>
      <span className={acuity ? 'value' : 'note'}>{words.value(sign, valueOf(chain.current))}</span>
      <Correctable
        kind="lensFinding"
        chain={chain}
        show={(row) => words.value(sign, valueOf(row))}
        asAcuity={acuity}
        options={optionsOf(def).map((o) => ({ value: o, word: words.option(sign, o) }))}
        textOf={(row) => row.typedText ?? String(valueOf(row))}
      />
    </span>
  );
}

/** A sign that is one of some words: one press, thumb-sized. */
export function FindingWords({ readings, eye, sign }: FindingProps) {
  const words = useLensSignWords();
  const eyeWords = useEyeWords();
  const def = lensSign(sign);
  if (!def) return null;
  const now = String(readings.live[eye].findings[sign] ?? '');
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <Segment
        label={`${eyeWords.name(eye)}, ${words.name(sign)}`}
        kind="wrapping"
        values={optionsOf(def)}
        value={now}
        disabled={!readings.usable(eye)}
        word={(o) => words.option(sign, o)}
        onChoose={(o) => readings.setFinding(eye, sign, o)}
      />
      <RecordedFinding readings={readings} eye={eye} sign={sign} />
    </span>
  );
}

/** A sign that is one of a few numbers: the scale stands open. */
export function FindingScale({ readings, eye, sign, values }: FindingProps & { readonly values: readonly number[] }) {
  const words = useLensSignWords();
  const eyeWords = useEyeWords();
  const now = readings.live[eye].findings[sign];
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <Segment
        label={`${eyeWords.name(eye)}, ${words.name(sign)}`}
        kind="scale"
        values={values}
        value={now}
        disabled={!readings.usable(eye)}
        word={(v) => v}
        onChoose={(v) => readings.setFinding(eye, sign, String(v))}
      />
      <RecordedFinding readings={readings} eye={eye} sign={sign} />
    </span>
  );
}

/** A sign typed as a number, read while it is typed. */
export function FindingField({ readings, eye, sign, bare = false }: FindingProps & { readonly bare?: boolean }) {
  const words = useLensSignWords();
  const problemWords = useProblemWords();
  const eyeWords = useEyeWords();
  const t = useWordsOf('lensSigns');
  const typed = readings.findingText(eye, sign);
  const value = Number(typed.trim().replace(',', '.').replace(/^[−–]/, '-'));
  const problem = typed.trim() === '' ? null : Number.isFinite(value) ? lensFindingProblem(sign, value) : { code: 'findingNotANumber', data: { value: typed } };
  const id = `finding-${eye}-${sign}`;
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <span className="flex gap-2 items-center">
        {bare ? null : (
          <label className="note" htmlFor={id}>
            {t(`${sign}.short`)}
          </label>
        )}
        <input
          id={id}
          className={`input input-mono px-1! text-center ${bare ? 'w-16!' : 'w-20!'}`}
          value={typed}
          inputMode="decimal"
          autoComplete="off"
          disabled={!readings.usable(eye)}
          aria-label={`${eyeWords.name(eye)}, ${words.name(sign)}`}
          aria-invalid={problem ? true : undefined}
          onChange={(event) => readings.setFinding(eye, sign, event.target.value)}
        />
      </span>
      {problem ? (
        <span className="problem" role="status">
          <StateMark state="stop" />
          {problemWords(problem.code, problem.data)}
        </span>
      ) : null}
      <RecordedFinding readings={readings} eye={eye} sign={sign} />
    </span>
  );
}
