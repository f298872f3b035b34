import { useTranslations } from 'use-intl';
import type { Eye, WrittenAim } from '@/core';

/** Names of the eyes and their sides, as the examiner sees them. */
export function useEyeWords() {
  const t = useTranslations('eyes');
  const name = (eye: Eye): string => t(`${eye}.name`);
  const short = (eye: Eye): string => t(`${eye}.short`);
  const heads = { right: { name: t('right.name'), side: t('right.side') }, left: { name: t('left.name'), side: t('left.side') } };
  /** `10° to your left`, `sits true`. */
  const turn = (rotationLeft: number): string =>
    rotationLeft === 0 ? t('sitsTrue') : rotationLeft > 0 ? t('toYourLeft', { degrees: rotationLeft }) : t('toYourRight', { degrees: -rotationLeft });
  /** What an eye is to see: `near 40 cm`; null where nothing was decided. */
  const aim = (of: WrittenAim | null | undefined): string | null => (of ? t(`aim.${of.sees}`, { cm: of.cm ?? 0 }) : null);
  return { name, short, heads, turn, aim };
}
