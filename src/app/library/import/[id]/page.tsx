import { AppShell } from '@/features/common/AppShell';
import { ImportFile } from '@/features/library/ImportFile';
import { readImport } from '@/services/catalogueImport/queries';
import { readPage } from '../../../access';
import { Refused } from '../../../Refused';

export const metadata = { title: 'Catalogue file' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readImport, { importId: id }, `/library/import/${id}`);
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <ImportFile initial={page.value} />
    </AppShell>
  );
}
