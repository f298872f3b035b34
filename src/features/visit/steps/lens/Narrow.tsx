'use client';
import { useTranslations } from 'use-intl';
import { SHAPES, type Shape } from '@/core';

/** What the list is narrowed by: the shape of lens, and a material that this wearer is not to have. */
export function Narrow({
  shape,
  without,
  onShape,
  onWithout,
}: {
  readonly shape: Shape;
  readonly without: 'hydrogel' | 'siliconeHydrogel' | null;
  readonly onShape: (shape: Shape) => void;
  readonly onWithout: (material: string) => void;
}) {
  const t = useTranslations('lens');
  return (
    <div className="kind-band flex-wrap" role="group" aria-label={t('shape')}>
      <span className="label">{t('shape')}</span>
      {SHAPES.map((s) => (
        <button key={s} type="button" className="btn btn-quiet" aria-pressed={shape === s} onClick={() => onShape(s)}>
          {t(`shapes.${s}`)}
        </button>
      ))}
      <label className="note">
        {t('without')}{' '}
        <select className="choice" value={without ?? ''} onChange={(event) => onWithout(event.target.value)}>
          <option value="">{t('withoutNone')}</option>
          <option value="hydrogel">{t('withoutKinds.hydrogel')}</option>
          <option value="siliconeHydrogel">{t('withoutKinds.siliconeHydrogel')}</option>
        </select>
      </label>
    </div>
  );
}
