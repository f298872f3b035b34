'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { instantOf, requestStanding, RULE_PROFILES } from '@/core';
import type { CopyRequestRow } from '@/db/copyRequest';
import { formatDay, formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useNow } from '../common/Clock';
import { FindWearer, type Found } from '../common/FindWearer';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { WearerLink } from '../common/WearerLink';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface Of {
  readonly copies: readonly CopyRequestRow[];
  readonly onDone: () => void;
}

/** Copies that somebody acting for a wearer asked for, each with its clock; those ended last below. */
export function Copies({ copies, onDone }: Of) {
  const t = useTranslations('requests.copies');
  const { session } = useServer();
  const [asking, setAsking] = useState(false);
  const waiting = copies.filter((c) => c.how === null);
  return (
    <section className="px-6 py-3" aria-label={t('title')}>
      <div className="flex gap-4 items-baseline flex-wrap">
        <h2>{t('title')}</h2>
        <Button look="quiet" onClick={() => setAsking(true)}>
          {t('ask')}
        </Button>
      </div>
      <p className="note mb-2">{t('line', { hours: RULE_PROFILES[session.settings.ruleProfile].agentHours })}</p>
      {waiting.length === 0 ? <p className="py-2">{t('none')}</p> : null}
      {copies.map((copy) => (
        <Copy key={copy.id} copy={copy} onDone={onDone} />
      ))}
      {asking ? <AskPanel onDone={onDone} onClose={() => setAsking(false)} /> : null}
    </section>
  );
}

function Copy({ copy, onDone }: { readonly copy: CopyRequestRow; readonly onDone: () => void }) {
  const t = useTranslations('requests.copies');
  const { session } = useServer();
  const zone = session.practice.timeZone;
  return (
    <article className="border-t border-rule py-3 flex gap-6 flex-wrap items-start" data-testid="copy-request">
      <Clock copy={copy} />
      <div className="flex-1 min-w-[420px] flex flex-col gap-2">
        <p>
          {t('for', { agent: copy.agentName })} <WearerLink id={copy.wearerId} name={copy.wearerName} />
        </p>
        <p className="label">{t('to', { contact: copy.agentContact, time: formatMoment(copy.receivedAt, zone) })}</p>
        {copy.how === null ? (
          <End copy={copy} onDone={onDone} />
        ) : (
          <Stated state={copy.how === 'sent' ? 'ok' : 'watch'}>
            {t('ended', {
              how: copy.how,
              number: copy.prescriptionNumber ?? 0,
              reason: copy.reason ?? '',
              name: copy.endedByName ?? '',
              time: copy.endedAt === null ? '' : formatMoment(copy.endedAt, zone),
            })}
          </Stated>
        )}
      </div>
    </article>
  );
}

/** The clock, large: by when; or since when it is over. */
function Clock({ copy }: { readonly copy: CopyRequestRow }) {
  const t = useTranslations('requests.copies');
  const words = useTranslations('requests');
  const { session } = useServer();
  const now = useNow(60_000);
  const standing = requestStanding({ answeredAt: copy.endedAt, earliestAt: copy.dueAt }, instantOf(now));
  if (copy.dueAt === null) return <p className="w-[200px] label">{words('noDeadline')}</p>;
  return (
    <div className="w-[200px]">
      {standing.kind === 'lost' ? (
        <Stated state="stop">{t('late', { time: words('in', { hours: Math.floor(standing.minutes / 60), minutes: standing.minutes % 60 }) })}</Stated>
      ) : null}
      {standing.kind === 'answered' ? null : (
        <>
          <p className="label">{t('due')}</p>
          <p className="power">{formatMoment(copy.dueAt, session.practice.timeZone)}</p>
        </>
      )}
    </div>
  );
}

/** A person sent it: one press for the prescription that was sent; or why none is. */
function End({ copy, onDone }: { readonly copy: CopyRequestRow; readonly onDone: () => void }) {
  const t = useTranslations('requests.copies');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useSending<'endCopyRequest'>(onDone);
  const [reason, setReason] = useState('');
  const fault = problemAt(problem, 'reason') ?? problemAt(problem, 'prescriptionId');
  const end = (how: 'sent' | 'refused', prescriptionId: string | null): void =>
    void send('endCopyRequest', { copyRequestId: copy.id, how, prescriptionId, reason: how === 'sent' ? '' : reason });
  return (
    <div className="flex gap-3 items-end flex-wrap">
      {copy.inForce.length === 0 ? <p>{t('noneInForce')}</p> : null}
      {copy.inForce.map((p) => (
        <Button key={p.id} look="act" disabled={busy} onClick={() => end('sent', p.id)}>
          {t('sent', { number: p.number })}
        </Button>
      ))}
      <Field
        className="w-[260px]"
        label={t('why')}
        value={reason}
        onValue={setReason}
        problem={fault ? words(fault.code, fault.data) : null}
        autoComplete="off"
        maxLength={400}
      />
      <Button disabled={busy} onClick={() => end('refused', null)}>
        {t('refuse')}
      </Button>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </div>
  );
}

function AskPanel({ onDone, onClose }: { readonly onDone: () => void; readonly onClose: () => void }) {
  const t = useTranslations('requests.copies');
  const words = useProblemWords();
  const labels = useTranslations('requests');
  const { session } = useServer();
  const { send, problem, busy } = useSending<'recordCopyRequest'>(onDone);
  const [wearer, setWearer] = useState<Found | null>(null);
  const [typed, setTyped] = useState({ agentName: '', agentContact: '', receivedOn: formatDay(session.today), receivedTime: '' });
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (wearer && (await send('recordCopyRequest', { wearerId: wearer.id, ...typed }))) onClose();
  };
  const field = (key: keyof typeof typed, label: string) => {
    const fault = problemAt(problem, key);
    return (
      <Field
        label={label}
        value={typed[key]}
        onValue={(value) => setTyped({ ...typed, [key]: value })}
        problem={fault ? words(fault.code, fault.data) : null}
        autoComplete="off"
      />
    );
  };
  return (
    <Panel open wide onClose={onClose} title={t('ask')}>
      <form onSubmit={(event) => void keep(event)} className="flex flex-col gap-2">
        {wearer ? <p className="value">{wearer.name}</p> : <FindWearer onFound={setWearer} />}
        <div className="grid grid-cols-2 gap-x-4">
          {field('agentName', t('agent'))}
          {field('agentContact', t('agentContact'))}
          {field('receivedOn', labels('receivedOn'))}
          {field('receivedTime', labels('receivedTime'))}
        </div>
        <div className="flex gap-3 justify-end">
          <Button onClick={onClose}>{t('close')}</Button>
          <Button look="act" type="submit" disabled={busy || !wearer}>
            {t('keep')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}
