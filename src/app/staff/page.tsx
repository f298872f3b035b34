import { AppShell } from '@/features/common/AppShell';
import { Staff } from '@/features/staff/Staff';
import { readStaff } from '@/services/staff/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Staff' };

export default async function Page() {
  const page = await readPage(readStaff, {}, '/staff');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Staff staff={page.value.staff} />
    </AppShell>
  );
}
