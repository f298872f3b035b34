import { Room } from '@/features/common/Room';
import { NewFamily } from '@/features/library/NewFamily';
import { readLibrary } from '@/services/library';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'A new lens family' };

export default async function Page() {
  const page = await readPage(readLibrary, {}, '/library/new');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <NewFamily />
    </Room>
  );
}
