'use client';
import type { KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { isLikely, LIMITS, parseRotation, type Eye, type ReadOn } from '@/core';
import { StateMark, Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords } from '../../../common/words';
import type { Readings } from './useReadings';

/** Why a typed turn cannot be read; null while nothing is typed or it can. */
export function problemOf(text: string, on: ReadOn | null) {
  if (text.trim() === '') return null;
  const read = parseRotation(text, on);
  return read.ok ? null : read.error;
}

/** Where the mark sits at this blink: typed, off the scale, or nudged by a degree. Enter keeps it as one of the series. */
export function TurnControls({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('onEye');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const live = readings.live[eye];
  const usable = readings.usable(eye);
  if (!live.state.onEye) return null;
  if (!readings.hasMark(eye) && usable) return <span className="label">{t('noMark')}</span>;
  const text = readings.draft.body[`${eye}Turn`] ?? '';
  const bad = problemOf(text, readings.on(eye));
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key !== 'Enter' || event.ctrlKey || text.trim() === '') return;
    event.preventDefault();
    readings.logBlink(eye);
  };
  const echo =
    live.pending?.how === 'scale' ? t('echoScale', { reading: live.pending.scaleReading ?? 0, turn: eyeWords.turn(live.pending.rotationLeft) }) : null;
  return (
    <div className={`flex flex-col gap-1 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <div className="flex items-center gap-3">
        <span className={`label ${eye === 'left' ? 'order-last' : ''}`}>{live.turnKnown ? eyeWords.turn(live.turn) : t('notRead')}</span>
        <button
          type="button"
          className="btn nudge"
          disabled={!usable}
          aria-label={t('nudgeLeft', { eye: eyeWords.name(eye) })}
          onClick={() => readings.setTurn(eye, Math.min(LIMITS.rotationLeft.max, live.turn + 1), 'keys')}
        >
          {'←'}
        </button>
        <label className="sr-only" htmlFor={`turn-${eye}`}>
          {t('turnLabel', { eye: eyeWords.name(eye) })}
        </label>
        <input
          id={`turn-${eye}`}
          className="input input-mono w-24! text-center"
          value={text}
          disabled={!usable}
          aria-invalid={bad ? true : undefined}
          aria-describedby={`turn-${eye}-note`}
          onChange={(event) => readings.typeTurn(eye, event.target.value)}
          onKeyDown={onKeyDown}
          autoComplete="off"
          inputMode="text"
        />
        <button
          type="button"
          className="btn nudge"
          disabled={!usable}
          aria-label={t('nudgeRight', { eye: eyeWords.name(eye) })}
          onClick={() => readings.setTurn(eye, Math.max(LIMITS.rotationLeft.min, live.turn - 1), 'keys')}
        >
          {'→'}
        </button>
      </div>
      <div id={`turn-${eye}-note`} aria-live="polite" className="flex flex-col gap-1 items-inherit">
        {bad ? (
          <span className="problem">
            <StateMark state="stop" />
            {words(`rotation_${bad.code}`, bad.data)}
          </span>
        ) : null}
        {echo ? <span className="note">{echo}</span> : null}
        {!bad && live.turnKnown && !isLikely(live.turn, LIMITS.rotationLeft) ? <Stated state="watch">{t('turnUnlikely')}</Stated> : null}
        {bad?.repairs.map((repair) => (
          <button key={repair} type="button" className="btn btn-quiet" onClick={() => readings.typeTurn(eye, repair)}>
            {t('useTurn', { turn: eyeWords.turn(Number(repair.slice(0, -1)) * (repair.endsWith('l') ? 1 : -1)) })}
          </button>
        ))}
      </div>
    </div>
  );
}
