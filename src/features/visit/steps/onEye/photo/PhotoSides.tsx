'use client';
import { useTranslations } from 'use-intl';
import { EYES, PHOTO_GAZES, PHOTO_LIDS, type Eye } from '@/core';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import type { PhotoSeries } from './usePhotoSeries';

const TOPS = ['up', 'down'] as const;
/** As the picture is seen: its left side first. */
const SIDES = [...EYES].reverse() as readonly Eye[];

/** Asked once of a burst: a picture says by itself neither which way it lies nor where the eye looked. */
export function PhotoSides({ series }: { readonly series: PhotoSeries }) {
  const t = useTranslations('photo');
  const { said, say, bar, lies } = series;
  return (
    <section aria-label={t('asked')} className="border-y border-rule py-3 mt-3">
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <Asked label={t('nose')}>
          <Segment label={t('nose')} values={SIDES} value={said.nose} word={(s) => t(`side.${s}`)} onChoose={(nose) => say({ nose })} />
        </Asked>
        <Asked label={t('top')}>
          <Segment label={t('top')} values={TOPS} value={said.top} word={(s) => t(`topIs.${s}`)} onChoose={(top) => say({ top })} />
        </Asked>
        <Asked label={t('gaze')}>
          <Segment label={t('gaze')} values={PHOTO_GAZES} value={said.gaze} word={(s) => t(`gazeIs.${s}`)} onChoose={(gaze) => say({ gaze })} />
        </Asked>
        <Asked label={t('lid')}>
          <Segment label={t('lid')} values={PHOTO_LIDS} value={said.lid} word={(s) => t(`lidIs.${s}`)} onChoose={(lid) => say({ lid })} />
        </Asked>
      </div>
      <div role="status" className="min-h-5 mt-2">
        {bar === 'mirrored' || bar === 'gaze' ? <Stated state="stop">{t(`bar.${bar}`)}</Stated> : null}
        {bar === 'unsaid' ? <span className="label">{t('bar.unsaid')}</span> : null}
        {bar === null && lies === 'upsideDown' ? <span className="label">{t('turnedRound')}</span> : null}
        {bar === null && said.lid === 'held' ? <Stated state="watch">{t('lidPulls')}</Stated> : null}
      </div>
    </section>
  );
}

function Asked({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <div>
      <span className="field-label">{label}</span>
      {children}
    </div>
  );
}
