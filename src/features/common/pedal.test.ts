import { describe, expect, it } from 'vitest';
import { mayBePedal, pedalName } from './pedal';

describe('the pedal’s key', () => {
  it('may be any key that has no work of its own', () => {
    for (const code of ['F13', 'PageDown', 'KeyB', 'Digit5', 'ArrowRight']) expect(mayBePedal(code), code).toBe(true);
    for (const code of ['Enter', 'NumpadEnter', 'Escape', 'Tab', 'ControlLeft', '', 'Unidentified']) expect(mayBePedal(code), code).toBe(false);
  });
  it('is named as it stands on the key', () => {
    expect(['KeyB', 'Digit5', 'PageDown'].map(pedalName)).toEqual(['B', '5', 'PageDown']);
  });
});
