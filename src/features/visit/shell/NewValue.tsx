'use client';
import { useTranslations } from 'use-intl';
import { FIT_WORDS, parseAcuity, parseRotation, type NewValueKind } from '@/core';
import type { Problem } from '@/lib/outcome';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { PowerField } from '../../common/PowerField';
import { problemAt, useProblemWords } from '../../common/words';
import { useVisit } from './VisitProvider';

interface Typed<T extends string | null = string> {
  readonly text: T;
  readonly onText: (text: string) => void;
}
export interface NewValueProps extends Typed {
  /** What it is given as; null: it can only be taken back. */
  readonly takes: NewValueKind | null;
  readonly vertex: Typed;
  readonly expiry: Typed;
  readonly kept: Typed<string | null>;
  /** Values on offer, for what is chosen rather than typed. */
  readonly options: readonly { readonly value: string; readonly word: string }[];
  readonly asked: boolean;
  readonly disabled: boolean;
  readonly problem: Problem | null;
}

/** Where the right value is typed or chosen, each kind in its own way. */
export function NewValue({ takes, text, onText, vertex, expiry, kept, options, asked, disabled, problem }: NewValueProps) {
  const t = useTranslations('correctPanel');
  const words = useProblemWords();
  const { record } = useVisit();
  const { acuity, notation } = record.session.settings;
  const at = (field: string): string | null => {
    const p = problemAt(problem, 'value', field);
    return p ? words(p.code, p.data) : null;
  };
  const typing = { value: text, onValue: onText, mono: true, autoFocus: true, disabled };
  const held = asked && !disabled;
  switch (takes) {
    case null:
      return null;
    case 'power':
      return (
        <div className="grid grid-cols-[1fr_96px] gap-3">
          <PowerField
            id="correct-value"
            label={t('value')}
            eye="left"
            value={text}
            onValue={onText}
            problem={problemAt(problem, 'value', 'text')}
            kept={kept.text}
            onKeep={kept.onText}
            notation={notation}
            asked={asked}
            autoFocus
            disabled={disabled}
          />
          <Field
            label={t('vertex')}
            hideLabel
            value={vertex.text}
            onValue={vertex.onText}
            mono
            problem={at('vertexMm')}
            hint={t('vertexHint')}
            disabled={disabled}
          />
        </div>
      );
    case 'rotation': {
      const read = parseRotation(text);
      const wrong = held && !read.ok ? words(`rotation_${read.error.code}`, read.error.data) : null;
      return <Field label={t('rotation')} {...typing} problem={wrong} hint={t('rotationHint')} />;
    }
    case 'acuity': {
      const read = parseAcuity(text, acuity);
      return <Field label={t('value')} {...typing} problem={held && !read.ok ? words(read.error.code, read.error.data) : at('value')} />;
    }
    case 'box':
      return (
        <>
          <Field label={t('lot')} {...typing} problem={at('lot')} />
          <Field label={t('expires')} value={expiry.text} onValue={expiry.onText} disabled={disabled} problem={at('expiresOn')} />
        </>
      );
    case 'sign':
      return options.length > 0 ? (
        <select className="choice" aria-label={t('value')} value={text} onChange={(event) => onText(event.target.value)} disabled={disabled}>
          {options.map((o) => (
            <option key={o.value} value={o.value}>
              {o.word}
            </option>
          ))}
        </select>
      ) : (
        <Field label={t('value')} {...typing} inputMode="decimal" problem={at('value')} />
      );
    case 'fit':
      return <Segment label={t('value')} values={FIT_WORDS} value={text} word={(word) => t(`fit.${word}`)} onChoose={onText} disabled={disabled} />;
  }
}
