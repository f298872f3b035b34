import type { Ink } from '@/core';

/** Size of a pixel of the pictures of letters, minutes of arc. */
export const ARCMIN = 0.5;
/** Lines of letters, logMAR: 20/63, 20/40, 20/25. */
export const LINES = [0.5, 0.3, 0.1] as const;
const LETTERS = 'HVZDN';
/** With room at the edges for what the blur throws there. */
const WIDTH = 260;
/** Height of capitals of the page's type, of its size. */
const CAPITALS = 0.7;
const GAP = 14;

/** Letters of a chart, drawn once: a letter is five details high. Null where nothing can be drawn. */
export function drawLetters(): Ink | null {
  const heights = LINES.map((line) => (5 * 10 ** line) / ARCMIN);
  const height = Math.ceil(heights.reduce((sum, h) => sum + h + GAP, GAP));
  const canvas = document.createElement('canvas');
  canvas.width = WIDTH;
  canvas.height = height;
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) return null;
  pen.textAlign = 'center';
  pen.textBaseline = 'alphabetic';
  let y = GAP;
  for (const h of heights) {
    pen.font = `700 ${h / CAPITALS}px ${getComputedStyle(document.body).fontFamily}`;
    const step = h * 1.35;
    [...LETTERS].forEach((letter, i) => pen.fillText(letter, WIDTH / 2 + (i - 2) * step, y + h));
    y += h + GAP;
  }
  const { data } = pen.getImageData(0, 0, WIDTH, height);
  return { width: WIDTH, height, ink: Float32Array.from({ length: WIDTH * height }, (_, i) => (data[4 * i + 3] ?? 0) / 255) };
}
