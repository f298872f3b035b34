import { useTranslations } from 'use-intl';
import { expectedBlur, howFarOut, linesLost, ROTATION_PRIORS, type Refraction } from '@/core';
import type { WorkingBlock } from '../common/Working';
import type { Chosen } from './model';

/** Lines of the working about what to expect on an eye where no lens was yet: the turn is assumed, and said so. */
export function useExpectedLines(): (need: Refraction, chosen: Chosen) => WorkingBlock['lines'] {
  const t = useTranslations('expected');
  return (need, { lens, family }) => {
    const prior = family.stabilisation && lens.power.cylinder !== 0 ? ROTATION_PRIORS[family.stabilisation] : null;
    const blur = prior ? expectedBlur(need, lens.power, prior) : lens.blur;
    return [
      ...(prior && family.stabilisation ? [{ what: t(`by.${family.stabilisation}`), comes: t('turn', { mean: prior.mean, sd: prior.sd }) }] : []),
      { what: t('blur'), comes: t('value', { blur: blur.toFixed(2) }), strong: true },
      { what: t('sight'), comes: t('lines', { lines: linesLost(blur).toFixed(1) }) },
    ];
  };
}

/** How far an eye lies past what a family makes, in words; null when it is within. */
export function useReachWords(): (need: Refraction, family: Chosen['family']) => string | null {
  const t = useTranslations('expected');
  return (need, family) => {
    const out = howFarOut(need, family.blocks);
    const toric = family.blocks.some((b) => b.cylinders.some((c) => c !== 0));
    const parts = [
      ...(out.sphere > 0 && Number.isFinite(out.sphere) ? [t('outSphere', { past: out.sphere.toFixed(2) })] : []),
      ...(toric && out.cylinder > 0.125 ? [t('outCylinder', { past: out.cylinder.toFixed(2) })] : []),
      ...(toric && out.axis > 0 && Number.isFinite(out.axis) ? [t('outAxis', { degrees: Math.round(out.axis) })] : []),
    ];
    return parts.length > 0 ? t('out', { parts: parts.join(', ') }) : null;
  };
}
