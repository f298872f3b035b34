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

/** Lines of a square of letters, from the largest: letters, and their size, logMAR. */
const SQUARE_LINES = [
  ['HVZ', 0.5],
  ['NDKVH', 0.3],
  ['ZHRDN', 0.1],
] as const;

/** Letters of a chart in a square, drawn once; null where nothing can be drawn. @param arcmin size of a pixel, minutes of arc */
export function drawSquare(side: number, arcmin: number): Ink | null {
  const canvas = document.createElement('canvas');
  canvas.width = side;
  canvas.height = side;
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) return null;
  pen.textAlign = 'center';
  pen.textBaseline = 'alphabetic';
  const heights = SQUARE_LINES.map(([, line]) => (5 * 10 ** line) / arcmin);
  const gap = (side - heights.reduce((sum, h) => sum + h, 0)) / (heights.length + 1);
  let y = gap;
  SQUARE_LINES.forEach(([letters], row) => {
    const h = heights[row] ?? 0;
    pen.font = `700 ${h / CAPITALS}px ${getComputedStyle(document.body).fontFamily}`;
    const step = h * 1.18;
    [...letters].forEach((letter, i) => pen.fillText(letter, side / 2 + (i - (letters.length - 1) / 2) * step, y + h));
    y += h + gap;
  });
  const { data } = pen.getImageData(0, 0, side, side);
  return { width: side, height: side, ink: Float32Array.from({ length: side * side }, (_, i) => (data[4 * i + 3] ?? 0) / 255) };
}
