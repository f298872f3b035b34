'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { centredOverlap, MEAN_HVID_MM, movementByOverlap, overlaps, type Eye, type LensSignId } from '@/core';
import { FitEye } from '@/ui/FitEye';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { Figure } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import { FindingField, useLensSignWords } from './findings';
import type { Readings } from './useReadings';

/** Shares of the overlap on the ruler. */
const SHARES = [0, 0.25, 0.5, 0.75, 1, 1.5] as const;
const SIDES = [
  ['overlapUp', 'up'],
  ['overlapDown', 'down'],
  ['overlapNose', 'nose'],
  ['overlapEar', 'ear'],
] as const;

const useGeometry = (readings: Readings, eye: Eye) => {
  const { health } = useVisit();
  const seen = health.facts.eyes[eye].hvid;
  const { lens, findings } = readings.live[eye];
  const hvid = typeof seen === 'number' ? seen : MEAN_HVID_MM;
  const diameter = lens?.diameterMm ?? 14.2;
  const number = (sign: LensSignId): number => {
    const value = findings[sign];
    return typeof value === 'number' ? value : 0;
  };
  return { hvid, measured: typeof seen === 'number', diameter, centred: centredOverlap(diameter, hvid), off: { nose: number('offNose'), up: number('offUp') } };
};

export function Centring({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const eyeWords = useEyeWords();
  const g = useGeometry(readings, eye);
  const usable = readings.usable(eye);
  const move = (nose: number, up: number): void => {
    const text = (mm: number): string => (Math.round(mm * 10) / 10).toFixed(1);
    readings.setFinding(eye, 'offNose', text(nose));
    readings.setFinding(eye, 'offUp', text(up));
  };
  const nudges = [
    ['nose', 0.1, 0],
    ['ear', -0.1, 0],
    ['up', 0, 0.1],
    ['down', 0, -0.1],
  ] as const;
  return (
    <div className={`flex flex-col gap-2 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <FitEye
        eye={eye}
        hvid={g.hvid}
        lensDiameter={g.diameter - 0.25}
        offNose={g.off.nose}
        offUp={g.off.up}
        onMove={move}
        disabled={!usable}
        label={t('eyeLabel', { eye: eyeWords.name(eye), nose: g.off.nose.toFixed(1), up: g.off.up.toFixed(1) })}
        words={{ nose: t('nose'), ear: t('ear') }}
      />
      <span className="flex gap-1">
        {nudges.map(([to, nose, up]) => (
          <button
            key={to}
            type="button"
            className="btn nudge"
            disabled={!usable}
            aria-label={t('nudge', { eye: eyeWords.name(eye), to: t(to) })}
            onClick={() => move(g.off.nose + nose, g.off.up + up)}
          >
            {t(`${to}Short`)}
          </button>
        ))}
      </span>
      <span className={`flex gap-3 flex-wrap ${eye === 'right' ? 'justify-end' : ''}`}>
        <FindingField readings={readings} eye={eye} sign="offNose" />
        <FindingField readings={readings} eye={eye} sign="offUp" />
      </span>
    </div>
  );
}

/** How far the lens reaches past the limbus: from the centring, or as it was seen. */
export function Overlap({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const g = useGeometry(readings, eye);
  const from = overlaps(g.centred, g.off);
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <span className="value">
        <Figure id={`overlap-${eye}`}>
          {t('overlapLine', { up: from.up.toFixed(1), down: from.down.toFixed(1), nose: from.nose.toFixed(1), ear: from.ear.toFixed(1) })}
        </Figure>
      </span>
      {Object.values(from).some((mm) => mm < 1) ? <Stated state="watch">{t('overlapSmall')}</Stated> : null}
      <span className="grid grid-cols-2 gap-x-3 gap-y-1">
        {SIDES.map(([sign]) => (
          <FindingField key={sign} readings={readings} eye={eye} sign={sign} />
        ))}
      </span>
      {g.measured ? null : <span className="note">{t('hvidAssumed', { mm: g.hvid.toFixed(1) })}</span>}
    </span>
  );
}

/** The overlap is the ruler: how far toward the limbus did the edge go? */
export function Ruler({ readings, eye, sign }: { readonly readings: Readings; readonly eye: Eye; readonly sign: 'movement' | 'movementUp' | 'lag' }) {
  const t = useTranslations('fitDesk');
  const tOf = useWordsOf('fitDesk');
  const words = useLensSignWords();
  const eyeWords = useEyeWords();
  const g = useGeometry(readings, eye);
  const now = readings.live[eye].findings[sign];
  return (
    <div className={`flex gap-3 items-start flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}>
      <FindingField readings={readings} eye={eye} sign={sign} bare />
      <div className="ruler" role="group" aria-label={t('rulerLabel', { eye: eyeWords.name(eye), sign: words.name(sign) })}>
        {SHARES.map((share) => {
          const mm = movementByOverlap(share, g.centred);
          return (
            <button
              key={share}
              type="button"
              disabled={!readings.usable(eye)}
              data-state={now === mm ? 'on' : 'off'}
              aria-pressed={now === mm}
              onClick={() => readings.setFinding(eye, sign, mm.toFixed(2))}
            >
              <span className="ruler-share">{tOf(`shares.s${share * 100}`)}</span>
              <span className="note">{mm.toFixed(2)}</span>
            </button>
          );
        })}
      </div>
    </div>
  );
}
