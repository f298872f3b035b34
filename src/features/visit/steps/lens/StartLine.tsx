'use client';
import { useTranslations } from 'use-intl';
import { dominanceOf, EYES, nameOfAdd, nearState, sphericalEquivalent, startPair, type StartLens } from '@/core';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import type { Choosing } from './useChoosing';

/** With which pair the chosen family begins, by its own table or by the measured add. */
export function StartLine({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const ofFamily = useTranslations('family');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { needs, adds, chosen } = choosing;
  const add = Math.max(adds.right ?? 0, adds.left ?? 0);
  const family = chosen.right?.family ?? chosen.left?.family;
  if (add === 0 || !family || !needs.right || !needs.left || adds.right === null || adds.left === null) return null;
  const need = { right: sphericalEquivalent(needs.right), left: sphericalEquivalent(needs.left) };
  const start = startPair(family, { age: record.wearer.age, add, dominant: dominanceOf(nearState(record.nearFindings)).eye, need });
  if (!start) return null;
  const lens = ({ add: made, plus }: StartLens): string =>
    [made === null ? t('noAdd') : nameOfAdd(made, (band) => ofFamily(`add.${band}`)), plus === 0 ? '' : `${plus > 0 ? '+' : '−'}${Math.abs(plus).toFixed(2)}`]
      .filter(Boolean)
      .join(' ');
  return (
    <p className="mb-3" data-testid="start-line">
      {t(start.row ? 'startByTable' : 'startByAdd', { family: family.name, pair: EYES.map((e) => `${eyeWords.short(e)} ${lens(start.lenses[e])}`).join(', ') })}
    </p>
  );
}
