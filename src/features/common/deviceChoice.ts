import { useSyncExternalStore } from 'react';

/** Choices of this device, not of a person: kept in the browser that stands in the room. */
export type DeviceChoice = 'instrument' | 'sound' | 'keys' | 'fitForm' | 'pedal';
const PREFIX = 'keenfit-device:';
const listeners = new Set<() => void>();

const read = (name: DeviceChoice): string | null => {
  try {
    return localStorage.getItem(PREFIX + name);
  } catch {
    // A forbidden store: the choice then holds for this page only.
    return null;
  }
};

export function setDeviceChoice(name: DeviceChoice, value: string): void {
  try {
    localStorage.setItem(PREFIX + name, value);
  } catch {
    // See above.
  }
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
};

/** What this device has chosen, and the way to choose; null while nothing is chosen. */
export function useDeviceChoice(name: DeviceChoice): readonly [string | null, (value: string) => void] {
  const value = useSyncExternalStore(
    subscribe,
    () => read(name),
    () => null,
  );
  return [value, (next) => setDeviceChoice(name, next)];
}
