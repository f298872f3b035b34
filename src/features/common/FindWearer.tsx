'use client';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { useServer } from './ServerProvider';

/** Who was found. */
export interface Found {
  readonly id: string;
  readonly name: string;
  readonly birthDate: string;
}
/** Asked this long after the last key, ms; and so many are offered. */
const ASK_AFTER_MS = 150;
const OFFERED = 5;

interface FindProps {
  readonly onFound: (found: Found) => void;
  /** Searched at once: a name that came in writing. */
  readonly first?: string;
}

/** A wearer found while typing, told apart by the birth date. */
export function FindWearer({ onFound, first = '' }: FindProps) {
  const t = useTranslations('diary');
  const { look } = useServer();
  const [search, setSearch] = useState(first);
  const [found, setFound] = useState<readonly Found[]>([]);
  useEffect(() => {
    if (search.trim() === '') return undefined;
    let gone = false;
    const timer = setTimeout(() => {
      void look('searchWearers', { search }).then((done) => {
        if (!gone && done?.ok) setFound(done.value.wearers.slice(0, OFFERED));
      });
    }, ASK_AFTER_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [look, search]);
  const shown = search.trim() === '' ? [] : found;
  return (
    <div>
      <Field
        label={t('who')}
        value={search}
        onValue={setSearch}
        autoFocus={first === ''}
        autoComplete="off"
        hint={shown.length === 0 ? t('whoHint') : undefined}
      />
      <div className="flex flex-col items-start" aria-live="polite">
        {shown.map((one) => (
          <Button key={one.id} look="quiet" className="min-h-10!" onClick={() => onFound(one)}>
            {t('foundOne', { name: one.name, day: formatDay(one.birthDate) })}
          </Button>
        ))}
      </div>
    </div>
  );
}
