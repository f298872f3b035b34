import { f, FINE, flipped, INK, line, PAPER, smooth, STOP, text, xy, type Kit, type Point } from './ink';

/** An arrow along points, its head at the last. @param head length of the head */
export function arrow(k: Kit, points: readonly Point[], head = 12): string {
  const tip = points.at(-1) ?? [0, 0];
  const before = points.at(-2) ?? tip;
  const from: Point = points.length > 2 ? [(before[0] + tip[0]) / 2, (before[1] + tip[1]) / 2] : before;
  const angle = Math.atan2(tip[1] - from[1], tip[0] - from[0]);
  const back = (turn: number, length: number): Point => [tip[0] - Math.cos(angle + turn) * length, tip[1] - Math.sin(angle + turn) * length];
  const shaft = smooth([...points.slice(0, -1), back(0, head * 0.8)], false);
  const headPath = `M${xy(tip)}L${xy(back(-0.5, head))}L${xy(back(0.5, head))}Z`;
  return (
    line(k, shaft, { colour: PAPER, width: k.ink * 2.6 }) +
    line(k, headPath, { fill: PAPER, colour: PAPER, width: k.ink * 1.8 }) +
    line(k, shaft, { width: k.ink * 1.05 }) +
    `<path d="${headPath}" fill="${INK}"/>`
  );
}

/** Not this. */
export function octagon([x, y]: Point, r: number): string {
  const corners = Array.from({ length: 8 }, (_, i) => {
    const a = Math.PI / 8 + (i * Math.PI) / 4;
    return xy([x + Math.cos(a) * r, y + Math.sin(a) * r]);
  });
  return `<path d="M${corners.join('L')}Z" fill="${STOP}" stroke="${PAPER}" stroke-width="${f(r * 0.16)}"/><path d="M${f(x - r * 0.52)} ${f(y)}h${f(r * 1.04)}" stroke="${PAPER}" stroke-width="${f(r * 0.3)}"/>`;
}

/** This is right. */
export const tick = ([x, y]: Point, r: number): string =>
  `<path d="M${xy([x - r * 0.8, y + r * 0.05])}L${xy([x - r * 0.2, y + r * 0.62])}L${xy([x + r * 0.9, y - r * 0.75])}" fill="none" stroke="${FINE}" stroke-width="${f(r * 0.36)}" stroke-linecap="square"/>`;

/** First this, then that. */
export const numeral = ([x, y]: Point, n: number, size = 20): string =>
  `<rect x="${f(x - size * 0.62)}" y="${f(y - size * 0.62)}" width="${f(size * 1.24)}" height="${f(size * 1.24)}" fill="${INK}"/>` +
  text(x, y + size * 0.34, String(n), size).replace(`fill="${INK}"`, `fill="${PAPER}"`);

/** A word with a line to what it names. */
export const callout = (at: Point, words: Point, say: string, size = 19): string =>
  `<path d="M${xy(at)}L${xy(words)}" stroke="${INK}" stroke-width="1.3"/><rect x="${f(at[0] - 3)}" y="${f(at[1] - 3)}" width="6" height="6" fill="${INK}"/>` +
  text(words[0] + 5, words[1] + size * 0.35, say, size, 'start');

/** The sign of one hand or eye on both sides of the middle: first the one of the right. */
export const eitherSide = (right: boolean, x: number, drawn: string): string => (right ? drawn : flipped(x, drawn));
