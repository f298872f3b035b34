import { Room } from '@/features/common/Room';
import { Today } from '@/features/today/Today';
import { readToday } from '@/services/visits';
import { readPage } from './access';
import { Refused } from './Refused';

export const metadata = { title: 'Today' };

export default async function Page() {
  const page = await readPage(readToday, {}, '/');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <Today rows={page.value.rows} />
    </Room>
  );
}
