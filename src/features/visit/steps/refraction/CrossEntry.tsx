'use client';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { useEyeWords } from '../../../common/eyeWords';
import type { Draft } from '../../shell/useDraft';
import { crossText, otherMeridian } from './model';

const PARTS = ['CrossFirst', 'CrossAt', 'CrossSecond'] as const;

/** A power cross in its three parts; the line above reads them as they are typed. */
export function CrossEntry({ eye, draft }: { readonly eye: Eye; readonly draft: Draft<'refraction'> }) {
  const t = useTranslations('refraction');
  const eyeWords = useEyeWords();
  const valueOf = (part: (typeof PARTS)[number]): string => draft.body[`${eye}${part}`] ?? '';
  const write = (part: (typeof PARTS)[number], value: string): void => {
    draft.set(`${eye}${part}`, value);
    const [first = '', at = '', second = ''] = PARTS.map((p) => (p === part ? value : valueOf(p)));
    draft.set(eye, crossText(first, at, second));
  };
  const field = (part: (typeof PARTS)[number], label: string, width: string) => (
    <input
      className={`input input-mono ${width}`}
      aria-label={label}
      value={valueOf(part)}
      onChange={(event) => write(part, event.target.value)}
      autoComplete="off"
      inputMode={part === 'CrossAt' ? 'numeric' : 'text'}
    />
  );
  const other = otherMeridian(valueOf('CrossAt'));
  const name = eyeWords.name(eye);
  return (
    <div className={`flex flex-wrap gap-2 items-center ${eye === 'right' ? 'justify-end' : ''}`}>
      {field('CrossFirst', t('crossFirst', { eye: name }), 'max-w-[92px]')}
      <span className="label">{t('crossAtWord')}</span>
      {field('CrossAt', t('crossAt', { eye: name }), 'max-w-[64px]')}
      {field('CrossSecond', t('crossSecond', { eye: name }), 'max-w-[92px]')}
      <span className="label">{other === null ? t('crossAtWord') : t('crossOther', { axis: other })}</span>
    </div>
  );
}
