'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { OutboxMessage } from '@/core';
import { formatMoment } from '@/i18n/format';
import deskProblems from '@/i18n/messages/en/deskProblems.messages.json';
import outboxProblems from '@/i18n/messages/en/outboxProblems.messages.json';
import outboxWords from '@/i18n/messages/en/outbox.messages.json';
import { messageWords } from '../common/wearerMessage';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { WearerLink } from '../common/WearerLink';
import { useRefusalWords } from '../common/words';

export interface OutboxProps {
  readonly waiting: readonly OutboxMessage[];
  readonly done: readonly OutboxMessage[];
}

/** What is written to wearers and waits for somebody to send it, as it will be read. */
function OutboxPage({ waiting, done }: OutboxProps) {
  const t = useTranslations('outbox');
  const { session } = useServer();
  return (
    <AppPage place="orders" title={t('title')}>
      <section className="px-6 py-3 max-w-[900px]">
        <SupplyTabs here="outbox" />
        <p className="label py-2">{t('line')}</p>
        {waiting.length === 0 ? <p className="py-2">{t('none')}</p> : null}
        {waiting.map((message) => (
          <Message key={message.id} message={message} />
        ))}
        {done.length > 0 ? <h2 className="pt-5 pb-1 border-b border-rule-2">{t('done')}</h2> : null}
        {done.map((message) => (
          <p key={message.id} className="py-1 border-b border-rule flex justify-between gap-4">
            <span>
              {t('doneLine', {
                name: message.wearerName,
                kind: t(`kind.${message.data.kind}`),
                outcome: message.outcome === null ? '' : t(`outcome.${message.outcome}`),
              })}
            </span>
            <span className="label">{`${formatMoment(message.doneAt ?? message.writtenAt, session.practice.timeZone)} · ${message.doneByName ?? ''}`}</span>
          </p>
        ))}
      </section>
    </AppPage>
  );
}

function Message({ message }: { readonly message: OutboxMessage }) {
  const t = useTranslations('outbox');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { session } = useServer();
  const { practice } = session;
  const [copied, setCopied] = useState(false);
  const { send, problem, busy } = useSending<'markMessage'>(() => router.refresh());
  const words = messageWords(message, { ...practice, emergencyTelephone: practice.emergencyTelephone ?? practice.telephone });
  const waits = message.dueAt > session.now;
  const kind = t(`kind.${message.data.kind}`);
  const mark = (sent: boolean): void => void send('markMessage', { messageId: message.id, sent });
  return (
    <article className="border-b border-rule py-3" data-testid="message">
      <div className="flex justify-between gap-4">
        <p>
          <WearerLink id={message.wearerId} name={message.wearerName} />{' '}
          <span className="label">{`${kind} · ${t(`way.${message.way}`)} ${message.recipient}`}</span>
        </p>
        {waits ? <Stated state="miss">{t('notBefore', { at: formatMoment(message.dueAt, practice.timeZone) })}</Stated> : null}
      </div>
      <p className="whitespace-pre-line max-w-[640px] py-2 pl-4 border-l-2 border-rule-2" lang={words.language}>
        {words.text}
      </p>
      {problem ? <Stated state="stop">{refusal(problem)}</Stated> : null}
      <div className="flex gap-2 flex-wrap">
        {message.way === 'mail' ? (
          <a className="btn" href={`/api/messages/${message.id}/eml`} download>
            {t('letter')}
          </a>
        ) : (
          <Button
            onClick={() => {
              // On a page that came without https there is no clipboard: the text is to be marked and copied by hand.
              void navigator.clipboard.writeText(words.text).then(() => setCopied(true));
            }}
          >
            {copied ? t('copied') : t('copy')}
          </Button>
        )}
        {message.data.kind === 'appointment' ? (
          <a className="btn" href={`/api/messages/${message.id}/ics`} download>
            {t('calendar')}
          </a>
        ) : null}
        <Button look="act" disabled={busy || waits} onClick={() => mark(true)} aria-label={t('sentOf', { kind, name: message.wearerName })}>
          {t('sent')}
        </Button>
        <Button look="quiet" disabled={busy} onClick={() => mark(false)}>
          {t('notSent')}
        </Button>
      </div>
    </article>
  );
}

export const Outbox = withWords({ outbox: outboxWords, problems: { ...deskProblems, ...outboxProblems } }, OutboxPage);
