'use client';
import { useEffect, useSyncExternalStore } from 'react';
import type { Library } from '@/services/family/queries';

/** The practice's lens library as this page holds it: the same for every visit, asked for again only when it has changed. */
interface Held {
  readonly tag: string;
  readonly library: Library;
}
let held: Held | null = null;
let asking: string | null = null;
const listeners = new Set<() => void>();
const RETRY_MS = 3000;

async function ask(tag: string): Promise<void> {
  if (held?.tag === tag || asking === tag) return;
  asking = tag;
  try {
    // The browser keeps it and asks by its name: unchanged, nothing is sent again.
    const response = await fetch('/api/library');
    if (!response.ok) throw new Error(`status ${response.status}`);
    held = (await response.json()) as Held;
    for (const listener of listeners) listener();
  } catch {
    setTimeout(() => void ask(tag), RETRY_MS);
  } finally {
    asking = null;
  }
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/**
 * The library, or null while it is on its way; one that is a little older than `tag` serves until the newer one is there.
 * @param tag names its state; null asks for nothing
 */
export function useLibrary(tag: string | null): Library | null {
  useEffect(() => {
    if (tag !== null) void ask(tag);
  }, [tag]);
  return useSyncExternalStore(
    subscribe,
    () => held?.library ?? null,
    () => null,
  );
}
