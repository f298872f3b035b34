'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { TasksPage as Page } from '@/services/task/queries';
import { Button } from '@/ui/Button';
import { Segment } from '@/ui/Segment';
import { AppPage } from '../common/AppPage';
import { useServer } from '../common/ServerProvider';
import { TaskList } from './TaskList';
import { TaskPanel } from './TaskPanel';
import { useAnew } from './useAnew';
import diaryProblems from '@/i18n/messages/en/diaryProblems.messages.json';
import tasksWords from '@/i18n/messages/en/tasks.messages.json';
import { withWords } from '@/i18n/withWords';

/** Everything that somebody must do later: all of it, or one's own; or what was done last. */
function TasksPage({ which, tasks: first, staff }: Omit<Page, 'session'>) {
  const t = useTranslations('tasks');
  const { poll, session } = useServer();
  const router = useRouter();
  const [whose, setWhose] = useState<'all' | 'own'>('all');
  const [adding, setAdding] = useState(false);
  const [tasks, anew] = useAnew(first, async () => {
    const found = await poll('readTasks', { which });
    return found?.ok ? found.value.tasks : null;
  });
  const { personId } = session.viewer;
  const shown = which === 'done' || whose === 'all' ? tasks : tasks.filter((task) => task.assignedTo === null || task.assignedTo === personId);
  return (
    <AppPage
      place="tasks"
      title={t('title')}
      bar={
        <Button look="act" onClick={() => setAdding(true)}>
          {t('add')}
        </Button>
      }
    >
      <div className="px-6 pt-4">
        <Segment
          label={t('which')}
          values={['all', 'own', 'done'] as const}
          value={which === 'done' ? 'done' : whose}
          word={(w) => t(`whichOf.${w}`)}
          onChoose={(w) => {
            if (w !== 'done') setWhose(w);
            if ((w === 'done') !== (which === 'done')) router.push(w === 'done' ? '/tasks?which=done' : '/tasks');
          }}
        />
      </div>
      <TaskList tasks={shown} staff={staff} onDone={anew} where="tasks" />
      {adding ? <TaskPanel act={{ kind: 'add' }} staff={staff} onDone={anew} onClose={() => setAdding(false)} /> : null}
    </AppPage>
  );
}

export const Tasks = withWords({ tasks: tasksWords, problems: diaryProblems }, TasksPage);
