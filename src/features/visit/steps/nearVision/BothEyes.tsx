'use client';
import { useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { nearFindingProblem, nearOptions } from '@/core';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords } from '../../../common/words';
import type { NearVision } from './useNearVision';

interface Of {
  readonly page: NearVision;
}
/** Which eye is dominant, and whether the two may be set apart. */
export function BothEyes({ page }: Of) {
  const t = useTranslations('nearVision');
  const eyeWords = useEyeWords();
  const { near, keep, blocked, dominance } = page;
  return (
    <section className="px-6 py-4" aria-label={t('eyesTitle')}>
      <h2 className="mb-2">{t('eyesTitle')}</h2>
      <div className="grid gap-x-8 gap-y-3 [grid-template-columns:repeat(auto-fill,minmax(270px,1fr))]">
        <Asked label={t('dominanceBlur')} note={t('dominanceBlurNote')}>
          <Segment
            label={t('dominanceBlur')}
            values={nearOptions('dominanceBlur')}
            value={near.dominanceBlur}
            word={(o) => t(`side.${o}`)}
            onChoose={(o) => keep('dominanceBlur', o)}
            disabled={blocked}
          />
        </Asked>
        <Asked label={t('dominanceSighting')} note={t('dominanceSightingNote')}>
          <Segment
            label={t('dominanceSighting')}
            values={nearOptions('dominanceSighting')}
            value={near.dominanceSighting}
            word={(o) => t(`side.${o}`)}
            onChoose={(o) => keep('dominanceSighting', o)}
            disabled={blocked}
          />
        </Asked>
        <p className="col-span-full" data-testid="dominance">
          {t(`dominance.${dominance.by}`, { eye: dominance.eye ? eyeWords.short(dominance.eye) : '' })}
        </p>
        <Asked label={t('coverTest')}>
          <Segment
            label={t('coverTest')}
            values={nearOptions('coverTest')}
            value={near.coverTest}
            word={(o) => t(`coverTestWord.${o}`)}
            onChoose={(o) => keep('coverTest', o)}
            disabled={blocked}
          />
        </Asked>
        <Asked label={t('oldSquint')}>
          <Segment
            label={t('oldSquint')}
            values={nearOptions('oldSquint')}
            value={near.oldSquint}
            word={(o) => t(`oldSquintWord.${o}`)}
            onChoose={(o) => keep('oldSquint', o)}
            disabled={blocked}
          />
        </Asked>
        <Asked label={t('monovisionBefore')}>
          <Segment
            label={t('monovisionBefore')}
            values={nearOptions('monovisionBefore')}
            value={near.monovisionBefore}
            word={(o) => t(`monovisionBeforeWord.${o}`)}
            onChoose={(o) => keep('monovisionBefore', o)}
            disabled={blocked}
          />
        </Asked>
        <Stereo page={page} />
      </div>
    </section>
  );
}

function Asked({ label, note, children }: { readonly label: string; readonly note?: string; readonly children: ReactNode }) {
  return (
    <div>
      <div className="field-label" aria-hidden="true">
        {label}
      </div>
      {children}
      {note ? <div className="note mt-1">{note}</div> : null}
    </div>
  );
}

function Stereo({ page }: Of) {
  const t = useTranslations('nearVision');
  const words = useProblemWords();
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed === null ? null : nearFindingProblem('stereo', Number(typed.trim() || NaN));
  const commit = (): void => {
    if (typed === null || wrong) return;
    setTyped(null);
    if (Number(typed) !== page.near.stereo) page.keep('stereo', Number(typed));
  };
  return (
    <Field
      label={t('stereo')}
      mono
      className="w-[150px]"
      inputMode="numeric"
      autoComplete="off"
      value={typed ?? (page.near.stereo === null ? '' : String(page.near.stereo))}
      disabled={page.closed}
      onValue={setTyped}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
      }}
      problem={wrong ? words(wrong.code, wrong.data) : null}
      hint={t('stereoHint')}
    />
  );
}
