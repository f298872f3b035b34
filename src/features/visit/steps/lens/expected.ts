import { useTranslations } from 'use-intl';
import { blurDetail, expectedOf, howFarOut, linesLost, MIDDLE_PUPIL_MM, priorOf, type Refraction } from '@/core';
import type { Family } from '../../shell/candidates';
import { useServer } from '../../../common/ServerProvider';
import type { WorkingBlock } from '../../../common/Working';
import type { Chosen } from './model';

/** Lines of the working about what to expect on an eye where no lens was yet: the turn is assumed, and said so. */
export function useExpectedLines(): (need: Refraction, chosen: Chosen) => WorkingBlock['lines'] {
  const t = useTranslations('expected');
  const { ownTurns } = useServer().session.settings;
  return (need, { lens, family }) => {
    const prior = lens.power.cylinder === 0 ? null : priorOf(family);
    const blur = expectedOf(family, need, lens);
    const whence =
      family.rotationPrior && family.practiceTurn && ownTurns
        ? t('by.practice', { eyes: family.practiceTurn.eyes })
        : family.rotationPrior
          ? t('by.own')
          : family.stabilisation
            ? t(`by.${family.stabilisation}`)
            : '';
    return [
      ...(prior ? [{ what: whence, comes: t('turn', { mean: prior.mean.toFixed(1).replace(/\.0$/, ''), sd: prior.sd.toFixed(1).replace(/\.0$/, '') }) }] : []),
      { what: t('blur'), comes: t('value', { blur: blur.toFixed(2) }), strong: true },
      { what: t('sight'), comes: t('lines', { lines: linesLost(blur).toFixed(1) }) },
      { what: t('pupil', { pupil: MIDDLE_PUPIL_MM }), comes: t('detail', { detail: blurDetail(MIDDLE_PUPIL_MM, blur).toFixed(1) }) },
    ];
  };
}

/** Blur to expect and the lines it may cost, in halves, in a few words. */
export function useExpectWords(): (blur: number) => string {
  const t = useTranslations('lens');
  return (blur) => {
    const lines = Math.round(linesLost(blur) * 2) / 2;
    return lines < 0.5 ? t('expectNone', { blur: blur.toFixed(2) }) : t('expect', { blur: blur.toFixed(2), lines });
  };
}

/** How far an eye lies past what a family makes, in words; null when it is within. */
export function useReachWords(): (need: Refraction, family: Pick<Family, 'blocks'>) => string | null {
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
