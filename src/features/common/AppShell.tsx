'use client';
import { NewsProvider } from './news';
import { ServerProvider } from './ServerProvider';
import { MessagesProvider } from '@/i18n/MessagesProvider';
import type { SessionContext } from '@/services/sessionContext';
import type { ReactNode } from 'react';

/** What every signed-in page stands in: words, the practice, the way to the server. */
export function AppShell({ session, children }: { readonly session: SessionContext; readonly children: ReactNode }) {
  return (
    <MessagesProvider timeZone={session.practice.timeZone}>
      <ServerProvider session={session}>
        <NewsProvider>{children}</NewsProvider>
      </ServerProvider>
    </MessagesProvider>
  );
}
