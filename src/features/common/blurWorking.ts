import { formatPower, formatRefraction, toPowerVector, type NearestLens, type Refraction } from '@/core';
import { useTranslations } from 'use-intl';
import type { WorkingBlock } from './Working';

/** How the blur that a makeable lens leaves comes about, step by step. */
export function useBlurWorking(): (id: string, eye: string, need: Refraction, lens: NearestLens) => WorkingBlock {
  const t = useTranslations('blurWorking');
  return (id, eye, need, lens) => {
    const [n, l] = [toPowerVector(need), toPowerVector(lens.power)];
    const minus = (part: 'm' | 'j0' | 'j45') => ({
      what: part.toUpperCase(),
      comes: `${formatPower(n[part], 3)} − (${formatPower(l[part], 3)}) = ${formatPower(n[part] - l[part], 3)}`,
    });
    return {
      id,
      title: t('title', { eye }),
      lines: [
        { what: t('need'), comes: formatRefraction(need) },
        { what: t('lens'), comes: formatRefraction(lens.power) },
        minus('m'),
        minus('j0'),
        minus('j45'),
        { what: t('blur'), comes: `${lens.blur.toFixed(2)} D`, strong: true },
        { what: t('cylinder'), comes: `${Math.abs(lens.residual.cylinder).toFixed(2)} D` },
      ],
      foot: t('foot'),
    };
  };
}
