'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { isRecallDone, may, RECALL_OUTCOMES, type RecalledWearer } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import deskProblems from '@/i18n/messages/en/deskProblems.messages.json';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import recallsWords from '@/i18n/messages/en/recalls.messages.json';
import { withWords } from '@/i18n/withWords';
import type { RecallPage } from '@/services/lotRecall/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { AppPage } from '../common/AppPage';
import { useEyeWords } from '../common/eyeWords';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { WearerLink } from '../common/WearerLink';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

export type RecallData = Omit<RecallPage, 'session'>;

/** Everybody who had lenses of a recalled lot, with their telephone numbers, ticked off as they are called. */
function RecallListPage({ data }: { readonly data: RecallData }) {
  const t = useTranslations('recalls');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { session } = useServer();
  const [lifting, setLifting] = useState(false);
  const { recall, wearers, here } = data;
  const { send, problem, busy } = useSending<'recordRecallCall'>(() => router.refresh());
  const done = wearers.filter((w) => isRecallDone(w.outcome)).length;
  return (
    <AppPage
      place="orders"
      title={t('pageTitle', { lot: recall.lot })}
      bar={recall.liftedAt === null && may(session.viewer.roles, 'sign') ? <Button onClick={() => setLifting(true)}>{t('lift')}</Button> : undefined}
    >
      <section className="px-6 py-3">
        <SupplyTabs here="recalls" />
        <p className="py-2">
          <Stated state={recall.liftedAt === null ? 'stop' : 'ok'}>{`${recall.familyName ?? t('anyFamily')}: ${recall.reason}`}</Stated>{' '}
          <Link className="underline" href="/recalls" prefetch={false}>
            {t('back')}
          </Link>
        </p>
        <p>{t('here', { trials: here.trials, boxes: here.boxes.reduce((sum, b) => sum + b.packs, 0) })}</p>
        <p className="py-2">{t('say')}</p>
        <p role="status" className="font-[620]">
          {t('count', { done, all: wearers.length })}
        </p>
        {problem ? (
          <p role="alert">
            <Stated state="stop">{refusal(problem)}</Stated>
          </p>
        ) : null}
        {wearers.length === 0 ? (
          <p className="py-4">{t('nobody')}</p>
        ) : (
          <table className="ledger w-full" data-testid="recalled">
            <thead>
              <tr>
                {(['whose', 'had', 'called'] as const).map((head) => (
                  <th key={head} scope="col">
                    {t(head)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {wearers.map((wearer) => (
                <Wearer
                  key={wearer.wearerId}
                  wearer={wearer}
                  busy={busy}
                  onCalled={(outcome) => void send('recordRecallCall', { recallId: recall.id, wearerId: wearer.wearerId, outcome, note: '' })}
                />
              ))}
            </tbody>
          </table>
        )}
      </section>
      {lifting ? <Lift recallId={recall.id} onClose={() => setLifting(false)} /> : null}
    </AppPage>
  );
}

function Wearer({
  wearer,
  busy,
  onCalled,
}: {
  readonly wearer: RecalledWearer;
  readonly busy: boolean;
  readonly onCalled: (outcome: (typeof RECALL_OUTCOMES)[number]) => void;
}) {
  const t = useTranslations('recalls');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  return (
    <tr data-testid={`recalled-${wearer.recordNumber}`}>
      <td>
        <WearerLink id={wearer.wearerId} name={wearer.name} />
        <div className="value">{wearer.telephone ?? t('noTelephone')}</div>
      </td>
      <td>
        {wearer.had.map((had, i) => (
          <div key={i}>
            {t(had.how, { eye: eyeWords.short(had.eye), lenses: had.lenses, day: formatDay(had.on) })} <span className="label">{had.familyName}</span>
          </div>
        ))}
      </td>
      <td>
        {wearer.outcome === null || wearer.calledAt === null ? null : (
          <div>
            <Stated state={isRecallDone(wearer.outcome) ? 'ok' : 'watch'}>{t(`outcome.${wearer.outcome}`)}</Stated>{' '}
            <span className="label">{`${formatMoment(wearer.calledAt, session.practice.timeZone)} · ${wearer.calledByName ?? ''}`}</span>
          </div>
        )}
        {isRecallDone(wearer.outcome) ? null : (
          <div className="flex gap-2 flex-wrap pt-1">
            {RECALL_OUTCOMES.map((outcome) => (
              <Button
                key={outcome}
                disabled={busy}
                onClick={() => onCalled(outcome)}
                aria-label={t('outcomeOf', { outcome: t(`outcome.${outcome}`), name: wearer.name })}
              >
                {t(`outcome.${outcome}`)}
              </Button>
            ))}
          </div>
        )}
      </td>
    </tr>
  );
}

function Lift({ recallId, onClose }: { readonly recallId: string; readonly onClose: () => void }) {
  const t = useTranslations('recalls');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const [reason, setReason] = useState('');
  const { send, problem, busy } = useSending<'liftRecall'>(() => {
    onClose();
    router.refresh();
  });
  const at = problemAt(problem, 'reason');
  return (
    <Panel open onClose={onClose} title={t('lift')}>
      <Field label={t('liftWhy')} value={reason} onValue={setReason} problem={at ? words(at.code, at.data) : null} autoFocus />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Button look="act" disabled={busy} onClick={() => void send('liftRecall', { recallId, reason })}>
        {t('liftKeep')}
      </Button>
    </Panel>
  );
}

export const RecallList = withWords({ recalls: recallsWords, eyes: eyesWords, problems: deskProblems }, RecallListPage);
