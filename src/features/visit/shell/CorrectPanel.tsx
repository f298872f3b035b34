'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import correctPanelWords from '@/i18n/messages/en/correctPanel.messages.json';
import { withWords } from '@/i18n/withWords';
import { FACT_KINDS, FIT_WORDS, parseAcuity, parseRotation, type AnyFact, type FactKind } from '@/core';
import { Field, ProblemLine } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { EyeBadge } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { problemAt, useProblemWords, useRefusalWords } from '../../common/words';
import type { ServiceInput } from '../../common/server';
import type { CorrectableProps } from './Correct';
import { NewValue } from './NewValue';
import { useVisit } from './VisitProvider';

/** Where the right value is given, or the fact is taken back, with the reason. */
function CorrectPanelBody({
  kind,
  row,
  asAcuity,
  fromDrawer,
  options,
  text: before,
  vertex,
  expires,
  onClose,
}: {
  readonly kind: FactKind;
  readonly row: AnyFact;
  readonly asAcuity: boolean;
  readonly fromDrawer: boolean;
  readonly options: NonNullable<CorrectableProps<AnyFact>['options']>;
  readonly text: string;
  readonly vertex: number;
  readonly expires: string;
  readonly onClose: () => void;
}) {
  const t = useTranslations('correctPanel');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { run, problem, clearProblem, busy, record } = useVisit();
  const [text, setText] = useState(before);
  const [kept, setKept] = useState<string | null>(null);
  const [vertexText, setVertexText] = useState(String(vertex));
  const [expiry, setExpiry] = useState(expires);
  const [reason, setReason] = useState('');
  const [back, setBack] = useState(false);
  const [unopened, setUnopened] = useState(false);
  const [asked, setAsked] = useState(false);
  const { takes } = FACT_KINDS[kind];
  const rotation = parseRotation(text);
  const acuity = parseAcuity(text, record.session.settings.acuity);
  const number = Number(text.replace(',', '.'));
  /** What the panel holds, as the service takes it; null while it cannot be read. */
  const read = (): ServiceInput<'correct'>['value'] => {
    switch (takes) {
      case null:
        return null;
      case 'power':
        return { as: takes, text, vertexMm: Number(vertexText.replace(',', '.')) };
      case 'rotation':
        return rotation.ok ? { as: takes, rotationLeft: rotation.value } : null;
      case 'acuity':
        return acuity.ok ? { as: takes, logMar: acuity.value, typed: text.trim() } : null;
      case 'fit': {
        const verdict = FIT_WORDS.find((word) => word === text);
        return verdict ? { as: takes, verdict } : null;
      }
      case 'box':
        return { as: takes, lot: text, expiresOn: expiry };
      case 'sign':
        if (asAcuity) return acuity.ok ? { as: takes, value: acuity.value, typed: text.trim() } : null;
        return { as: takes, value: options.length > 0 ? text : number };
    }
  };
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setAsked(true);
    const removed = back || takes === null;
    const value = removed ? null : read();
    if (!removed && value === null) return;
    const done = await run('correct', { kind, factId: row.id, reason, value, backInDrawer: unopened }, t('done'));
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
          takes={asAcuity ? 'acuity' : takes}
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
        {takes === null ? (
          <p className="note">{t('onlyTakeBack')}</p>
        ) : (
          <Check checked={back} onChange={setBack}>
            {t('takeBack')}
          </Check>
        )}
        {fromDrawer ? (
          <Check checked={unopened} onChange={setUnopened}>
            {t('unopened')}
          </Check>
        ) : null}
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

function Check({ checked, onChange, children }: { readonly checked: boolean; readonly onChange: (checked: boolean) => void; readonly children: string }) {
  return (
    <label className="flex items-center gap-2 min-h-8">
      <input type="checkbox" className="w-5 h-5" checked={checked} onChange={(event) => onChange(event.target.checked)} />
      {children}
    </label>
  );
}

export const CorrectPanel = withWords({ correctPanel: correctPanelWords }, CorrectPanelBody);
