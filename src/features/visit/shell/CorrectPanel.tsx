'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { parseAcuity, parseRotation, type AnyFact } from '@/core';
import { Field, ProblemLine } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { EyeBadge } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { problemAt, useProblemWords, useRefusalWords } from '../../common/words';
import type { CorrectableProps, Kind } from './Correct';
import { NewValue } from './NewValue';
import { useVisit } from './VisitProvider';

/** Where the right value is given, or the fact is taken back, with the reason. */
export function CorrectPanel({
  kind,
  row,
  typed,
  options,
  text: before,
  vertex,
  expires,
  onClose,
}: {
  readonly kind: Kind;
  readonly row: AnyFact;
  readonly typed: CorrectableProps<AnyFact>['typed'];
  readonly options: NonNullable<CorrectableProps<AnyFact>['options']>;
  readonly text: string;
  readonly vertex: number;
  readonly expires: string;
  readonly onClose: () => void;
}) {
  const t = useTranslations('correct');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { run, problem, clearProblem, busy, record } = useVisit();
  const [text, setText] = useState(before);
  const [kept, setKept] = useState<string | null>(null);
  const [vertexText, setVertexText] = useState(String(vertex));
  const [expiry, setExpiry] = useState(expires);
  const [reason, setReason] = useState('');
  const [back, setBack] = useState(false);
  const [asked, setAsked] = useState(false);
  const rotation = parseRotation(text);
  const acuity = parseAcuity(text, record.session.settings.acuity);
  const acuityValue = acuity.ok ? acuity.value : 0;
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setAsked(true);
    const base = { factId: row.id, reason };
    if (!back && ((typed === 'rotation' && !rotation.ok) || (typed === 'acuity' && !acuity.ok))) return;
    const newValue = {
      power: { text, vertexMm: Number(vertexText.replace(',', '.')) },
      rotation: { rotationLeft: rotation.ok ? rotation.value : 0 },
      acuity: kind === 'acuityBoth' || kind === 'eyeAcuity' ? { logMar: acuityValue, typed: text.trim() } : { value: acuityValue, typed: text.trim() },
      fit: { verdict: text },
      box: { lot: text, expiresOn: expiry },
      finding: { value: options.length > 0 ? text : Number(text.replace(',', '.')) },
    };
    const value = back || typed === null ? null : newValue[typed];
    const backInDrawer = kind === 'lensOnEye' ? { backInDrawer: back } : {};
    // The form's shape is checked by the service; here it is put together from what the panel asks.
    const done = await run('correct', { ...base, kind, value, ...backInDrawer } as never, t('done'));
    if (done?.ok) onClose();
  };
  const reasonProblem = problemAt(problem, 'reason');
  return (
    <Panel open onClose={close} title={t('title')}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
        <div className="flex items-center gap-2">
          {row.eye ? <EyeBadge eye={row.eye} /> : null} <span>{t(`kinds.${kind}`)}</span>
        </div>
        <NewValue
          typed={typed}
          text={text}
          onText={setText}
          vertex={{ text: vertexText, onText: setVertexText }}
          expiry={{ text: expiry, onText: setExpiry }}
          kept={{ text: kept, onText: setKept }}
          options={options}
          asked={asked}
          disabled={back}
          problem={problem}
        />
        <label className="flex items-center gap-2 min-h-8">
          <input
            type="checkbox"
            className="w-5 h-5"
            checked={back || typed === null}
            disabled={typed === null && kind !== 'lensOnEye'}
            onChange={(event) => setBack(event.target.checked)}
          />
          {kind === 'lensOnEye' ? t('neverOn') : t('takeBack')}
        </label>
        <Field
          label={t('reason')}
          value={reason}
          onValue={setReason}
          problem={reasonProblem ? words(reasonProblem.code, reasonProblem.data) : null}
          hint={t('reasonHint')}
        />
        {problem && problem.kind !== 'invalid' && problem.kind !== 'conflict' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <FormEnd cancel={t('cancel')} act={t('do')} busy={busy} onCancel={close} />
      </form>
    </Panel>
  );
}
