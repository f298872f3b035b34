import { AppShell } from '@/features/common/AppShell';
import { LessonsNowPage } from '@/features/lessons/LessonsNowPage';
import { readLessonsNow } from '@/services/lesson/now';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Lessons now' };

export default async function Page() {
  const page = await readPage(readLessonsNow, {}, '/lessons');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <LessonsNowPage first={page.value.lessons} />
    </AppShell>
  );
}
