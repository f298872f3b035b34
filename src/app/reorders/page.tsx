import { AppShell } from '@/features/common/AppShell';
import { Due } from '@/features/due/Due';
import { readDue } from '@/services/runway/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Reorders due' };

export default async function Page({ searchParams }: { searchParams: Promise<{ day?: string; after?: string; lapsed?: string }> }) {
  const { day, after, lapsed } = await searchParams;
  const page = await readPage(readDue, { lapsed: lapsed !== undefined, after: day && after ? { dueOn: day, wearerId: after } : null }, '/reorders');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, ...due } = page.value;
  return (
    <AppShell session={session}>
      <Due {...due} />
    </AppShell>
  );
}
