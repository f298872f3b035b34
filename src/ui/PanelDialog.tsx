'use client';
import { Dialog } from 'radix-ui';
import type { PanelProps } from './Panel';

/** The panel itself; its script comes when the page is at rest. */
export function PanelDialog({ open, onClose, title, children, strong = false, opaque = false, wide = false }: PanelProps) {
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
