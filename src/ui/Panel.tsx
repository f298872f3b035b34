'use client';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** A panel over the page: the page and what was typed on it stay. */
export function Panel({ open, onClose, title, children, strong = false }: { readonly open: boolean; readonly onClose: (() => void) | null; readonly title: string; readonly children: ReactNode; readonly strong?: boolean }) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => (!next && onClose ? onClose() : undefined)}>
      <Dialog.Portal>
        <Dialog.Overlay className={strong ? 'veil veil-strong' : 'veil'} />
        <Dialog.Content
          className="panel"
          aria-describedby={undefined}
          onEscapeKeyDown={(event) => (onClose ? undefined : event.preventDefault())}
          onInteractOutside={(event) => event.preventDefault()}
        >
          <Dialog.Title className="panel-title">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
