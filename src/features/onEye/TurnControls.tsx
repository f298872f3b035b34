'use client';
import { useTranslations } from 'use-intl';
import { isLikely, LIMITS, parseRotation, type Eye } from '@/core';
import { StateMark, Stated } from '@/ui/marks';
import { useEyeWords } from '../common/eyeWords';
import { Correctable } from '../common/visit/Correct';
import { useProblemWords } from '../common/words';
import { turnText, type LiveEye } from './model';

/** Why a typed turn cannot be read; null while nothing is typed or it can. */
export function problemOf(text: string) {
  if (text.trim() === '') return null;
  const read = parseRotation(text);
  return read.ok ? null : read.error;
}

/** Where the mark sits, typed or nudged by a degree, with what was recorded before. */
export function TurnControls({
  eye,
  live,
  text,
  usable,
  hasMark,
  onType,
  onNudge,
}: {
  readonly eye: Eye;
  readonly live: LiveEye;
  readonly text: string;
  readonly usable: boolean;
  readonly hasMark: boolean;
  readonly onType: (text: string) => void;
  readonly onNudge: (value: number) => void;
}) {
  const t = useTranslations('onEye');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  if (!live.state.onEye) return null;
  if (!hasMark && usable) return <span className="label">{t('noMark')}</span>;
  const bad = problemOf(text);
  const rotation = live.state.rotation;
  return (
    <div className={`flex flex-col gap-1 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <div className="flex items-center gap-3">
        <span className={`label ${eye === 'left' ? 'order-last' : ''}`}>{live.turnKnown ? eyeWords.turn(live.turn) : t('notRead')}</span>
        <button
          type="button"
          className="btn nudge"
          disabled={!usable}
          aria-label={t('nudgeLeft', { eye: eyeWords.name(eye) })}
          onClick={() => onNudge(Math.min(LIMITS.rotationLeft.max, live.turn + 1))}
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
          onChange={(event) => onType(event.target.value)}
          autoComplete="off"
        />
        <button
          type="button"
          className="btn nudge"
          disabled={!usable}
          aria-label={t('nudgeRight', { eye: eyeWords.name(eye) })}
          onClick={() => onNudge(Math.max(LIMITS.rotationLeft.min, live.turn - 1))}
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
        {!bad && live.turnKnown && !isLikely(live.turn, LIMITS.rotationLeft) ? <Stated state="watch">{t('turnUnlikely')}</Stated> : null}
        {bad?.repairs.map((repair) => (
          <button key={repair} type="button" className="btn btn-quiet" onClick={() => onType(repair)}>
            {t('useTurn', { turn: eyeWords.turn(Number(repair.slice(0, -1)) * (repair.endsWith('l') ? 1 : -1)) })}
          </button>
        ))}
      </div>
      {rotation ? (
        <>
          <span className="note">
            {t('turnRecorded', { turn: eyeWords.turn(rotation.current.rotationLeftDeg) })}{' '}
            {rotation.current.provisional ? <Stated state="watch">{t('provisional')}</Stated> : null}
          </span>
          <Correctable
            kind="rotation"
            chain={rotation}
            show={(row) => eyeWords.turn(row.rotationLeftDeg)}
            typed="rotation"
            textOf={(row) => turnText(row.rotationLeftDeg)}
          />
        </>
      ) : null}
    </div>
  );
}
