import { Room } from '@/features/common/Room';
import { Library } from '@/features/library/Library';
import { readLibrary } from '@/services/library';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Lens library' };

export default async function Page() {
  const page = await readPage(readLibrary, {}, '/library');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <Library families={page.value.families} houseList={page.value.houseList} imports={page.value.imports} />
    </Room>
  );
}
