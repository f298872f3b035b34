'use client';
import { useTranslations } from 'use-intl';
import { OVER_CONTROLS, PLUS_HALF, type Eye, type OverRefractionFact } from '@/core';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { controlOf, plusHalfOf, testedOf } from './model';
import type { Readings } from './useReadings';

/** How an over-refraction is taken: the first +0.50, whether cylinder was looked for, how accommodation was relaxed. */
export function HowTaken({ readings, eye, typed }: { readonly readings: Readings; readonly eye: Eye; readonly typed: boolean }) {
  const t = useTranslations('sightDesk');
  const eyeWords = useEyeWords();
  const { draft } = readings;
  const { body } = draft;
  if (!readings.usable(eye)) return null;
  const plus = plusHalfOf(body, eye);
  const labelled = (what: 'plusHalf' | 'control'): string => `${eyeWords.name(eye)}, ${t(`${what}.name`)}`;
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <span className="flex gap-2 items-baseline flex-wrap">
        <span className="note">{t('plusHalf.name')}</span>
        <Segment
          label={labelled('plusHalf')}
          values={PLUS_HALF}
          value={plus ?? ''}
          word={(w) => t(`plusHalf.${w}`)}
          onChoose={(w) => draft.set(`${eye}Plus`, w)}
        />
        {plus === 'worse' && !typed ? (
          <button type="button" className="btn btn-quiet" onClick={() => draft.set(eye, '0.00')} aria-label={`${eyeWords.name(eye)}, ${t('plano')}`}>
            {t('plano')}
          </button>
        ) : null}
      </span>
      {typed ? (
        <>
          {readings.live[eye].over?.power.cylinder ? null : (
            <label className="flex gap-2 items-center note">
              <input type="checkbox" checked={testedOf(body, eye)} onChange={(event) => draft.set(`${eye}Tested`, event.target.checked ? 'yes' : '')} />
              {t('cylinderTested')}
            </label>
          )}
          <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
            <span className="note">{t('control.name')}</span>
            <Segment
              label={labelled('control')}
              kind="wrapping"
              values={OVER_CONTROLS}
              value={controlOf(body, eye)}
              word={(c) => t(`control.${c}`)}
              onChoose={(c) => draft.set(`${eye}Control`, c)}
            />
          </span>
        </>
      ) : null}
    </span>
  );
}

/** The same of one that was recorded. */
export function LockedVisit({ over }: { readonly over: OverRefractionFact }) {
  const t = useTranslations('sightDesk');
  const said = [
    over.plusHalf ? t('plusHalfSaid', { how: t(`plusHalf.${over.plusHalf}`) }) : null,
    over.cylinderD === 0 ? t(over.cylinderTested ? 'cylinderNone' : 'sphereOnly') : null,
    over.control === 'none' ? null : t(`control.${over.control}`),
  ].filter((s) => s !== null);
  return <span className="note">{said.join(' · ')}</span>;
}
