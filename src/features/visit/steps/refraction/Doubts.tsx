'use client';
import { useTranslations } from 'use-intl';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import type { Doubts as Doubt } from './model';

/** What is worth asking about the powers before they are recorded. */
export function Doubts({ doubts, onSwap }: { readonly doubts: Doubt; readonly onSwap: (() => void) | null }) {
  const t = useTranslations('refraction');
  const eyeWords = useEyeWords();
  return (
    <div className="flex flex-col gap-3 mb-3" data-testid="doubts">
      {doubts.swapped ? (
        <div>
          <Stated state="watch">{t('swapDoubt')}</Stated>
          {onSwap ? (
            <button type="button" className="btn btn-quiet" onClick={onSwap}>
              {t('swapNow')}
            </button>
          ) : null}
        </div>
      ) : null}
      {doubts.changed.map(({ eye, change }) => (
        <Stated key={eye} state="watch">
          {t('changed', { eye: eyeWords.short(eye), change: change.toFixed(2) })}
        </Stated>
      ))}
      {doubts.prism.map(({ eye, prism }) => (
        <Stated key={eye} state="watch">
          {t('prism', { eye: eyeWords.short(eye), prism })}
        </Stated>
      ))}
      {doubts.nearForty ? <Stated state="watch">{t('nearForty')}</Stated> : null}
    </div>
  );
}
