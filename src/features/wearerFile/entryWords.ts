import { useTranslations } from 'use-intl';
import type { LensRow, TimelineEntry, TimelineWhat } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';
import type { Data } from './data';
import { useFactWords } from './factWords';
import { useLensWords } from './lensWords';
import { useOtherWords } from './otherWords';

/** What a line of the timeline says, in words. @param lenses lenses that lines name */
export function useEntryWords(lenses: Readonly<Record<string, LensRow>>) {
  const t = useTranslations('file');
  const of = useWordsOf('file');
  const lens = useLensWords(lenses);
  const says: Readonly<Record<TimelineWhat, (d: Data) => string>> = { ...useFactWords(lens), ...useOtherWords(lens) };
  const identity = (was: Data): string =>
    Object.entries(was)
      .flatMap(([field, value]) => (typeof value === 'string' && value !== '' ? [t('seen', { sign: of(`identity.${field}`), value })] : []))
      .join(', ');
  return {
    lensWords: lens.name,
    says: (entry: TimelineEntry): string => {
      if (entry.what === 'identityChange') return t('takenBack', { was: entry.was === null ? '' : identity(entry.was) });
      const now = says[entry.what](entry.data);
      if (entry.was === null) return now;
      const was = says[entry.what](entry.was);
      return entry.voided ? t('takenBack', { was }) : t('wasNow', { was, now });
    },
  };
}
