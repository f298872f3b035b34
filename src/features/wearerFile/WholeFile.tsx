'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { may, TIMELINE_FILTERS, type TimelineEntry, type TimelineFilter } from '@/core';
import { formatDay } from '@/i18n/format';
import aftercareWords from '@/i18n/messages/en/aftercare.messages.json';
import answersWords from '@/i18n/messages/en/answers.messages.json';
import fileWords from '@/i18n/messages/en/file.messages.json';
import lensSignsWords from '@/i18n/messages/en/lensSigns.messages.json';
import lessonWords from '@/i18n/messages/en/lesson.messages.json';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import ruleNamesWords from '@/i18n/messages/en/ruleNames.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import todayWords from '@/i18n/messages/en/today.messages.json';
import { withWords } from '@/i18n/withWords';
import type { TimelinePage } from '@/services/personFile/queries';
import { Button } from '@/ui/Button';
import { Frame } from '@/ui/Frame';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { Rail } from '../common/Rail';
import { useServer } from '../common/ServerProvider';
import { WearerStrip } from '../common/WearerStrip';
import { useEntryWords } from './entryWords';
import { LensLines } from './LensLines';
import { Timeline } from './Timeline';

export interface WholeFileProps {
  readonly page: TimelinePage;
  /** Everything at once, without the frame: for paper. */
  readonly paper: boolean;
}

/** A wearer's file: the lenses of all years, and one timeline with filters. */
function FileBody({ page, paper }: WholeFileProps) {
  return paper ? <Paper page={page} /> : <OnScreen page={page} />;
}

function OnScreen({ page: first }: { readonly page: TimelinePage }) {
  const t = useTranslations('file');
  const frame = useTranslations('frame');
  const router = useRouter();
  const { query, session } = useServer();
  const [filter, setFilter] = useState<TimelineFilter>('all');
  const [page, setPage] = useState(first);
  const [entries, setEntries] = useState<readonly TimelineEntry[]>(first.entries);
  const [busy, setBusy] = useState(false);
  const { lensWords, says } = useEntryWords(page.lenses);
  const { wearer } = page;
  const load = async (of: TimelineFilter, last: TimelineEntry | undefined): Promise<void> => {
    setBusy(true);
    const read = await query('readTimeline', { wearerId: wearer.id, filter: of, before: last ? { at: last.at, id: last.id } : null });
    setBusy(false);
    if (!read?.ok) return;
    const { lenses, entries: came } = read.value;
    setPage({ ...read.value, lenses: { ...page.lenses, ...lenses } });
    setEntries(last ? [...entries, ...came] : came);
  };
  const choose = (of: TimelineFilter): void => {
    setFilter(of);
    void load(of, undefined);
  };
  return (
    <Frame
      rail={<Rail place="wearers" />}
      strip={<WearerStrip wearer={wearer} />}
      marginWords={{ open: frame('marginOpen'), close: frame('marginClose'), label: frame('margin') }}
      margin={
        may(session.viewer.roles, 'sign') ? (
          <>
            <a className="btn btn-plain mb-2" href={`/api/wearers/${wearer.id}/file`} download>
              {t('json')}
            </a>
            <p className="note mb-5">{t('jsonWhy')}</p>
          </>
        ) : null
      }
      bar={
        <>
          <span className="mr-auto" />
          <Button onClick={() => router.push(`/wearers/${wearer.id}`)}>{t('back')}</Button>
          <Button onClick={() => router.push(`/wearers/${wearer.id}/file?paper=1`)}>{t('print')}</Button>
        </>
      }
    >
      <Erased page={page} />
      <LensLines page={page} lensWords={lensWords} />
      <div className="px-6 pt-3">
        <Segment label={t('filters')} kind="wrapping" values={TIMELINE_FILTERS} value={filter} word={(f) => t(`filter.${f}`)} onChoose={choose} />
      </div>
      {entries.length === 0 && !busy ? <p className="label px-6 py-3">{t('none')}</p> : null}
      <Timeline entries={entries} says={says} zone={session.practice.timeZone} />
      {page.more ? (
        <p className="p-6">
          <Button disabled={busy} onClick={() => void load(filter, entries.at(-1))}>
            {t('more')}
          </Button>
        </p>
      ) : null}
    </Frame>
  );
}

function Erased({ page }: { readonly page: TimelinePage }) {
  const t = useTranslations('file');
  if (page.erasure === null) return null;
  return (
    <p className="px-6 py-2">
      <Stated state="watch">{t('erased', { day: formatDay(page.erasure.erasedAt.slice(0, 10)), until: formatDay(page.erasure.keptUntil) })}</Stated>
    </p>
  );
}

function Paper({ page }: { readonly page: TimelinePage }) {
  const t = useTranslations('file');
  const frame = useTranslations('frame');
  const router = useRouter();
  const { lensWords, says } = useEntryWords(page.lenses);
  const { wearer, session } = page;
  return (
    <div className="paper-page">
      <div className="paper-bar">
        <Button onClick={() => router.push(`/wearers/${wearer.id}/file`)}>{t('back')}</Button>
        <Button look="act" onClick={() => window.print()}>
          {t('printNow')}
        </Button>
      </div>
      <div className="paper">
        <h1 className="power">{wearer.name}</h1>
        <p>{frame('born', { day: formatDay(wearer.birthDate) })}</p>
        <p className="note">{session.practice.name}</p>
        <Erased page={page} />
        <LensLines page={page} lensWords={lensWords} />
        <Timeline entries={page.entries} says={says} zone={session.practice.timeZone} />
      </div>
    </div>
  );
}

export const WholeFile = withWords(
  {
    aftercare: aftercareWords,
    answers: answersWords,
    file: fileWords,
    lensSigns: lensSignsWords,
    lesson: lessonWords,
    purposes: purposesWords,
    ruleNames: ruleNamesWords,
    signs: signsWords,
    today: todayWords,
  },
  FileBody,
);
