import { useTranslations } from 'use-intl';
import type { Kind } from '@/core';

/** `Daily toric`, `Monthly multifocal`. */
export function useKindName(): (kind: Pick<Kind, 'modality' | 'geometry'>) => string {
  const t = useTranslations('kind');
  return (kind) => `${t(`name.${kind.modality}`)} ${t(`geometry.${kind.geometry}`)}`;
}
