import { AppShell } from '@/features/common/AppShell';
import { Requests } from '@/features/requests/Requests';
import { readRequests } from '@/services/request/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Sellers’ requests' };

export default async function Page() {
  const page = await readPage(readRequests, {}, '/requests');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, requests, copies } = page.value;
  return (
    <AppShell session={session}>
      <Requests requests={requests} copies={copies} />
    </AppShell>
  );
}
