'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { MergeRow } from '@/db/wearerMerge';
import { formatMoment, formatRecord } from '@/i18n/format';
import mergeWords from '@/i18n/messages/en/merge.messages.json';
import mergeProblems from '@/i18n/messages/en/mergeProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { AppPage } from '../common/AppPage';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { MergePair } from './MergePair';

/** Two records of one person are made one; what was merged before, and how to take it apart. */
function MergesPage({ merges }: { readonly merges: readonly MergeRow[] }) {
  const t = useTranslations('merge');
  return (
    <AppPage place="wearers" title={t('title')}>
      <div className="px-6 py-3 max-w-[820px]">
        <p>
          <Link href="/wearers" prefetch={false} className="underline">
            {t('back')}
          </Link>
        </p>
        <p className="label py-2">{t('line')}</p>
        <MergePair />
        <section className="pt-6">
          <h2 className="settings-group">{t('before')}</h2>
          {merges.length === 0 ? <p className="py-2">{t('none')}</p> : null}
          <ul data-testid="merges">
            {merges.map((merge) => (
              <Merged key={merge.id} merge={merge} />
            ))}
          </ul>
        </section>
      </div>
    </AppPage>
  );
}

function Merged({ merge }: { readonly merge: MergeRow }) {
  const t = useTranslations('merge');
  const router = useRouter();
  const { session } = useServer();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const { send, problem, busy } = useSending<'undoMerge'>(() => router.refresh());
  const zone = session.practice.timeZone;
  const at = problemAt(problem, 'reason');
  return (
    <li className="border-b border-rule py-2">
      <div className="flex gap-4 items-center">
        <span className={merge.undoneAt === null ? 'value flex-1' : 'value flex-1 line-through'}>
          {t('one', { other: formatRecord(merge.fromNumber), otherName: merge.fromName, keep: formatRecord(merge.intoNumber), keepName: merge.intoName })}
        </span>
        {merge.undoneAt === null && !asking ? (
          <Button look="quiet" onClick={() => setAsking(true)}>
            {t('undo')}
          </Button>
        ) : null}
      </div>
      <p className="label">{t('by', { name: merge.mergedByName, time: formatMoment(merge.mergedAt, zone), reason: merge.reason })}</p>
      {merge.birthDatesReason !== null ? <p className="label">{t('birthDates', { reason: merge.birthDatesReason })}</p> : null}
      {merge.undoneAt !== null ? (
        <p className="label">{t('undoneBy', { name: merge.undoneByName ?? '', time: formatMoment(merge.undoneAt, zone), reason: merge.undoneReason ?? '' })}</p>
      ) : null}
      {asking && merge.undoneAt === null ? (
        <form
          className="flex gap-3 items-end pt-2"
          onSubmit={(event) => {
            event.preventDefault();
            void send('undoMerge', { mergeId: merge.id, reason });
          }}
        >
          <Field
            className="flex-1"
            label={t('undoReason')}
            value={reason}
            onValue={setReason}
            problem={at ? words(at.code, at.data) : null}
            autoFocus
            autoComplete="off"
          />
          <Button className="mb-[20px]" onClick={() => setAsking(false)}>
            {t('cancel')}
          </Button>
          <Button type="submit" className="mb-[20px]" disabled={busy}>
            {t('undoDo')}
          </Button>
        </form>
      ) : null}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </li>
  );
}

export const Merges = withWords({ merge: mergeWords, problems: mergeProblems }, MergesPage);
