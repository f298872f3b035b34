import { AppShell } from '@/features/common/AppShell';
import { LessonFigures } from '@/features/figures/LessonFigures';
import { readLessonFigures } from '@/services/figures/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Lessons in figures' };

export default async function Page() {
  const page = await readPage(readLessonFigures, {}, '/figures/lessons');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...data } = page.value;
  return (
    <AppShell session={session}>
      <LessonFigures data={data} />
    </AppShell>
  );
}
