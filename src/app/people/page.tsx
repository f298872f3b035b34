import { Room } from '@/features/common/Room';
import { People } from '@/features/people/People';
import { readStaff } from '@/services/staff';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'People' };

export default async function Page() {
  const page = await readPage(readStaff, {}, '/people');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <People staff={page.value.staff} />
    </Room>
  );
}
