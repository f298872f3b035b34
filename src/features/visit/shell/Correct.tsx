'use client';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, powerOf, UNDONE, type AnyFact, type FactChain, type FactKind, type PowerColumns } from '@/core';
import { formatTime } from '@/i18n/format';
import type { ServiceInput } from '../../common/server';
import { ReasonPanel } from './ReasonPanel';
import { useVisit } from './VisitProvider';

const CorrectPanel = lazy(() => import('./CorrectPanel').then((m) => ({ default: m.CorrectPanel })));

export interface CorrectableProps<Row extends AnyFact> {
  readonly kind: FactKind;
  readonly chain: FactChain<Row>;
  /** The value in words, for any row of the chain. */
  readonly show: (row: Row) => ReactNode;
  /** A sign that is read as an acuity, in the practice's notation. */
  readonly asAcuity?: boolean;
  /** It came out of the trial drawer, and may go back unopened. */
  readonly fromDrawer?: (row: Row) => boolean;
  /** Values on offer, for what is chosen rather than typed. */
  readonly options?: readonly { readonly value: string; readonly word: string }[];
  readonly textOf?: (row: Row) => string;
  readonly vertexOf?: (row: Row) => number;
  readonly expiryOf?: (row: Row) => string;
}

/** A recorded value with everything it once said, struck, and the way to correct it. */
export function Correctable<Row extends AnyFact>({ kind, chain, show, asAcuity, fromDrawer, options, textOf, vertexOf, expiryOf }: CorrectableProps<Row>) {
  const t = useTranslations('correct');
  const { record } = useVisit();
  const [open, setOpen] = useState(false);
  const reasonOf = (reason: string): string => (reason === UNDONE ? t('undone') : reason);
  const old = chain.current ? chain.rows.slice(0, -1) : chain.rows;
  const zone = record.session.practice.timeZone;
  return (
    <>
      {old.map((row, index) => (
        <span key={row.id} className="note">
          <span className="sr-only">{t('was')}</span>
          <del className="struck no-underline">{show(row)}</del>{' '}
          {t('because', {
            reason: reasonOf(chain.rows[index + 1]?.reason ?? ''),
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
        <Suspense fallback={null}>
          <CorrectPanel
            kind={kind}
            row={chain.current}
            asAcuity={asAcuity ?? false}
            fromDrawer={fromDrawer?.(chain.current) ?? false}
            options={options ?? []}
            text={textOf?.(chain.current) ?? ''}
            vertex={vertexOf?.(chain.current) ?? 12}
            expires={expiryOf?.(chain.current) ?? ''}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      ) : null}
    </>
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
  return <Correctable kind={kind} chain={chain} show={words} textOf={words} vertexOf={(row) => row.vertexMm} />;
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
