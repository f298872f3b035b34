'use client';
import { useState, type FormEvent, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, parseAcuity, parseRotation, powerOf, type AnyFact, type FactChain, type PowerColumns } from '@/core';
import { formatTime } from '@/i18n/format';
import { Field, ProblemLine } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { EyeBadge } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import type { ServiceInput } from '../../common/server';
import { problemAt, useProblemWords, useRefusalWords } from '../../common/words';
import { NewValue, type ValueKind } from './NewValue';
import { ReasonPanel } from './ReasonPanel';
import { useVisit } from './VisitProvider';

type Kind = ServiceInput<'correct'>['kind'];

export interface CorrectableProps<Row extends AnyFact> {
  readonly kind: Kind;
  readonly chain: FactChain<Row>;
  /** The value in words, for any row of the chain. */
  readonly show: (row: Row) => ReactNode;
  /** What the new value is typed as; null when it can only be taken back. */
  readonly typed: ValueKind | null;
  /** Values on offer, for what is chosen rather than typed. */
  readonly options?: readonly { readonly value: string; readonly word: string }[];
  readonly textOf?: (row: Row) => string;
  readonly vertexOf?: (row: Row) => number;
  readonly expiryOf?: (row: Row) => string;
}

/** A recorded value with everything it once said, struck, and the way to correct it. */
export function Correctable<Row extends AnyFact>({ kind, chain, show, typed, options, textOf, vertexOf, expiryOf }: CorrectableProps<Row>) {
  const t = useTranslations('correct');
  const { record } = useVisit();
  const [open, setOpen] = useState(false);
  const old = chain.current ? chain.rows.slice(0, -1) : chain.rows;
  const zone = record.session.practice.timeZone;
  return (
    <>
      {old.map((row, index) => (
        <span key={row.id} className="note">
          <span className="sr-only">{t('was')}</span>
          <del className="struck no-underline">{show(row)}</del>{' '}
          {t('because', {
            reason: chain.rows[index + 1]?.reason ?? '',
            by: chain.rows[index + 1]?.recordedByName ?? '',
            time: formatTime(chain.rows[index + 1]?.recordedAt ?? row.recordedAt, zone),
          })}
        </span>
      ))}
      {chain.current && record.visit.closedAt === null ? (
        <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)} data-testid={`correct-${kind}-${chain.current.eye}`}>
          {t('open')}
        </button>
      ) : null}
      {open && chain.current ? (
        <CorrectPanel
          kind={kind}
          row={chain.current}
          typed={typed}
          options={options ?? []}
          text={textOf?.(chain.current) ?? ''}
          vertex={vertexOf?.(chain.current) ?? 12}
          expires={expiryOf?.(chain.current) ?? ''}
          onClose={() => setOpen(false)}
        />
      ) : null}
    </>
  );
}

function CorrectPanel({
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

/** A recorded power, with the vertex it was measured at. */
export function CorrectablePower<Row extends AnyFact & PowerColumns & { readonly vertexMm: number }>({
  kind,
  chain,
}: {
  readonly kind: 'refraction' | 'overRefraction';
  readonly chain: FactChain<Row>;
}) {
  const words = (row: Row): string => formatRefraction(powerOf(row));
  return <Correctable kind={kind} chain={chain} show={words} typed="power" textOf={words} vertexOf={(row) => row.vertexMm} />;
}

/** Right and left mixed up: one correction exchanges them. */
export function SwapEyes({ kind }: { readonly kind: ServiceInput<'swapEyes'>['kind'] }) {
  const t = useTranslations('correct');
  const { run } = useVisit();
  return (
    <ReasonPanel
      open={t('swap')}
      title={t('swapTitle')}
      text={t('swapText')}
      doWords={t('swapDo')}
      onReason={async (reason) => (await run('swapEyes', { kind, reason }, t('swapDone')))?.ok === true}
    />
  );
}
