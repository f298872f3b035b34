import { Room } from '@/features/common/Room';
import { WearerPage } from '@/features/wearers/WearerPage';
import { readWearer } from '@/services/wearers';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'Wearer' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = await readPage(readWearer, { wearerId: id }, `/wearers/${id}`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { house, ...file } = page.value;
  return (
    <Room house={house}>
      <WearerPage file={file} />
    </Room>
  );
}
