'use client';
import { IntlProvider } from 'use-intl';
import type { ReactNode } from 'react';
import messages from './messages/en.json';

/** Gives every part below it the words of the locale. */
export function MessagesProvider({ timeZone, children }: { readonly timeZone: string; readonly children: ReactNode }) {
  return (
    <IntlProvider locale="en" messages={messages} timeZone={timeZone}>
      {children}
    </IntlProvider>
  );
}
