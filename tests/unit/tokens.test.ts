import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { contrast } from '../support/contrast';

const css = readFileSync(new URL('../../src/ui/tokens.css', import.meta.url), 'utf8');
const theme = (selector: string): Record<string, string> => {
  const block = css.slice(css.indexOf(`${selector} {`)).split('}')[0] ?? '';
  return Object.fromEntries([...block.matchAll(/--([a-z0-9-]+): (#[0-9a-f]{6});/g)].map((m) => [m[1] ?? '', m[2] ?? '']));
};
const GROUNDS = ['desk', 'sheet', 'margin', 'spine', 'field', 'lift'];
const INKS = ['ink', 'ink-2', 'ink-3', 'ok', 'watch', 'stop'];

describe.each([
  ['paper', ':root'],
  ['lights down', "[data-lights='down']"],
])('%s', (_name, selector) => {
  const tokens = theme(selector);
  it('is read whole', () => {
    expect(Object.keys(tokens).length).toBeGreaterThan(25);
  });
  it.each(GROUNDS.flatMap((ground) => INKS.map((ink) => [ink, ground] as const)))('%s on %s clears 4.5:1', (ink, ground) => {
    expect(contrast(tokens[ink] ?? '', tokens[ground] ?? '')).toBeGreaterThanOrEqual(4.5);
  });
  it.each(GROUNDS)('control edges on %s clear 3:1', (ground) => {
    expect(contrast(tokens['rule-2'] ?? '', tokens[ground] ?? '')).toBeGreaterThanOrEqual(3);
  });
  it.each([...GROUNDS, 'ok-wash', 'watch-wash', 'stop-wash'])('the focus ring on %s clears 3:1', (ground) => {
    expect(contrast(tokens.focus ?? '', tokens[ground] ?? '')).toBeGreaterThanOrEqual(3);
  });
  it.each(['eye-white', 'sheet'])('the lens, its mark and the lids on %s clear 3:1', (ground) => {
    expect(contrast(tokens.ink ?? '', tokens[ground] ?? '')).toBeGreaterThanOrEqual(3);
    expect(contrast(tokens['ink-2'] ?? '', tokens[ground] ?? '')).toBeGreaterThanOrEqual(3);
  });
  it.each([
    ['act', 'on-act'],
    ['ink', 'on-ink'],
    ['act-press', 'on-act'],
    ['pupil', 'on-pupil'],
    ['watch-fill', 'mark-ink'],
    ...['ok', 'watch', 'stop'].flatMap((state) => [
      [state, `${state}-wash`],
      ['ink', `${state}-wash`],
      ['ink-2', `${state}-wash`],
    ]),
  ])('%s with %s clears 4.5:1', (a, b) => {
    expect(contrast(tokens[a] ?? '', tokens[b] ?? '')).toBeGreaterThanOrEqual(4.5);
  });
});
