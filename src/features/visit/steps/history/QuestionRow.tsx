'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { medicineGroup, medicinesBeginning, type Answer } from '@/core';
import type { ProblemData } from '@/lib/outcome';
import { ProblemLine } from '@/ui/Field';
import { KeyCap, StateMark } from '@/ui/marks';
import { useAnswerWords } from '../../../common/answerWords';
import { useProblemWords } from '../../../common/words';
import { digitOf, readTyped, sameAnswer, type Origin, type SheetQuestion } from './model';

export interface QuestionRowProps {
  readonly q: SheetQuestion;
  readonly number: number;
  readonly opensGroup: boolean;
  readonly current: boolean;
  readonly origin: Origin;
  readonly now: Answer | undefined;
  readonly before: Answer | undefined;
  readonly text: string;
  readonly note: string;
  readonly noting: boolean;
  readonly problem: { readonly code: string; readonly data?: ProblemData } | null;
  readonly closed: boolean;
  readonly onHere: () => void;
  readonly onOption: (option: string) => void;
  readonly onText: (text: string) => void;
  readonly onNote: (text: string) => void;
  readonly onEnter: () => void;
  readonly onWithdraw: () => void;
}

/** One question: then on the left, its name in the band, now on the right. */
export function QuestionRow(props: QuestionRowProps) {
  const { q, number, opensGroup, current, origin, now, before, problem, closed, onHere } = props;
  const t = useTranslations('history');
  const words = useAnswerWords();
  const problemWords = useProblemWords();
  const changed = now !== undefined && before !== undefined && !sameAnswer(now, before);
  const shown = now ?? (origin === 'carried' ? before : undefined);
  return (
    <div
      id={`q-${q.id}`}
      className="sheet-row"
      data-current={current || undefined}
      data-group={opensGroup || undefined}
      data-origin={origin}
      data-testid={`q-${q.id}`}
    >
      <div className="sheet-then">
        {opensGroup ? <strong className="mr-auto">{t(`groups.${q.group}`)}</strong> : null}
        {before ? (
          changed ? (
            <del className="struck no-underline">{words.answer(q.id, before.value)}</del>
          ) : now ? (
            <span className="sheet-same" aria-hidden="true" />
          ) : (
            <span>{words.answer(q.id, before.value)}</span>
          )
        ) : null}
      </div>
      <button type="button" className="sheet-question" onClick={onHere} aria-current={current || undefined}>
        <span className="note w-5 text-right">{number}</span>
        <span>{words.name(q.id)}</span>
      </button>
      <div className="sheet-now" role="group" aria-label={words.name(q.id)}>
        <span className="sheet-mark">
          {origin === 'typing' || origin === 'said' ? (
            <StateMark state="ok" size={13} />
          ) : origin === 'carried' ? (
            <span className="carried-mark" aria-hidden="true" />
          ) : null}
        </span>
        <div className="min-w-0 flex-1">
          {q.options ? <Options {...props} /> : current && !closed ? <TypedField {...props} /> : <Value q={q} shown={shown} onHere={onHere} />}
          {props.note && !props.noting ? <span className="note ml-2">{props.note}</span> : null}
          {props.noting ? (
            <input
              className="input mt-1 max-w-[420px]"
              aria-label={t('noteFor', { question: words.name(q.id) })}
              value={props.note}
              maxLength={200}
              autoFocus
              onChange={(event) => props.onNote(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' || event.ctrlKey) return;
                event.preventDefault();
                props.onEnter();
              }}
            />
          ) : null}
          {problem ? <ProblemLine>{problemWords(problem.code, problem.data)}</ProblemLine> : null}
          {problem?.code === 'neverButWorn' ? (
            <button type="button" className="btn btn-quiet" onClick={props.onWithdraw}>
              {t('withdraw')}
            </button>
          ) : null}
        </div>
        {changed ? <span className="changed-tag">{t('change')}</span> : null}
      </div>
    </div>
  );
}

function Value({ q, shown, onHere }: { readonly q: SheetQuestion; readonly shown: Answer | undefined; readonly onHere: () => void }) {
  const t = useTranslations('history');
  const words = useAnswerWords();
  return (
    <button type="button" className="sheet-open" onClick={onHere}>
      {shown ? <strong>{words.answer(q.id, shown.value)}</strong> : <span className="label">{q.optional ? t('optional') : t('notSaid')}</span>}
    </button>
  );
}

function Options({ q, current, now, before, origin, closed, onOption }: QuestionRowProps) {
  const words = useAnswerWords();
  const held = (now ?? (origin === 'carried' ? before : undefined))?.value;
  const isOn = (option: string): boolean => (Array.isArray(held) ? (held as readonly string[]).includes(option) : held === option);
  return (
    <div className="opts">
      {(q.options ?? []).map((option) => (
        <button
          key={option}
          type="button"
          className="opt"
          aria-pressed={isOn(option)}
          disabled={closed}
          onClick={() => onOption(option)}
          tabIndex={current ? 0 : -1}
        >
          {current ? (
            <span aria-hidden="true">
              <KeyCap>{String(digitOf(q, option))}</KeyCap>
            </span>
          ) : null}
          <span>{words.option(q.id, option)}</span>
        </button>
      ))}
    </div>
  );
}

/** A number, medicines or a sentence: the one field of the sheet that is typed in. */
function TypedField({ q, text, onText, onEnter }: QuestionRowProps) {
  const t = useTranslations('history');
  const said = useTranslations('answers');
  const saidOf = useWordsOf('answers');
  const words = useAnswerWords();
  const typed = q.kind === 'medicines' ? readTyped(q, text) : [];
  const names = Array.isArray(typed) ? (typed as readonly string[]) : [];
  const last = names.at(-1) ?? '';
  const offers = medicineGroup(last) === null ? medicinesBeginning(last) : [];
  const complete = (name: string): void => onText([...names.slice(0, -1), name].join(', '));
  return (
    <div className="flex gap-3 items-center flex-wrap">
      <input
        className={`input input-mono ${q.kind === 'number' ? 'max-w-[96px]' : 'max-w-[330px]'}`}
        aria-label={words.name(q.id)}
        value={text}
        autoFocus
        autoComplete="off"
        spellCheck={false}
        inputMode={q.kind === 'number' ? 'numeric' : 'text'}
        maxLength={q.kind === 'number' ? 4 : 400}
        onChange={(event) => onText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || event.ctrlKey) return;
          event.preventDefault();
          onEnter();
        }}
      />
      {q.kind === 'number' ? <span className="label">{saidOf(`unit.${q.id}`)}</span> : null}
      {q.kind === 'medicines' && names.length === 0 ? <span className="label">{t('medicineHint')}</span> : null}
      {offers.map((m) => (
        <button key={m.name} type="button" className="btn btn-quiet" onClick={() => complete(m.name)}>
          {t('use', { name: m.name })}
        </button>
      ))}
      {offers.length === 0
        ? names.map((name, i) => {
            const group = medicineGroup(name);
            return group ? (
              <span key={`${name}-${i}`} className="stated stated-watch">
                <StateMark state="watch" size={12} />
                <span>{t('recognised', { name, group: said(`medicineGroups.${group}`) })}</span>
              </span>
            ) : (
              <span key={`${name}-${i}`} className="label">
                {t('unknown', { name })}
              </span>
            );
          })
        : null}
    </div>
  );
}
