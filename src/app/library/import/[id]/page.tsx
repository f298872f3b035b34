import { Room } from '@/features/common/Room';
import { ImportFile } from '@/features/library/ImportFile';
import { readImport } from '@/services/catalogueImport';
import { readPage } from '../../../access';
import { Refused } from '../../../Refused';

export const metadata = { title: 'Catalogue file' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readImport, { importId: id }, `/library/import/${id}`);
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <ImportFile initial={page.value} />
    </Room>
  );
}
