'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { Button } from '@/ui/Button';
import { useEyeWords } from '../../../../common/eyeWords';
import type { Readings } from '../useReadings';

const PhotoPanel = lazy(() => import('./PhotoPanel').then((m) => ({ default: m.PhotoPanel })));

/** The way to read the turn off pictures. What was said and placed stays while the panel is closed, until it is added or another lens is on. */
export function PhotoTurn({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const eyeWords = useEyeWords();
  const [open, setOpen] = useState(false);
  // Which series it is; none before the panel was first opened.
  const [series, setSeries] = useState(0);
  const { lens, state } = readings.live[eye];
  if (!lens || !readings.hasMark(eye)) return null;
  const begin = (): void => {
    setSeries(Math.max(1, series));
    setOpen(true);
  };
  return (
    <>
      <Button onClick={begin} aria-label={t('fromPicturesLabel', { eye: eyeWords.name(eye) })}>
        {t('fromPictures')}
      </Button>
      {series > 0 ? (
        <Suspense fallback={null}>
          <PhotoPanel
            key={`${state.onEye?.rootId ?? ''} ${series}`}
            open={open}
            eye={eye}
            lens={lens}
            onTaken={(blinks) => {
              readings.logPhotos(eye, blinks);
              setSeries(series + 1);
            }}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      ) : null}
    </>
  );
}
