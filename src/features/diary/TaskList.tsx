'use client';
import { lazy, Suspense, useState } from 'react';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { taskStanding } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import type { TaskRow } from '@/db/task';
import type { Bookable } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';
import { useRefusalWords } from '../common/words';
import type { TaskAct } from './TaskPanel';
import { useDiaryCommand } from './useDiaryCommand';
import tasksWords from '@/i18n/messages/en/tasks.messages.json';
import { withWords } from '@/i18n/withWords';

const TaskPanel = lazy(() => import('./TaskPanel').then((m) => ({ default: m.TaskPanel })));

/** What somebody must do, the one due first at the top: done by one press, with a word if there is one to say. */
function List({
  tasks,
  staff,
  onDone,
  where,
}: {
  readonly tasks: readonly TaskRow[];
  readonly staff: readonly Bookable[];
  readonly onDone: () => void;
  /** On the day's page they are those due by today. */
  readonly where: 'today' | 'tasks';
}) {
  const t = useTranslations('tasks');
  const { session } = useServer();
  const refusal = useRefusalWords();
  const [act, setAct] = useState<TaskAct | null>(null);
  const { send, problem, busy } = useDiaryCommand(onDone);
  return (
    <section className="px-6 py-3" aria-label={t('title')} data-testid="tasks">
      {where === 'today' ? (
        <h2 className="flex gap-4 items-baseline border-b border-rule-2 pb-1">
          {t('title')}
          <Link href="/tasks" prefetch={false} className="note underline">
            {t('all')}
          </Link>
          <span className="ml-auto" />
          <Button look="quiet" onClick={() => setAct({ kind: 'add' })}>
            {t('add')}
          </Button>
        </h2>
      ) : null}
      {problem ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
      {tasks.length === 0 ? <p className="py-3 label">{t(where === 'today' ? 'noneToday' : 'none')}</p> : null}
      <ul>
        {tasks.map((task) => (
          <li key={task.id} className="flex flex-wrap gap-x-4 items-center border-b border-rule py-2" data-testid="task">
            <div className="min-w-0 flex-1">
              <TaskWords task={task} />
            </div>
            <TaskDay task={task} today={session.today} />
            {task.doneAt === null ? (
              <>
                <Button look="quiet" aria-label={t('changeOne', { text: task.text ?? task.wearerName ?? '' })} onClick={() => setAct({ kind: 'change', task })}>
                  {t('change')}
                </Button>
                <Button disabled={busy} onClick={() => void send('finishTask', { taskId: task.id, version: task.version, done: true })}>
                  {t('done')}
                </Button>
              </>
            ) : (
              <Button disabled={busy} onClick={() => void send('finishTask', { taskId: task.id, version: task.version, done: false })}>
                {t('reopen')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Suspense fallback={null}>{act ? <TaskPanel act={act} staff={staff} onDone={onDone} onClose={() => setAct(null)} /> : null}</Suspense>
    </section>
  );
}

function TaskWords({ task }: { readonly task: TaskRow }) {
  const t = useTranslations('tasks');
  const { session } = useServer();
  const time = task.appointmentAt === null ? '' : formatMoment(task.appointmentAt, session.practice.timeZone);
  const what = task.because === null ? task.text : t(`because.${task.because}`, { time });
  return (
    <>
      <span className="value">{t('what', { kind: t(`kinds.${task.kind}`), text: what ?? '' })}</span>
      <div className="label">
        {task.wearerId !== null && task.wearerName !== null ? <WearerLink id={task.wearerId} name={task.wearerName} className="underline" /> : null}{' '}
        {[task.telephone, task.assignedName ?? t('anybody'), task.note].filter(Boolean).join(' · ')}
      </div>
    </>
  );
}

function TaskDay({ task, today }: { readonly task: TaskRow; readonly today: string }) {
  const t = useTranslations('tasks');
  const standing = taskStanding({ dueOn: task.dueOn, done: task.doneAt !== null }, today);
  switch (standing.kind) {
    case 'done':
      return task.withdrawn ? <span className="label">{t('withdrawn')}</span> : <Stated state="ok">{t('doneBy', { name: task.doneByName ?? '' })}</Stated>;
    case 'late':
      return <Stated state="watch">{t('lateBy', { days: standing.byDays })}</Stated>;
    case 'today':
      return <span>{t('dueToday')}</span>;
    case 'later':
      return <span className="label">{t('dueOn', { day: formatDay(task.dueOn) })}</span>;
  }
}

export const TaskList = withWords({ tasks: tasksWords }, List);
