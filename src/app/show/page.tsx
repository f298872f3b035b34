import { WearerScreen } from '@/features/show/WearerScreen';
import { EnterCode } from '@/features/show/EnterCode';
import { MessagesProvider } from '@/i18n/MessagesProvider';
import { readLessonScreen } from '@/services/lesson/screen';
import { perform } from '@/services/perform';
import { currentLink, deps } from '../access';

export const metadata = { title: 'Your lesson' };

/** The wearer's own screen: a code opens it, a lesson is all that it shows. */
export default async function Page({ searchParams }: { searchParams: Promise<{ code?: string | string[] }> }) {
  const { code } = await searchParams;
  const link = await currentLink();
  const read = link.ok && link.value.purpose === 'lesson' ? await perform(readLessonScreen, deps(), link.value, { lessonId: link.value.subjectId }) : null;
  return (
    <MessagesProvider timeZone="UTC">
      {read?.ok && code === undefined ? <WearerScreen first={read.value} /> : <EnterCode code={typeof code === 'string' ? code.slice(0, 40) : ''} />}
    </MessagesProvider>
  );
}
