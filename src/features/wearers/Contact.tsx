'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { CONTACT_WAYS, type ContactChoice, type ContactWay, type WearerRow } from '@/core';
import { formatMoment } from '@/i18n/format';
import outboxProblems from '@/i18n/messages/en/outboxProblems.messages.json';
import outboxWords from '@/i18n/messages/en/outbox.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface Of {
  readonly wearer: Pick<WearerRow, 'id' | 'telephone'>;
  readonly contact: ContactChoice | null;
}

/** Whether and how a wearer wants to be written to, as they said last. */
function ContactLine({ wearer, contact }: Of) {
  const t = useTranslations('outbox.contact');
  const ways = useTranslations('outbox.way');
  const { session } = useServer();
  const [changing, setChanging] = useState(false);
  return (
    <section className="py-2" aria-label={t('title')}>
      <h2>{t('title')}</h2>
      <p>
        {contact === null ? t('unknown') : `${ways(contact.way)} ${contact.recipient ?? ''}`}{' '}
        {contact === null ? null : (
          <span className="label">{t('said', { at: formatMoment(contact.chosenAt, session.practice.timeZone), name: contact.recordedByName })}</span>
        )}{' '}
        <Button look="quiet" onClick={() => setChanging(true)}>
          {t('change')}
        </Button>
      </p>
      {changing ? <Change wearer={wearer} contact={contact} onClose={() => setChanging(false)} /> : null}
    </section>
  );
}

function Change({ wearer, contact, onClose }: Of & { readonly onClose: () => void }) {
  const t = useTranslations('outbox.contact');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const [way, setWay] = useState<ContactWay>(contact?.way ?? 'text');
  const [recipient, setRecipient] = useState(contact?.recipient ?? wearer.telephone ?? '');
  const { send, problem, busy } = useSending<'chooseContact'>(() => {
    onClose();
    router.refresh();
  });
  const at = problemAt(problem, 'recipient');
  return (
    <Panel open onClose={onClose} title={t('how')}>
      <div className="flex flex-col gap-3">
        <Segment label={t('how')} values={CONTACT_WAYS} value={way} word={(w) => t(w)} onChoose={setWay} />
        {way === 'none' ? null : (
          <Field
            label={t(way === 'mail' ? 'recipientMail' : 'recipientText')}
            value={recipient}
            onValue={setRecipient}
            problem={at ? words(at.code, at.data) : null}
            autoComplete="off"
          />
        )}
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <Button look="act" disabled={busy} onClick={() => void send('chooseContact', { wearerId: wearer.id, way, recipient })}>
          {t('keep')}
        </Button>
      </div>
    </Panel>
  );
}

export const Contact = withWords({ outbox: outboxWords, problems: outboxProblems }, ContactLine);
