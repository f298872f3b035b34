'use client';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { may, mayOpenVisit, nextDue, type Due } from '@/core';
import { formatWeekday } from '@/i18n/format';
import type { TaskRow } from '@/db/task';
import type { DiaryDay } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { OnceAlive } from '../common/OnceAlive';
import { AppPage } from '../common/AppPage';
import { useNow } from '../common/Clock';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';
import type { DayPanel } from './DayPanels';
import { DayStrip } from './DayStrip';
import { DayTable } from './DayTable';
import { useAnew } from './useAnew';
import { useBegin } from './useBegin';
import type { Row } from './strip';
import diaryWords from '@/i18n/messages/en/diary.messages.json';
import todayWords from '@/i18n/messages/en/today.messages.json';
import { LateWords } from '@/i18n/MessagesProvider';
import { withWords } from '@/i18n/withWords';

// Opened now and then: they bring their own scripts.
const TaskList = lazy(() => import('./TaskList').then((m) => ({ default: m.TaskList })));
const DueRuler = lazy(() => import('./DueRuler').then((m) => ({ default: m.DueRuler })));
const DayPanels = lazy(() => import('./DayPanels').then((m) => ({ default: m.DayPanels })));

/** A day of so many is shown whole to everybody; a longer one begins with one's own. */
const SHORT_DAY = 12;

interface Shown {
  readonly day: DiaryDay;
  readonly tasks: readonly TaskRow[];
}

/** The day: the rooms, what is due next, who comes, and what else is to be done. */
function TodayPage({ day: firstDay, tasks: firstTasks }: Shown) {
  const t = useTranslations('today');
  const d = useTranslations('diary');
  const router = useRouter();
  const { poll, session } = useServer();
  const refusal = useRefusalWords();
  const now = useNow(30_000);
  const [{ day, tasks }, anew] = useAnew<Shown>({ day: firstDay, tasks: firstTasks }, async () => {
    const read = await poll('readToday', {});
    return read?.ok ? read.value : null;
  });
  const { personId, roles } = session.viewer;
  const own = day.rows.filter((row) => row.staffId === personId);
  const [whose, setWhose] = useState<'own' | 'all'>(() => (own.length > 0 && day.rows.length > SHORT_DAY ? 'own' : 'all'));
  const rows = whose === 'own' ? own : day.rows;
  const [panel, setPanel] = useState<DayPanel | null>(null);
  const { begin, problem, busy } = useBegin(anew);
  const due = nextDue(rows, { personId, fits: (row) => mayOpenVisit(roles, row.kind) }, now);
  const act = ({ act: what, row }: Due<Row>): void => {
    if (what === 'goOn' || what === 'begin') void begin(row);
    else setPanel({ kind: 'look', row });
  };
  const mayBook = may(roles, 'wearers');
  return (
    <AppPage
      place="today"
      title={formatWeekday(new Date(now).toISOString(), session.practice.timeZone)}
      strip={
        <div className="strip-cell drop-narrow">
          <div className="label">{t('signedIn')}</div>
          <div>{session.viewer.name}</div>
        </div>
      }
      marginOpen={d('dueNext')}
      margin={
        <OnceAlive>
          <DueRuler due={due} busy={busy} onAct={act} />
        </OnceAlive>
      }
      bar={
        <>
          <Button onClick={() => router.push('/wearers')}>{t('allWearers')}</Button>
          {mayBook ? (
            <>
              <Button onClick={() => setPanel({ kind: 'redEye' })}>{t('kind.redEye')}</Button>
              <Button onClick={() => setPanel({ kind: 'book', wearer: null })}>{d('book')}</Button>
            </>
          ) : null}
        </>
      }
    >
      {problem ? (
        <div className="px-6 pt-3">
          <ProblemLine>{refusal(problem)}</ProblemLine>
        </div>
      ) : null}
      <DayStrip day={day} now={now} onPanel={setPanel} onDone={anew} />
      {own.length > 0 && own.length < day.rows.length ? (
        <div className="px-6 pt-2">
          <Segment label={d('whose')} values={['own', 'all'] as const} value={whose} word={(w) => d(`whoseOf.${w}`)} onChoose={setWhose} />
        </div>
      ) : null}
      {rows.length === 0 ? (
        <div className="p-8 max-w-[560px]">
          <h2 className="power mb-2">{t('emptyTitle')}</h2>
          <p>{t('emptyText')}</p>
        </div>
      ) : (
        <DayTable rows={rows} now={now} next={null} onBegin={(row) => void begin(row)} onOpen={(row) => setPanel({ kind: 'look', row })} />
      )}
      <OnceAlive>{mayBook ? <TaskList tasks={tasks} staff={day.staff} onDone={anew} where="today" /> : null}</OnceAlive>
      <Suspense fallback={null}>{panel ? <DayPanels panel={panel} day={day} onPanel={setPanel} onDone={anew} /> : null}</Suspense>
    </AppPage>
  );
}

/** What is said of a refusal. */
const loadProblems = () => import('@/i18n/messages/en/diaryProblems.messages.json').then((m) => ({ problems: m.default }));
function WithProblems(shown: Shown) {
  return (
    <LateWords load={loadProblems}>
      <TodayPage {...shown} />
    </LateWords>
  );
}

export const Today = withWords({ today: todayWords, diary: diaryWords }, WithProblems);
