'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { Button } from '@/ui/Button';
import { useEyeWords } from '../../../../common/eyeWords';
import type { Readings } from '../useReadings';

const PhotoPanel = lazy(() => import('./PhotoPanel').then((m) => ({ default: m.PhotoPanel })));

/** The way to read the turn off pictures. */
export function PhotoTurn({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const eyeWords = useEyeWords();
  const [open, setOpen] = useState(false);
  const { lens } = readings.live[eye];
  if (!lens || !readings.hasMark(eye)) return null;
  return (
    <>
      <Button onClick={() => setOpen(true)} aria-label={t('fromPicturesLabel', { eye: eyeWords.name(eye) })}>
        {t('fromPictures')}
      </Button>
      {open ? (
        <Suspense fallback={null}>
          <PhotoPanel eye={eye} lens={lens} onTaken={(blinks) => readings.logPhotos(eye, blinks)} onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
