import { join } from 'node:path';
import * as fontkit from 'fontkit';

/** Cuts that ship with the application: Latin, then what Polish, Czech, Turkish and others add. Static ones, so that text stays text. */
const CUTS = ['latin', 'latin-ext'] as const;
export const WEIGHTS = [400, 700] as const;
export const FAMILIES = CUTS.map((cut) => `atkinson-${cut}`);
const fileOf = (cut: string, weight: number): string =>
  join(process.cwd(), 'node_modules/@fontsource/atkinson-hyperlegible-next/files', `atkinson-hyperlegible-next-${cut}-${weight}-normal.woff`);

/** Fonts as a document registers them. */
export const fontFiles = (): readonly { readonly family: string; readonly weight: number; readonly src: string }[] =>
  CUTS.flatMap((cut, i) => WEIGHTS.map((weight) => ({ family: FAMILIES[i] ?? cut, weight, src: fileOf(cut, weight) })));

let covering: readonly fontkit.Font[] | null = null;
const fonts = (): readonly fontkit.Font[] => {
  covering ??= CUTS.map((cut) => fontkit.openSync(fileOf(cut, 400)) as fontkit.Font);
  return covering;
};

/**
 * Characters of a text that no font here can write: a document with one of them is not made, for it would be written wrong unseen.
 * @example uncovered('Łucja −3.25') → ''
 */
export const uncovered = (text: string): string =>
  [...new Set([...text])].filter((c) => c.trim() !== '' && !fonts().some((font) => font.hasGlyphForCodePoint(c.codePointAt(0) ?? 0))).join('');
