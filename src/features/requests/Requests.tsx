'use client';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import diaryWords from '@/i18n/messages/en/diary.messages.json';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import requestsProblems from '@/i18n/messages/en/requestsProblems.messages.json';
import requestsWords from '@/i18n/messages/en/requests.messages.json';
import { withWords } from '@/i18n/withWords';
import type { CopyRequestRow } from '@/db/copyRequest';
import type { RequestShown } from '@/services/request/queries';
import { Button } from '@/ui/Button';
import { AppPage } from '../common/AppPage';
import { useServer } from '../common/ServerProvider';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { RequestCard } from './RequestCard';

const Copies = lazy(() => import('./Copies').then((m) => ({ default: m.Copies })));
const RequestForm = lazy(() => import('./RequestForm').then((m) => ({ default: m.RequestForm })));

/** What sellers ask to be confirmed, the one due first at the top, each beside what is in force. */
function RequestsPage({ requests, copies }: { readonly requests: readonly RequestShown[]; readonly copies: readonly CopyRequestRow[] }) {
  const t = useTranslations('requests');
  const router = useRouter();
  const { session } = useServer();
  const [typing, setTyping] = useState(false);
  const waiting = requests.filter((r) => r.answer === null);
  const answered = requests.filter((r) => r.answer !== null);
  const anew = (): void => router.refresh();
  return (
    <AppPage
      place="orders"
      title={t('title')}
      bar={
        <Button look={waiting.length === 0 ? 'act' : 'plain'} onClick={() => setTyping(true)}>
          {t('typeIn')}
        </Button>
      }
    >
      <section className="px-6 py-3">
        <SupplyTabs here="requests" />
        <p className="label mb-1 pt-2">{t('line')}</p>
        <p className="note mb-3">{t(`profile.${session.settings.ruleProfile}`)}</p>
        <h2 className="mb-2">{t('waiting')}</h2>
        {waiting.length === 0 ? <p className="py-2">{t('none')}</p> : null}
        {waiting.map((request) => (
          <RequestCard key={request.id} request={request} onDone={anew} />
        ))}
        {answered.length > 0 ? <h2 className="mt-6 mb-2">{t('answered')}</h2> : null}
        {answered.map((request) => (
          <RequestCard key={request.id} request={request} onDone={anew} />
        ))}
      </section>
      <Suspense fallback={null}>
        <Copies copies={copies} onDone={anew} />
      </Suspense>
      <Suspense fallback={null}>{typing ? <RequestForm onDone={anew} onClose={() => setTyping(false)} /> : null}</Suspense>
    </AppPage>
  );
}

export const Requests = withWords({ diary: diaryWords, eyes: eyesWords, requests: requestsWords, problems: requestsProblems }, RequestsPage);
