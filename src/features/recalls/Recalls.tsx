'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { LotRecall } from '@/core';
import { formatMoment } from '@/i18n/format';
import deskProblems from '@/i18n/messages/en/deskProblems.messages.json';
import recallsWords from '@/i18n/messages/en/recalls.messages.json';
import visitProblems from '@/i18n/messages/en/visitProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { AppPage } from '../common/AppPage';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface RecallsProps {
  readonly recalls: readonly LotRecall[];
  readonly families: readonly { readonly code: string; readonly name: string }[];
}

/** Lots that makers called back. */
function RecallsPage({ recalls, families }: RecallsProps) {
  const t = useTranslations('recalls');
  const { session } = useServer();
  const [opening, setOpening] = useState(false);
  return (
    <AppPage
      place="orders"
      title={t('title')}
      bar={
        <Button look={recalls.length === 0 ? 'act' : 'plain'} onClick={() => setOpening(true)}>
          {t('open')}
        </Button>
      }
    >
      <section className="px-6 py-3 max-w-[820px]">
        <SupplyTabs here="recalls" />
        <p className="label py-2">{t('line')}</p>
        {recalls.length === 0 ? <p className="py-2">{t('none')}</p> : null}
        {recalls.map((recall) => (
          <div key={recall.id} className="border-b border-rule py-3 flex justify-between gap-4" data-testid="recall">
            <div>
              <Stated state={recall.liftedAt === null ? 'stop' : 'ok'}>
                <span className="value font-mono">{recall.lot}</span> {recall.familyName ?? t('anyFamily')}
              </Stated>
              <p>{recall.reason}</p>
              <p className="label">
                {[
                  t('since', { at: formatMoment(recall.openedAt, session.practice.timeZone), name: recall.openedByName }),
                  recall.liftedAt === null ? null : t('lifted', { at: formatMoment(recall.liftedAt, session.practice.timeZone) }),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
            </div>
            <Link className="btn" href={`/recalls/${recall.id}`} prefetch={false}>
              {t('toList')}
            </Link>
          </div>
        ))}
      </section>
      {opening ? <OpenRecall families={families} onClose={() => setOpening(false)} /> : null}
    </AppPage>
  );
}

function OpenRecall({ families, onClose }: Pick<RecallsProps, 'families'> & { readonly onClose: () => void }) {
  const t = useTranslations('recalls');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command } = useServer();
  const [lot, setLot] = useState('');
  const [familyCode, setFamilyCode] = useState('');
  const [reason, setReason] = useState('');
  const { problem, setProblem } = useSending<never>(() => undefined);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const keep = async (): Promise<void> => {
    const done = await command('openRecall', { lot, familyCode: familyCode === '' ? null : familyCode, reason });
    if (!done) return;
    setProblem(done.ok ? null : done.error);
    if (done.ok) router.push(`/recalls/${done.value.recallId}`);
  };
  return (
    <Panel open onClose={onClose} title={t('open')}>
      <Field label={t('lot')} value={lot} onValue={setLot} problem={at('lot')} autoFocus autoComplete="off" />
      <label className="block pb-3">
        {t('family')}
        <select className="input" value={familyCode} onChange={(event) => setFamilyCode(event.target.value)}>
          <option value="">{t('anyFamily')}</option>
          {families.map((family) => (
            <option key={family.code} value={family.code}>
              {family.name}
            </option>
          ))}
        </select>
      </label>
      <Field label={t('reason')} value={reason} onValue={setReason} problem={at('reason')} />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Button look="act" onClick={() => void keep()}>
        {t('keep')}
      </Button>
    </Panel>
  );
}

export const Recalls = withWords({ recalls: recallsWords, problems: { ...visitProblems, ...deskProblems } }, RecallsPage);
