import { AppShell } from '@/features/common/AppShell';
import { Library } from '@/features/library/Library';
import { readLibrary } from '@/services/family/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Lens library' };

export default async function Page() {
  const page = await readPage(readLibrary, {}, '/library');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Library families={page.value.families} houseList={page.value.houseList} imports={page.value.imports} />
    </AppShell>
  );
}
