'use client';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye, type RawOrder } from '@/core';
import { useEyeWords } from '../../common/eyeWords';

/** One eye's raw data for the laboratory: the lens worn, the over-refraction and the turn. It names no lens to make. */
export function RawFigures({ raw, eye }: { readonly raw: RawOrder; readonly eye?: Eye }) {
  const t = useTranslations('raw');
  const eyeWords = useEyeWords();
  return (
    <span className="flex flex-col items-inherit" data-testid="raw-figures">
      <span className="value">
        {eye ? `${eyeWords.short(eye)} ` : ''}
        {t('worn', { power: formatRefraction(raw.worn), family: raw.familyName, curve: raw.baseCurveMm.toFixed(1), diameter: raw.diameterMm.toFixed(1) })}
      </span>
      <span className="value">{t('over', { power: formatRefraction(raw.overRefraction), vertex: raw.vertexMm })}</span>
      <span className="value">{t('turn', { turn: eyeWords.turn(Math.round(raw.rotationLeft)) })}</span>
      <span className="note">{t('laboratory')}</span>
    </span>
  );
}
