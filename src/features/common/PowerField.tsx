'use client';
import { useRef, useState, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, parseRefraction, type Eye } from '@/core';
import type { FieldProblem } from '@/lib/outcome';
import { KeyCap, StateMark } from '@/ui/marks';
import { useProblemWords } from './words';

export interface PowerFieldProps {
  readonly id: string;
  readonly label: string;
  readonly eye: Eye;
  readonly value: string;
  readonly onValue: (value: string) => void;
  /** What the server said of this field. */
  readonly problem: FieldProblem | null;
  /** The text that was kept although unlikely. */
  readonly kept: string | null;
  readonly onKeep: (value: string) => void;
  readonly notation: 'minus' | 'plus';
  readonly autoFocus?: boolean;
  readonly disabled?: boolean;
  /** Show problems at once: the form was sent, or the field was left. */
  readonly asked?: boolean;
}

/** May this text be recorded: readable, and kept if unlikely? */
export function powerReady(text: string, kept: string | null): boolean {
  const read = parseRefraction(text);
  return read.ok && (!read.notes.some((n) => n.asks) || kept === text);
}

/** One line for one eye's power, read while it is typed. */
export function PowerField({ id, label, eye, value, onValue, problem, kept, onKeep, notation, autoFocus, disabled, asked = false }: PowerFieldProps) {
  const t = useTranslations('powerField');
  const words = useProblemWords();
  const [left, setLeft] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const read = parseRefraction(value);
  const empty = value.trim() === '';
  const own = !read.ok && !empty && (left || asked) ? { code: read.error.code, data: read.error.data, repairs: read.error.repairs } : null;
  const shownProblem = own ?? (problem && (empty || read.ok) ? problem : null);
  const repairs = shownProblem?.repairs ?? [];
  const asks = read.ok && read.notes.some((n) => n.asks) && kept !== value;
  const instead = read.ok ? read.notes.find((n) => n.instead !== undefined)?.instead : undefined;
  const replaceBy = (text: string): void => {
    onValue(text);
    input.current?.focus();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!event.altKey) return;
    const offered = repairs[0] ?? (asks ? instead : undefined);
    if (event.code === 'KeyY' && offered !== undefined) replaceBy(offered);
    else if (event.code === 'KeyU' && repairs[1] !== undefined) replaceBy(repairs[1]);
    else if (event.code === 'KeyK' && asks) onKeep(value);
    else return;
    event.preventDefault();
  };
  return (
    <div className="w-full max-w-[330px]">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        ref={input}
        id={id}
        className={`input input-mono ${eye === 'right' ? 'text-right' : ''}`}
        value={value}
        onChange={(event) => onValue(event.target.value)}
        onBlur={() => setLeft(true)}
        onFocus={() => setLeft(false)}
        onKeyDown={onKeyDown}
        aria-invalid={shownProblem ? true : undefined}
        aria-describedby={`${id}-note`}
        autoComplete="off"
        spellCheck={false}
        inputMode="text"
        // The field of the step is where the hands go first.
        autoFocus={autoFocus}
        disabled={disabled}
      />
      <div id={`${id}-note`} className={`field-note flex flex-col gap-1 ${eye === 'right' ? 'items-end text-right' : 'items-start'}`} aria-live="polite">
        {shownProblem ? (
          <div className="problem">
            <StateMark state="stop" />
            <span>{words(shownProblem.code, shownProblem.data)}</span>
          </div>
        ) : null}
        {repairs.length > 0 ? (
          <div className="flex flex-wrap gap-2">
            {repairs.slice(0, 2).map((repair, index) => (
              <button key={repair} type="button" className="btn btn-quiet" onClick={() => replaceBy(repair)}>
                {t('use', { repair })} <KeyCap>{index === 0 ? 'Alt Y' : 'Alt U'}</KeyCap>
              </button>
            ))}
          </div>
        ) : null}
        {read.ok && !empty ? <span className="label">{t('reads', { power: formatRefraction(read.value, { notation }) })}</span> : null}
        {read.ok
          ? read.notes.map((note) => (
              <span key={note.code} className={note.asks ? 'stated stated-watch' : 'label'}>
                {note.asks ? <StateMark state="watch" /> : null}
                <span>{t(`notes.${note.code}`)}</span>
              </span>
            ))
          : null}
        {instead !== undefined && asks ? (
          <button type="button" className="btn btn-quiet" onClick={() => replaceBy(instead)}>
            {t('instead', { power: instead })} <KeyCap>{'Alt Y'}</KeyCap>
          </button>
        ) : null}
        {asks ? (
          <button type="button" className="btn btn-quiet" onClick={() => onKeep(value)}>
            {t('keep')} <KeyCap>{'Alt K'}</KeyCap>
          </button>
        ) : null}
      </div>
    </div>
  );
}
