'use client';
import { useTranslations } from 'use-intl';
import { Field } from '@/ui/Field';
import { KeyCap } from '@/ui/marks';
import { problemAt, useProblemWords } from '../../../common/words';
import { useKindName } from '../../shell/kindWords';
import { useVisit } from '../../shell/VisitProvider';
import type { KindAdvice } from './useKind';

/** The kind that is decided on; for another than the one recommended, why. */
export function Decide({
  kind,
  picked,
  onPick,
  reason,
  onReason,
  onDecide,
}: {
  readonly kind: KindAdvice;
  readonly picked: number;
  readonly onPick: (index: number) => void;
  readonly reason: string;
  readonly onReason: (text: string) => void;
  readonly onDecide: () => void;
}) {
  const t = useTranslations('kind');
  const words = useProblemWords();
  const kindName = useKindName();
  const { record, problem } = useVisit();
  const { offered, closed } = kind;
  const other = picked > 0;
  const reasonProblem = problemAt(problem, 'reason');
  return (
    <div className="decide" role="radiogroup" aria-label={t('decide')}>
      <div className="flex flex-col gap-1">
        {offered.map((c, i) => (
          <button
            key={`${c.kind.modality}-${c.kind.wear}`}
            type="button"
            role="radio"
            aria-checked={picked === i}
            className="decide-choice"
            disabled={closed}
            onClick={() => onPick(i)}
            data-testid={`choose-${c.kind.modality}-${c.kind.wear}`}
          >
            <span className="check" data-done={picked === i || undefined}>
              {picked === i ? <span className="check-full" /> : null}
            </span>
            <KeyCap>{String(i + 1)}</KeyCap>
            <span className={picked === i ? 'font-[620]' : ''}>
              {i === 0 ? t('keep', { kind: kindName(c.kind).toLocaleLowerCase('en') }) : t('instead', { kind: kindName(c.kind) })}
              {c.kind.wear === 'overnight' ? `, ${t('wear.overnight')}` : ''}
            </span>
          </button>
        ))}
      </div>
      {other ? (
        <Field
          label={t('whyNot')}
          value={reason}
          onValue={onReason}
          autoFocus
          maxLength={400}
          problem={reasonProblem ? words(reasonProblem.code, reasonProblem.data) : null}
          hint={t('whyNotNote', { name: record.session.viewer.name })}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            onDecide();
          }}
        />
      ) : null}
    </div>
  );
}
