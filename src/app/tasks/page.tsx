import { AppShell } from '@/features/common/AppShell';
import { Tasks } from '@/features/diary/Tasks';
import { readTasks } from '@/services/task/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Tasks' };

export default async function Page({ searchParams }: { searchParams: Promise<{ which?: string | string[] }> }) {
  const done = (await searchParams).which === 'done';
  const page = await readPage(readTasks, { which: done ? 'done' : 'open' }, done ? '/tasks?which=done' : '/tasks');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, which, tasks, staff } = page.value;
  return (
    <AppShell session={session}>
      <Tasks key={which} which={which} tasks={tasks} staff={staff} />
    </AppShell>
  );
}
