'use client';
import { useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { nearFindingProblem, nearOptions, type NearNumberSign, type NearWordSign } from '@/core';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { useProblemWords } from '../../../common/words';
import type { NearVision } from './useNearVision';

/** A number that is recorded by Enter or on leaving the field; one that cannot be recorded stays as it was typed. */
export function NearNumber({
  page,
  sign,
  value,
  label,
  hideLabel = false,
  className,
  hint,
}: {
  readonly page: NearVision;
  readonly sign: NearNumberSign;
  readonly value: number | null;
  readonly label: string;
  readonly hideLabel?: boolean;
  readonly className: string;
  readonly hint: ReactNode;
}) {
  const words = useProblemWords();
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? null : Number(typed.trim() === '' ? NaN : typed);
  const wrong = read === null ? null : nearFindingProblem(sign, read);
  const commit = (): void => {
    if (read === null || wrong || (read === 0 && sign !== 'stereo')) return;
    setTyped(null);
    if (read !== value) page.keep(sign, read);
  };
  return (
    <Field
      label={label}
      hideLabel={hideLabel}
      mono
      className={className}
      inputMode="numeric"
      autoComplete="off"
      value={typed ?? (value === null ? '' : String(value))}
      disabled={page.closed}
      onValue={setTyped}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
      }}
      problem={wrong ? words(wrong.code, wrong.data) : null}
      hint={hint}
    />
  );
}

/** One of a few words, recorded by its press. */
export function NearWords<Sign extends Exclude<NearWordSign, 'way' | 'driving'>>({
  page,
  sign,
  word,
  note,
}: {
  readonly page: NearVision;
  readonly sign: Sign;
  readonly word: (value: ReturnType<typeof nearOptions<Sign>>[number]) => string;
  readonly note?: string;
}) {
  const t: (sign: Exclude<NearWordSign, 'way' | 'driving'>) => string = useTranslations('nearVision');
  return (
    <div>
      <div className="field-label" aria-hidden="true">
        {t(sign)}
      </div>
      <Segment
        label={t(sign)}
        values={nearOptions(sign)}
        value={page.near[sign]}
        word={word}
        onChoose={(value) => page.keep(sign, value)}
        disabled={page.blocked}
      />
      {note ? <div className="note mt-1">{note}</div> : null}
    </div>
  );
}
