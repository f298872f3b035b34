'use client';
import { useTranslations } from 'use-intl';
import { FIT_WORDS, type Eye, type EyeState, type FitWord } from '@/core';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { Correctable } from '../../shell/Correct';

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
      <Segment
        label={t('fitLabel', { eye: eyeWords.name(eye) })}
        values={FIT_WORDS}
        value={now}
        disabled={!usable}
        word={(word) => t(`fit.${word}`)}
        onChoose={onChoose}
      />
      {state.fit ? <Correctable kind="fit" chain={state.fit} show={(row) => t(`fit.${row.verdict}`)} textOf={(row) => row.verdict} /> : null}
    </>
  );
}
