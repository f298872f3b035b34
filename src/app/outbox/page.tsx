import { AppShell } from '@/features/common/AppShell';
import { Outbox } from '@/features/outbox/Outbox';
import { readOutbox } from '@/services/outbox/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Messages to wearers' };

export default async function Page() {
  const page = await readPage(readOutbox, {}, '/outbox');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, waiting, done } = page.value;
  return (
    <AppShell session={session}>
      <Outbox waiting={waiting} done={done} />
    </AppShell>
  );
}
