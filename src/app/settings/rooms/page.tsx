import { AppShell } from '@/features/common/AppShell';
import { Rooms } from '@/features/settings/Rooms';
import { readRooms } from '@/services/room/queries';
import { readPage } from '../../access';
import { Refused } from '../../Refused';

export const metadata = { title: 'The practice' };

export default async function Page() {
  const page = await readPage(readRooms, {}, '/settings/rooms');
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, practiceVersion, rooms, hours } = page.value;
  return (
    <AppShell session={session}>
      <Rooms practiceVersion={practiceVersion} rooms={rooms} hours={hours} />
    </AppShell>
  );
}
