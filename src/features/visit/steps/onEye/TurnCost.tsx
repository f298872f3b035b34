'use client';
import { useTranslations } from 'use-intl';
import { expectedBlur, turnCost, type Eye } from '@/core';
import { Figure } from '../../../common/Working';
import type { Readings } from './useReadings';

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
