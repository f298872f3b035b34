import { isIsoDate, VISIT_KINDS } from '@/core';
import { AppShell } from '@/features/common/AppShell';
import { Diary } from '@/features/diary/Diary';
import { readDiary } from '@/services/appointment/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

export const metadata = { title: 'Diary' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ day?: string | string[]; for?: string | string[]; visit?: string | string[] }>;
}) {
  const asked = await searchParams;
  const day = typeof asked.day === 'string' && isIsoDate(asked.day) ? asked.day : null;
  const wearerId = typeof asked.for === 'string' ? asked.for : null;
  const page = await readPage(readDiary, { day, wearerId }, wearerId === null ? `/diary${day === null ? '' : `?day=${day}`}` : `/diary?for=${wearerId}`);
  if (!page.ok) return <Refused problem={page.error} />;
  const { session, wearer } = page.value;
  return (
    <AppShell session={session}>
      {/* Another day is another page: nothing of the one before is kept. */}
      <Diary key={page.value.day.day} day={page.value.day} wearer={wearer} visit={VISIT_KINDS.find((kind) => kind === asked.visit) ?? 'longFollowUp'} />
    </AppShell>
  );
}
