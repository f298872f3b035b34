import { MessagesProvider } from '@/i18n/MessagesProvider';
import { SignIn } from '@/features/signIn/SignIn';
import { ownPath } from '@/lib/ownPath';
import { environment } from '@/server/environment';
import { signInPage } from '@/services/session/queries';
import { deps } from '../access';

export const metadata = { title: 'Sign in' };

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const { to } = await searchParams;
  const { demoPassword } = environment();
  const page = await signInPage(deps());
  return (
    <MessagesProvider timeZone="UTC">
      <SignIn practice={page.practice} town={page.town} people={page.people} demoPassword={page.people.length > 0 ? demoPassword : null} to={ownPath(to)} />
    </MessagesProvider>
  );
}
