import { AppShell } from '@/features/common/AppShell';
import { Today } from '@/features/diary/Today';
import { readToday } from '@/services/appointment/queries';
import { readPage } from './access';
import { Refused } from './Refused';

export const metadata = { title: 'Today' };

export default async function Page() {
  const page = await readPage(readToday, {}, '/');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, day, tasks } = page.value;
  return (
    <AppShell session={session}>
      <Today day={day} tasks={tasks} />
    </AppShell>
  );
}
