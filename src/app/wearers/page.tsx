import { AppShell } from '@/features/common/AppShell';
import { Wearers } from '@/features/wearers/Wearers';
import { searchWearers } from '@/services/wearer/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Wearers' };

export default async function Page() {
  const page = await readPage(searchWearers, { search: '' }, '/wearers');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Wearers initial={page.value} />
    </AppShell>
  );
}
