import { useTranslations } from 'use-intl';
import { formatRefraction, type LensRow } from '@/core';
import { text, type Data } from './data';

/** Lenses in words: which, and with the lot of its box. */
export function useLensWords(lenses: Readonly<Record<string, LensRow>>) {
  const t = useTranslations('file');
  const name = (id: unknown): string => {
    const lens = typeof id === 'string' ? lenses[id] : undefined;
    if (!lens) return t('lensGone');
    return `${lens.familyName} ${formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}`;
  };
  const box = (d: Data): string => {
    const lens = d['lensId'] ? name(d['lensId']) : text(d['description']);
    return d['lot'] ? t('lot', { lens, lot: text(d['lot']) }) : lens;
  };
  return { name, box };
}
export type LensWords = ReturnType<typeof useLensWords>;
