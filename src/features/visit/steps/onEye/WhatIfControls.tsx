'use client';
import { useTranslations } from 'use-intl';
import { EYES, MULTIFOCAL_DESIGNS, nameOfAdd, type Eye, type LensAdd } from '@/core';
import { useEyeWords } from '../../../common/eyeWords';
import { designOfText, type WhatIf } from './eyesThrough';

/** Pupils and cylinders that may be tried, mm and D. */
const PUPIL = { min: 2, max: 8, step: 0.1 } as const;
const CYLINDER = { min: 0, max: 2, step: 0.25 } as const;

/** What may be tried in thought, beside the pair as it is. */
export function WhatIfControls({
  whatIf,
  cylinderNow,
  adds,
  onChange,
}: {
  readonly whatIf: WhatIf;
  readonly cylinderNow: number;
  readonly adds: readonly LensAdd[];
  readonly onChange: (next: WhatIf) => void;
}) {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  const cylinder = whatIf.cylinder ?? cylinderNow;
  const slider = (label: string, of: { readonly min: number; readonly max: number; readonly step: number }, value: number, set: (value: number) => void) => (
    <label className="note flex gap-3 items-center">
      <span className="w-[150px]">{label}</span>
      <input type="range" className="w-[220px]" {...of} value={value} onChange={(event) => set(Number(event.target.value))} />
    </label>
  );
  const addOf = (e: Eye) => (
    <label key={e} className="note flex gap-2 items-center">
      {t('chart.addOf', { eye: eyeWords.short(e) })}
      <select
        className="choice"
        value={whatIf.adds[e] ?? 'none'}
        onChange={({ target: { value } }) =>
          onChange({ ...whatIf, adds: { ...whatIf.adds, [e]: value === 'asIs' ? value : value === 'none' ? null : (adds.find((a) => a === value) ?? 'asIs') } })
        }
      >
        <option value="asIs">{t('chart.asIs')}</option>
        <option value="none">{t('noAdd')}</option>
        {adds.map((add) => (
          <option key={add} value={add}>
            {nameOfAdd(add, (band) => t(`band.${band}`))}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <div className="flex gap-x-8 gap-y-2 flex-wrap items-center py-2">
      {slider(t('chart.pupil', { mm: whatIf.pupilMm.toFixed(1) }), PUPIL, whatIf.pupilMm, (pupilMm) => onChange({ ...whatIf, pupilMm }))}
      {slider(t('chart.cylinder', { cylinder: cylinder.toFixed(2) }), CYLINDER, cylinder, (next) => onChange({ ...whatIf, cylinder: next }))}
      {EYES.map(addOf)}
      <label className="note flex gap-2 items-center">
        {t('chart.design')}
        <select className="choice" value={whatIf.design ?? ''} onChange={(event) => onChange({ ...whatIf, design: designOfText(event.target.value) })}>
          <option value="">{t('chart.asIs')}</option>
          {MULTIFOCAL_DESIGNS.map((design) => (
            <option key={design} value={design}>
              {t(`chart.designs.${design}`)}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}
