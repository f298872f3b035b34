'use client';
import { useTranslations } from 'use-intl';
import { expectedBlur, formatRefraction, fromPowerVector, powerOnEye, subtractVectors, toPowerVector, turnCost, type Eye, type Refraction } from '@/core';
import { BlurredLetters } from '@/ui/BlurredLetters';
import { Figure } from '../../../common/Working';
import type { Readings } from './useReadings';

/** The line of letters shown, its letters’ height in minutes of arc: 20/25. */
const LINE_SHOWN = 6.25;
/** Pupil in a dim room, mm. */
export const DUSK_PUPIL = 5;

/** What the lens as it sits leaves, and what the order would: as cylinder and as blur. */
export function Cost({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const { stats, lens, verdict, made } = readings.live[eye];
  if (!stats || !lens) return <span className="label">{t('notRead')}</span>;
  const cost = turnCost(lens.cylinderD, stats.mean);
  const scatter = made && verdict.need && stats.sd !== null ? expectedBlur(verdict.need, made.lens.power, { mean: stats.mean, sd: stats.sd }) : null;
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`cost-${eye}`}>
      <span className="value">
        <Figure id={`cost-${eye}`}>{t('cost', { cylinder: cost.cylinder.toFixed(2), blur: cost.blur.toFixed(2) })}</Figure>
      </span>
      {Math.abs(stats.mean) < 5 ? <span className="note">{t('underFive')}</span> : null}
      {made ? <span className="note">{t('withOrder', { cylinder: Math.abs(made.lens.residual.cylinder).toFixed(2), blur: made.blur.toFixed(2) })}</span> : null}
      {scatter === null ? null : <span className="note">{t('withScatter', { blur: scatter.toFixed(2) })}</span>}
    </span>
  );
}

const leftBy = (need: Refraction, lens: Refraction, turn: number): Refraction =>
  fromPowerVector(subtractVectors(toPowerVector(need), toPowerVector(powerOnEye(lens, turn))));

export function Letters({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const { stats, lens, verdict, made } = readings.live[eye];
  if (!stats || !lens || !verdict.need) return <span className="label">{t('nothingToShow')}</span>;
  const now = leftBy(verdict.need, { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }, stats.mean);
  const then = made ? leftBy(verdict.need, made.lens.power, stats.mean) : null;
  const view = (residual: Refraction, caption: string) => (
    <figure className="flex flex-col items-center">
      <BlurredLetters
        letters="KENDR"
        residual={residual}
        pupilMm={DUSK_PUPIL}
        letterArcmin={LINE_SHOWN}
        label={t('lettersLabel', { power: formatRefraction(residual) })}
      />
      <figcaption className="note">{caption}</figcaption>
    </figure>
  );
  return (
    <span className={`flex gap-3 flex-wrap ${eye === 'right' ? 'justify-end' : ''}`}>
      {view(now, t('now'))}
      {then ? view(then, t('withTheOrder')) : null}
    </span>
  );
}
