import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as fontkit from 'fontkit';

/** A cut of a font that ships with the application, as pages use it. */
interface Cut {
  readonly family: string;
  readonly weight: string;
  readonly file: string;
}
const inModules = (path: string): string => join(process.cwd(), 'node_modules', path);
const ATKINSON = 'Atkinson Hyperlegible Next Variable';
const CUTS: readonly Cut[] = [
  ...['latin', 'latin-ext'].map((cut) => ({
    family: ATKINSON,
    weight: '200 800',
    file: `@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${cut}-wght-normal.woff2`,
  })),
  ...['400', '700'].map((weight) => ({
    family: 'Noto Sans Arabic',
    weight,
    file: `@fontsource/noto-sans-arabic/files/noto-sans-arabic-arabic-${weight}-normal.woff2`,
  })),
];

let covering: readonly { readonly cut: Cut; readonly letters: ReadonlySet<number> }[] | null = null;
const cuts = () => (covering ??= CUTS.map((cut) => ({ cut, letters: new Set((fontkit.openSync(inModules(cut.file)) as fontkit.Font).characterSet) })));

/** Marks that direct a line and are never drawn. */
const UNDRAWN = /[\u200e\u200f\u2066-\u2069\s]/u;

/**
 * Letters of a text that no font of ours can draw: they would come from whatever the machine has, or not at all.
 * @example lettersMissing('Łucja نظارة −3.25') → ''
 */
export const lettersMissing = (text: string): string =>
  [...new Set([...text])].filter((c) => !UNDRAWN.test(c) && !cuts().some(({ letters }) => letters.has(c.codePointAt(0) ?? 0))).join('');

const ranges = (letters: ReadonlySet<number>): string =>
  [...letters]
    .toSorted((a, b) => a - b)
    .reduce<[number, number][]>((all, code) => {
      const end = all.at(-1);
      if (end?.[1] === code - 1) end[1] = code;
      else all.push([code, code]);
      return all;
    }, [])
    .map(([from, to]) => (from === to ? `U+${from.toString(16)}` : `U+${from.toString(16)}-${to.toString(16)}`))
    .join(',');

/** The fonts that a text needs, as style rules that carry them along. */
export function fontRules(text: string): string {
  const codes = new Set([...text].map((c) => c.codePointAt(0) ?? 0));
  return cuts()
    .filter(({ letters }) => [...codes].some((code) => letters.has(code)))
    .map(({ cut, letters }) => {
      const data = readFileSync(inModules(cut.file)).toString('base64');
      return `@font-face{font-family:'${cut.family}';font-weight:${cut.weight};src:url(data:font/woff2;base64,${data}) format('woff2');unicode-range:${ranges(letters)}}`;
    })
    .join('\n');
}
