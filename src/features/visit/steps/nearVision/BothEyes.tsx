'use client';
import { useTranslations } from 'use-intl';
import { useEyeWords } from '../../../common/eyeWords';
import { NearNumber, NearWords } from './NearField';
import type { NearVision } from './useNearVision';

/** Which eye is dominant, and whether the two may be set apart. */
export function BothEyes({ page }: { readonly page: NearVision }) {
  const t = useTranslations('nearVision');
  const eyeWords = useEyeWords();
  const { near, dominance } = page;
  return (
    <section className="px-6 py-4" aria-label={t('eyesTitle')}>
      <h2 className="mb-2">{t('eyesTitle')}</h2>
      <div className="grid gap-x-8 gap-y-3 [grid-template-columns:repeat(auto-fill,minmax(270px,1fr))]">
        <NearWords page={page} sign="dominanceBlur" word={(o) => t(`side.${o}`)} note={t('dominanceBlurNote')} />
        <NearWords page={page} sign="dominanceSighting" word={(o) => t(`side.${o}`)} note={t('dominanceSightingNote')} />
        <p className="col-span-full" data-testid="dominance">
          {t(`dominance.${dominance.by}`, { eye: dominance.eye ? eyeWords.short(dominance.eye) : '' })}
        </p>
        <NearWords page={page} sign="coverTest" word={(o) => t(`coverTestWord.${o}`)} />
        <NearWords page={page} sign="oldSquint" word={(o) => t(`oldSquintWord.${o}`)} />
        <NearWords page={page} sign="monovisionBefore" word={(o) => t(`monovisionBeforeWord.${o}`)} />
        <NearNumber page={page} sign="stereo" value={near.stereo} label={t('stereo')} className="w-[150px]" hint={t('stereoHint')} />
      </div>
    </section>
  );
}
