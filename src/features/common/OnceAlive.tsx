'use client';
import { Suspense, useSyncExternalStore, type ReactNode } from 'react';

const nothingChanges = (): (() => void) => () => undefined;

/** Has the page come to life: does it take presses and keep what is typed? */
const useAlive = (): boolean =>
  useSyncExternalStore(
    nothingChanges,
    () => true,
    () => false,
  );

/** A part whose script comes later: drawn once it can be pressed, so that nothing typed into it is lost. */
export const OnceAlive = ({ children }: { readonly children: ReactNode }) => (useAlive() ? <Suspense fallback={null}>{children}</Suspense> : null);
