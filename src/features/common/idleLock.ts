import { useCallback, useEffect, useRef, useSyncExternalStore } from 'react';

/**
 * The idle lock of this browser, shared by its tabs: one that locks locks them all, one that is touched keeps them all open,
 * and a page that comes back by reload or from the browser's memory is as locked as it was left.
 */
const LOCKED = 'keenfit-locked';
const TOUCHED = 'keenfit-touched';
const SIGN_OF_LIFE_MS = 120_000;
/** How often a touch is told to the other tabs, ms. */
const TELL_MS = 5_000;

const read = (key: string): string | null => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};
const write = (key: string, value: string | null): void => {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // Without a store each tab locks by itself; the server's lock holds for all of them.
  }
};

const listeners = new Set<() => void>();
let here = false;
function subscribe(listener: () => void): () => void {
  const told = (event: StorageEvent): void => {
    if (event.key === LOCKED || event.key === null) listener();
  };
  listeners.add(listener);
  window.addEventListener('storage', told);
  window.addEventListener('pageshow', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', told);
    window.removeEventListener('pageshow', listener);
  };
}

/** Somebody has signed in: whatever was locked is open. */
export function openLock(): void {
  here = false;
  write(LOCKED, null);
  for (const listener of listeners) listener();
}

/** Is this browser locked? Setting it tells every tab. */
export function useLock(): readonly [boolean, (locked: boolean) => void] {
  const locked = useSyncExternalStore(
    subscribe,
    () => here || read(LOCKED) === 'yes',
    () => false,
  );
  const set = useCallback((next: boolean): void => {
    if (!next) return openLock();
    here = true;
    write(LOCKED, 'yes');
    for (const listener of listeners) listener();
    return undefined;
  }, []);
  useEffect(() => {
    // What a screen reader or a print would find behind the lock is hidden too.
    document.documentElement.dataset.locked = locked ? 'yes' : 'no';
    if (!locked) here = false;
  }, [locked]);
  return [locked, set];
}

/**
 * Locks after some minutes without a touch in any tab. Somebody who only reads and moves the mouse keeps the session alive;
 * a page that asks by itself does not.
 */
export function useIdle(minutes: number, active: boolean, calls: { readonly onIdle: () => void; readonly onLife: () => void }): void {
  const callback = useRef(calls);
  useEffect(() => {
    callback.current = calls;
  });
  useEffect(() => {
    if (!active) return undefined;
    let last = Date.now();
    let said = last;
    let told = 0;
    const touch = (): void => {
      last = Date.now();
      if (last - told < TELL_MS) return;
      told = last;
      write(TOUCHED, String(last));
    };
    const elsewhere = (): number => Number(read(TOUCHED) ?? 0);
    const events = ['pointerdown', 'pointermove', 'keydown', 'wheel'] as const;
    for (const event of events) window.addEventListener(event, touch, { passive: true });
    const timer = setInterval(() => {
      const now = Date.now();
      const touched = Math.max(last, Math.min(elsewhere(), now));
      if (now - touched >= minutes * 60_000) callback.current.onIdle();
      else if (last > said && now - said >= SIGN_OF_LIFE_MS) {
        said = now;
        callback.current.onLife();
      }
    }, 5000);
    return () => {
      clearInterval(timer);
      for (const event of events) window.removeEventListener(event, touch);
    };
  }, [minutes, active]);
}
