import type { DependencyList } from 'react';
import { useHotkeys, type HotkeyCallback, type Options } from 'react-hotkeys-hook';
import { useDeviceChoice } from './deviceChoice';

/** Single-character shortcuts can be switched off on a device (WCAG 2.1.4); Enter, Escape and combinations stay. */
const isSingle = (key: string): boolean => key.length === 1 || ['slash', 'space', 'period', 'equal', 'bracketleft', 'bracketright'].includes(key.toLowerCase());

/** A page shortcut: rests while a field has focus, and while single keys are off. */
export function useKey(keys: string | readonly string[], callback: HotkeyCallback, deps: DependencyList = [], options: Options = {}): void {
  const [off] = useDeviceChoice('keys');
  const list = typeof keys === 'string' ? keys.split(',') : [...keys];
  const held = off === 'off' && list.every(isSingle);
  // A drawn dial owns arrows alone: letters, digits and Space stay the page's while it has focus.
  useHotkeys(list, callback, { enableOnFormTags: ['slider'], ...options, enabled: !held }, [...deps, held]);
}
