'use client';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** A panel over the page: the page and what was typed on it stay. */
export function Panel({
  open,
  onClose,
  title,
  children,
  strong = false,
  opaque = false,
  wide = false,
}: {
  readonly open: boolean;
  readonly onClose: (() => void) | null;
  readonly title: string;
  readonly children: ReactNode;
  readonly strong?: boolean;
  /** Nothing of the page is seen behind it. */
  readonly opaque?: boolean;
  readonly wide?: boolean;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => (!next && onClose ? onClose() : undefined)}>
      <Dialog.Portal>
        <Dialog.Overlay className={opaque ? 'veil veil-opaque' : strong ? 'veil veil-strong' : 'veil'} />
        <Dialog.Content
          className={wide ? 'panel panel-wide' : 'panel'}
          aria-describedby={undefined}
          onEscapeKeyDown={(event) => (onClose ? undefined : event.preventDefault())}
          onInteractOutside={(event) => event.preventDefault()}
          // React hands a panel's events to the page it was opened from: its form must not send the page's.
          onSubmit={(event) => event.stopPropagation()}
        >
          <Dialog.Title className="panel-title">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
