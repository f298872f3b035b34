'use client';
import type { ReactNode } from 'react';
import { MessagesProvider } from '@/i18n/MessagesProvider';
import type { House, VisitRecord } from '@/services/visitRecord';
import { DeedsProvider } from './DeedsProvider';
import { VisitProvider } from './visit/VisitProvider';

/** What every signed-in page stands in: words, the practice, the way to the server. */
export function Room({ house, children }: { readonly house: House; readonly children: ReactNode }) {
  return (
    <MessagesProvider timeZone={house.practice.timeZone}>
      <DeedsProvider house={house}>{children}</DeedsProvider>
    </MessagesProvider>
  );
}

/** The same for a visit's pages. */
export function VisitRoom({ record, children }: { readonly record: VisitRecord; readonly children: ReactNode }) {
  return (
    <Room house={record.house}>
      <VisitProvider key={record.visit.id} initial={record}>
        {children}
      </VisitProvider>
    </Room>
  );
}
