import { AppShell } from '@/features/common/AppShell';
import { Suppliers } from '@/features/settings/Suppliers';
import { readSuppliers } from '@/services/supplier/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Suppliers' };

export default async function Page() {
  const page = await readPage(readSuppliers, {}, '/settings/suppliers');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <AppShell session={page.value.session}>
      <Suppliers suppliers={page.value.suppliers} />
    </AppShell>
  );
}
