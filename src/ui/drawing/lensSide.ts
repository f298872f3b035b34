import { f, INK, type Kit, type Point } from './ink';

/** How a lens is seen from the side: right way out, inside out, at the palm's fold (both ways), folded on itself, fallen in, torn. */
export const LENS_SHAPES = ['bowl', 'flare', 'taco', 'tacoOut', 'fold', 'collapse', 'torn'] as const;
export type LensShape = (typeof LENS_SHAPES)[number];

/** Outlines of a lens of radius 1, its lowest point in the middle. */
const OUTLINES: Readonly<Record<LensShape, readonly (string | number)[]>> = {
  bowl: ['M', -1, -1.02, 'C', -1, -0.36, -0.56, 0, 0, 0, 'C', 0.56, 0, 1, -0.36, 1, -1.02],
  flare: [
    ...['M', -1.34, -0.66, 'C', -1.06, -0.72, -0.94, -0.56, -0.8, -0.32, 'C', -0.64, -0.06, -0.34, 0, 0, 0],
    ...['C', 0.34, 0, 0.64, -0.06, 0.8, -0.32, 'C', 0.94, -0.56, 1.06, -0.72, 1.34, -0.66],
  ],
  taco: ['M', -0.16, -1.3, 'C', -0.85, -1, -0.8, -0.1, 0, 0, 'C', 0.8, -0.1, 0.85, -1, 0.16, -1.3],
  tacoOut: ['M', -0.62, -1.26, 'C', -0.2, -1.2, -0.62, -0.2, 0, 0, 'C', 0.62, -0.2, 0.2, -1.2, 0.62, -1.26],
  fold: ['M', -1, -0.16, 'C', -0.5, -0.72, 0.5, -0.72, 1, -0.16, 'C', 0.5, 0.06, -0.5, 0.06, -1, -0.16, 'Z'],
  collapse: [...['M', -1.05, 0.62, 'C', -1, 0.16, -0.7, -0.02, -0.4, -0.06, 'C', -0.1, -0.14, 0.2, 0.02, 0.5, -0.06], ...['C', 0.8, -0.04, 1, 0.2, 1.02, 0.7]],
  torn: [
    ...['M', -1, -1.02, 'C', -1, -0.36, -0.56, 0, 0, 0, 'C', 0.56, 0, 1, -0.36, 1, -1.02],
    ...['L', 0.62, -0.98, 'L', 0.5, -0.5, 'L', 0.34, -0.74, 'L', 0.2, -0.98, 'Z'],
  ],
};

/**
 * A lens in profile.
 * @param at its lowest point
 * @param look.size its width; `turn` degrees; `rim` shows its opening as well
 */
export function lensSide(k: Kit, at: Point, look: { size?: number; shape?: LensShape; turn?: number; rim?: boolean } = {}): string {
  const { size = 60, shape = 'bowl', turn = 0, rim = false } = look;
  const r = size / 2;
  const width = k.ink * 1.1;
  const outline = OUTLINES[shape].map((part) => (typeof part === 'number' ? f(part * r) : part)).join(' ');
  const opening =
    rim && shape === 'bowl'
      ? `<ellipse cx="0" cy="${f(-1.02 * r)}" rx="${f(r)}" ry="${f(r * 0.24)}" fill="#fff" fill-opacity=".9" stroke="${INK}" stroke-width="${f(width * 0.85)}"/>`
      : '';
  return `<g transform="translate(${f(at[0])} ${f(at[1])}) rotate(${turn})"><path d="${outline}" fill="#fff" fill-opacity=".82" stroke="${INK}" stroke-width="${f(width)}" stroke-linecap="round" stroke-linejoin="round"/>${opening}</g>`;
}
