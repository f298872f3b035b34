'use client';
import Image from 'next/image';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { FileChoice } from '@/ui/FileChoice';
import { StateMark } from '@/ui/marks';
import { PICTURE_KINDS, PICTURE_MAX_BYTES, sendPicture } from '../../../../common/sendPicture';
import { useRefusalWords } from '../../../../common/words';
import { useVisit } from '../../../shell/VisitProvider';
import type { Lens } from '../model';
import type { PhotoSeries } from './usePhotoSeries';
import type { Shot } from './usePhotoReading';

/** Pictures that the camera takes in one go: one after each of three blinks. */
const BURST = 3;

/** The pictures of this eye, one shown large; more come from files or from the camera. */
export function PhotoShots({
  eye,
  lens,
  shots,
  series,
}: {
  readonly eye: Eye;
  readonly lens: Lens;
  readonly shots: readonly Shot[];
  readonly series: PhotoSeries;
}) {
  const t = useTranslations('photo');
  const { record, run, refresh } = useVisit();
  const refusal = useRefusalWords();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const add = async (files: readonly File[]): Promise<void> => {
    setBusy(true);
    setProblem(null);
    try {
      for (const file of files) {
        const data = { mb: Math.round(file.size / 1048576), max: PICTURE_MAX_BYTES / 1048576 };
        const sent =
          file.size > PICTURE_MAX_BYTES
            ? ({ ok: false, error: { kind: 'invalid', fields: [{ path: ['picture'], code: 'pictureTooLarge', data }] } } as const)
            : await sendPicture(file, { visit: record.visit.id, version: record.visit.version, eye, title: t('titleOf') });
        if (!sent.ok) setProblem(t('notTaken', { file: file.name, why: refusal(sent.error) }));
      }
    } catch {
      setProblem(t('away'));
    }
    await refresh();
    setBusy(false);
  };
  const shoot = async (): Promise<void> => {
    setBusy(true);
    setProblem(null);
    const done = await run('takePictures', { eye, lensId: lens.id, count: BURST });
    if (done?.ok === false) setProblem(refusal(done.error));
    setBusy(false);
  };
  return (
    <section aria-label={t('pictures')} className="flex flex-wrap gap-3 items-center">
      {shots.map((shot, i) => (
        <button
          key={shot.id}
          type="button"
          className="picture picture-small"
          aria-pressed={series.shot?.id === shot.id}
          aria-label={t('shot', { number: i + 1, state: series.taken[shot.id] ? t('isTaken') : t('isOpen') })}
          onClick={() => series.show(shot.id)}
        >
          <Image unoptimized loading="eager" src={`/api/pictures/${shot.id}`} alt="" width={72} height={54} />
          <span className="note flex gap-1 items-center">
            {series.taken[shot.id] ? <StateMark state="ok" /> : null}
            {i + 1}
          </span>
        </button>
      ))}
      <FileChoice multiple accept={PICTURE_KINDS} disabled={busy} onFiles={(files) => void add(files)}>
        {t('add')}
      </FileChoice>
      {record.session.camera ? (
        <Button disabled={busy} onClick={() => void shoot()}>
          {t('shoot', { count: BURST })}
        </Button>
      ) : null}
      <div role="status" className="basis-full">
        {busy ? <span className="label">{t('coming')}</span> : null}
        {problem ? <ProblemLine>{problem}</ProblemLine> : null}
        {!busy && !problem && shots.length === 0 ? <span className="label">{t('none')}</span> : null}
      </div>
    </section>
  );
}
