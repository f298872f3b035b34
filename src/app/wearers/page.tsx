import { Room } from '@/features/common/Room';
import { Wearers } from '@/features/wearers/Wearers';
import { searchWearers } from '@/services/wearers';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Wearers' };

export default async function Page() {
  const page = await readPage(searchWearers, { search: '' }, '/wearers');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <Wearers initial={page.value.wearers} />
    </Room>
  );
}
