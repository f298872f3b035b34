import { Room } from '@/features/common/Room';
import { Settings } from '@/features/settings/Settings';
import { readSettings } from '@/services/settings';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Settings' };

export default async function Page() {
  const page = await readPage(readSettings, {}, '/settings');
  if (!page.ok) return <Refused problem={page.error} />;
  return (
    <Room house={page.value.house}>
      <Settings changes={page.value.changes} careProducts={page.value.careProducts} />
    </Room>
  );
}
