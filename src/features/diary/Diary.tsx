'use client';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { addDays, may, parseDay, type VisitKind } from '@/core';
import { formatDay } from '@/i18n/format';
import type { DiaryDay } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { AppPage } from '../common/AppPage';
import { useNow } from '../common/Clock';
import { useKey } from '../common/keys';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';
import type { DayPanel } from './DayPanels';
import { DayTable } from './DayTable';
import type { Found } from '../common/FindWearer';
import { stripHeight, stripOf } from './strip';
import { useAnew } from './useAnew';
import { useBegin } from './useBegin';
import { weekdayNames } from './weekdays';
import diaryWords from '@/i18n/messages/en/diary.messages.json';
import todayWords from '@/i18n/messages/en/today.messages.json';
import { LateWords } from '@/i18n/MessagesProvider';
import { withWords } from '@/i18n/withWords';

// Opened now and then: they bring their own scripts.
const DayStrip = lazy(() => import('./DayStrip').then((m) => ({ default: m.DayStrip })));
const DayPanels = lazy(() => import('./DayPanels').then((m) => ({ default: m.DayPanels })));

/** Any day of the diary: its rooms and its list; from here appointments are booked and moved. */
function DiaryPage({ day: first, wearer, visit }: { readonly day: DiaryDay; readonly wearer: Found | null; readonly visit: VisitKind }) {
  const t = useTranslations('diary');
  const router = useRouter();
  const { poll, session } = useServer();
  const refusal = useRefusalWords();
  const now = useNow(30_000);
  const [day, anew] = useAnew(first, async () => {
    const read = await poll('readDiary', { day: first.day });
    return read?.ok ? read.value.day : null;
  });
  const [panel, setPanel] = useState<DayPanel | null>(wearer ? { kind: 'book', wearer, visit } : null);
  const [typed, setTyped] = useState('');
  const { begin, problem } = useBegin(anew);
  const go = (to: string): void => router.push(`/diary?day=${to}`);
  const read = parseDay(typed);
  const mayBook = may(session.viewer.roles, 'wearers');
  useKey(['comma', ','], () => go(addDays(day.day, -1)), [day.day]);
  useKey(['period', '.'], () => go(addDays(day.day, 1)), [day.day]);
  // The strip and the line below it.
  const held = day.rooms.length === 0 ? 0 : stripHeight(stripOf(day, session.practice.timeZone)) + 32;
  return (
    <AppPage
      place="diary"
      title={t('dayTitle', { weekday: t(`weekdays.${weekdayNames[new Date(`${day.day}T00:00:00Z`).getUTCDay()] ?? 'monday'}`), day: formatDay(day.day) })}
      bar={
        mayBook ? (
          <Button look="act" onClick={() => setPanel({ kind: 'book', wearer, visit })}>
            {t('book')}
          </Button>
        ) : undefined
      }
    >
      <form
        className="px-6 pt-3 flex gap-3 items-end flex-wrap"
        onSubmit={(event) => {
          event.preventDefault();
          if (read.ok) go(read.value);
        }}
      >
        <Button keys={[',']} className="mb-[20px]" onClick={() => go(addDays(day.day, -1))}>
          {t('dayBefore')}
        </Button>
        <Button className="mb-[20px]" disabled={day.day === session.today} onClick={() => go(session.today)}>
          {t('dayToday')}
        </Button>
        <Button keys={['.']} className="mb-[20px]" onClick={() => go(addDays(day.day, 1))}>
          {t('dayAfter')}
        </Button>
        <Field className="w-48" label={t('goTo')} value={typed} onValue={setTyped} autoComplete="off" hint={read.ok ? formatDay(read.value) : t('dayHint')} />
        <Button type="submit" className="mb-[20px]" disabled={!read.ok}>
          {t('go')}
        </Button>
      </form>
      {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Suspense fallback={<div style={{ height: held }} />}>
        <DayStrip day={day} now={now} onPanel={setPanel} onDone={anew} />
      </Suspense>
      {day.rows.length > 0 ? (
        <DayTable rows={day.rows} now={now} next={null} onBegin={(row) => void begin(row)} onOpen={(row) => setPanel({ kind: 'look', row })} />
      ) : (
        <p className="p-6">{t('nobodyBooked')}</p>
      )}
      <Suspense fallback={null}>{panel ? <DayPanels panel={panel} day={day} onPanel={setPanel} onDone={anew} /> : null}</Suspense>
    </AppPage>
  );
}

/** What is said of a refusal. */
const loadProblems = () => import('@/i18n/messages/en/diaryProblems.messages.json').then((m) => ({ problems: m.default }));
function WithProblems(shown: Parameters<typeof DiaryPage>[0]) {
  return (
    <LateWords load={loadProblems}>
      <DiaryPage {...shown} />
    </LateWords>
  );
}

export const Diary = withWords({ diary: diaryWords, today: todayWords }, WithProblems);
