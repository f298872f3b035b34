'use client';
import { useTranslations } from 'use-intl';
import { FIT_WORDS, type Eye, type EyeState, type FitWord } from '@/core';
import { useEyeWords } from '../common/eyeWords';
import { Correctable } from '../common/visit/Correct';

/** Loose, fits or tight, as one press; what was recorded can be corrected. */
export function FitControl({
  eye,
  state,
  typed,
  usable,
  onChoose,
}: {
  readonly eye: Eye;
  readonly state: EyeState;
  readonly typed: string | null;
  readonly usable: boolean;
  readonly onChoose: (word: FitWord) => void;
}) {
  const t = useTranslations('onEye');
  const eyeWords = useEyeWords();
  if (!state.onEye) return null;
  const now = typed ?? state.fit?.current.verdict ?? '';
  return (
    <>
      <div className="segment" role="group" aria-label={t('fitLabel', { eye: eyeWords.name(eye) })}>
        {FIT_WORDS.map((word) => (
          <button
            key={word}
            type="button"
            disabled={!usable}
            data-state={now === word ? 'on' : 'off'}
            aria-pressed={now === word}
            onClick={() => onChoose(word)}
          >
            {t(`fit.${word}`)}
          </button>
        ))}
      </div>
      {state.fit ? <Correctable kind="fit" chain={state.fit} show={(row) => t(`fit.${row.verdict}`)} typed="fit" textOf={(row) => row.verdict} /> : null}
    </>
  );
}
