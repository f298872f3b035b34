'use client';
import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react';

export interface PanelProps {
  readonly open: boolean;
  readonly onClose: (() => void) | null;
  readonly title: string;
  readonly children: ReactNode;
  readonly strong?: boolean;
  /** Nothing of the page is seen behind it. */
  readonly opaque?: boolean;
  readonly wide?: boolean;
}

const load = () => import('./PanelDialog').then((m) => ({ default: m.PanelDialog }));
const PanelDialog = lazy(load);

/** A panel over the page: the page and what was typed on it stay. */
export function Panel(props: PanelProps) {
  const [opened, setOpened] = useState(props.open);
  if (props.open && !opened) setOpened(true);
  // Fetched while the server is there: the panel that says it is away must not have to ask it.
  useEffect(() => void load(), []);
  if (!opened) return null;
  return (
    <Suspense fallback={null}>
      <PanelDialog {...props} />
    </Suspense>
  );
}
