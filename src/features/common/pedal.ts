import { useEffect, useLayoutEffect, useRef } from 'react';
import { useDeviceChoice } from './deviceChoice';

/** Keys that have work of their own on every page, so that no pedal may stand for them. */
const TAKEN = [
  'Enter',
  'NumpadEnter',
  'Escape',
  'Tab',
  'ShiftLeft',
  'ShiftRight',
  'ControlLeft',
  'ControlRight',
  'AltLeft',
  'AltRight',
  'MetaLeft',
  'MetaRight',
];

/** May a pedal stand for this key? @param code a KeyboardEvent's code */
export const mayBePedal = (code: string): boolean => code !== '' && code !== 'Unidentified' && !TAKEN.includes(code);

/** `KeyB` → `B`, `Digit3` → `3`, `PageDown` as it is. */
export const pedalName = (code: string): string => code.replace(/^(Key|Digit)/, '');

/** The key that the pedal beside this device sends; null while none was taught. */
export const usePedal = () => useDeviceChoice('pedal');

/**
 * Does something when the pedal that was taught on this device is pressed. It comes before whatever else its key would do,
 * also while single-key shortcuts are off; a key that writes rests while something is being written.
 */
export function useOnPedal(press: () => void): void {
  const [code] = usePedal();
  const latest = useRef(press);
  useLayoutEffect(() => {
    latest.current = press;
  });
  useEffect(() => {
    if (!code) return;
    const listen = (event: KeyboardEvent): void => {
      const { target } = event;
      const writes = event.key.length === 1 && target instanceof HTMLElement && target.closest('input, textarea, select') !== null;
      if (event.code !== code || writes || event.ctrlKey || event.altKey || event.metaKey || document.querySelector('[role="dialog"]')) return;
      event.preventDefault();
      event.stopPropagation();
      if (!event.repeat) latest.current();
    };
    // On the document: a drag, which listens on the window, has told its value before.
    document.addEventListener('keydown', listen, true);
    return () => document.removeEventListener('keydown', listen, true);
  }, [code]);
}
