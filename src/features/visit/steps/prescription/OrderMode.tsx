'use client';
import { useTranslations } from 'use-intl';
import { compensateAxis, EYES, formatAxis, formatRefraction, powerOf, type Eye, type EyeState } from '@/core';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';

/** The axis an eye would get if the turn were counted twice; null where no lens turns. */
export function doubledAxis(eye: (eye: Eye) => EyeState): string | null {
  for (const e of EYES) {
    const { verdict, turn } = eye(e);
    if (verdict.order && verdict.order.cylinder !== 0 && turn && Math.abs(turn.mean) >= 0.5) return formatAxis(compensateAxis(verdict.order.axis, turn.mean));
  }
  return null;
}

/** Final figures, or raw data for the laboratory: one of the two, never both. */
export function ModeChoice({
  raw,
  possible,
  doubled,
  onChoose,
}: {
  readonly raw: boolean;
  readonly possible: boolean;
  readonly doubled: string | null;
  readonly onChoose: (mode: 'final' | 'raw') => void;
}) {
  const t = useTranslations('prescription');
  return (
    <div className="flex flex-col gap-3 mb-4" role="radiogroup" aria-label={t('modeLabel')}>
      <label className="mode-choice">
        <input type="radio" name="mode" checked={!raw} onChange={() => onChoose('final')} />
        <span>
          <strong>{t('finalFigures')}</strong>
          <span className="label block">{t('finalFiguresText')}</span>
        </span>
      </label>
      <label className="mode-choice">
        <input type="radio" name="mode" checked={raw} disabled={!possible} onChange={() => onChoose('raw')} />
        <span>
          <strong>{t('rawFigures')}</strong>
          <span className="label block">{possible ? t('rawFiguresText') : t('rawMissing')}</span>
        </span>
      </label>
      {doubled === null ? null : <p className="note">{t('neverBoth', { axis: doubled })}</p>}
    </div>
  );
}

/** What the laboratory would be sent for an eye. */
export function RawPlan({ eye: e }: { readonly eye: Eye }) {
  const t = useTranslations('raw');
  const eyeWords = useEyeWords();
  const { eye, lensOf } = useVisit();
  const state = eye(e);
  const lens = state.onEye?.current.lensId ? lensOf(state.onEye.current.lensId) : undefined;
  const over = state.overRefraction?.current;
  if (!lens || !over || !state.turn) return null;
  return (
    <span className={`flex flex-col ${e === 'right' ? 'items-end' : 'items-start'}`} data-testid={`raw-${e}`}>
      <span className="value">{formatRefraction(lens.power)}</span>
      <span className="value">{t('over', { power: formatRefraction(powerOf(over)), vertex: over.vertexMm })}</span>
      <span className="value">{t('turn', { turn: eyeWords.turn(Math.round(state.turn.mean)) })}</span>
      <span className="note">{t('laboratory')}</span>
    </span>
  );
}
