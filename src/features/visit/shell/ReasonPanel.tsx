'use client';
import { lazy, Suspense, useState } from 'react';

const ReasonForm = lazy(() => import('./ReasonForm').then((m) => ({ default: m.ReasonForm })));

/** A correction that needs nothing but its reason: a quiet button, and a panel that asks why. */
export function ReasonPanel({
  open: openWords,
  ...form
}: {
  readonly open: string;
  readonly title: string;
  readonly text?: string;
  readonly doWords: string;
  /** True when it happened. */
  readonly onReason: (reason: string) => Promise<boolean>;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)}>
        {openWords}
      </button>
      {open ? (
        <Suspense fallback={null}>
          <ReasonForm {...form} onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
