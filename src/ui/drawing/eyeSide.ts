import { f, INK, IRISES, line, WHITE, type Kit, type Point } from './ink';

/** Forehead to cheek: the nose begins where the face ends. */
const FACE = 'M200 -140L-6 -140C-14 -120,-26 -100,-26 -84C-26 -66,-4 -62,6 -54C0 -44,-10 -40,-10 -36L24 -2L2 40C4 50,10 58,6 70C0 86,-10 100,-8 140L200 140Z';
const OPENING = 'M-60 -36L-10 -36C10 -32,50 -14,66 -2C46 16,22 34,2 40L-60 40Z';
const LIDS =
  'M-6 -140C-14 -120,-26 -100,-26 -84C-26 -66,-4 -62,6 -54C2 -46,-8 -42,-10 -36C10 -32,50 -14,66 -2M66 -2C46 16,22 34,2 40C4 50,10 58,6 70C0 86,-10 100,-8 140';

/** The ground under skin: warm, so that a dark wash does not turn grey. */
export const groundOf = (k: Kit): string => (k.tone > 3 ? '#FFE6C6' : '#FFF4E6');

/** An eye in profile that looks to the left of the picture. @param at front of the cornea */
export function eyeSide(k: Kit, [x, y]: Point, scale = 1): string {
  const name = k.name();
  const rows = (count: number, one: (i: number) => string): string => Array.from({ length: count }, (_, i) => one(i)).join('');
  const upperLashes = rows(6, (i) => `M${-9 + i * 7} ${f(-35.5 + i * 2.6)}q-12 -2 ${-20 + i * 2} -14`);
  const lowerLashes = rows(4, (i) => `M${4 + i * 8} ${39 - i * 4}q-8 3 -12 9`);
  const brow = rows(14, (i) => `M${-22 + i * 7} ${f(-92 - Math.sin(i / 4) * 8 + i * 0.6)}l9 -8`);
  const ball =
    `<circle cx="62" cy="0" r="60" fill="${WHITE}" stroke="${INK}" stroke-width="${f(k.ink)}"/>` +
    `<path d="M17 -30C-6 -24,-6 24,17 30Z" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/>` +
    `<path d="M18 -27Q30 0,18 27Q12 0,18 -27Z" fill="${IRISES[k.iris]}" stroke="${INK}" stroke-width="${f(k.thin)}"/>` +
    `<path d="M17.4 -9Q21 0,17.4 9Q14 0,17.4 -9Z" fill="${INK}"/>`;
  return (
    `<g transform="translate(${f(x)} ${f(y)}) scale(${scale})">` +
    `<path d="${FACE}" fill="${groundOf(k)}"/><path d="${FACE}" fill="${k.wash.skin}" fill-opacity=".57"/>` +
    `<defs><clipPath id="${name}"><path d="${OPENING}"/></clipPath></defs><g clip-path="url(#${name})">${ball}</g>` +
    line(k, LIDS) +
    line(k, 'M6 -54C30 -52,56 -40,80 -22', { width: k.thin, opacity: 0.7 }) +
    line(k, upperLashes, { width: k.ink * 0.75 }) +
    line(k, lowerLashes, { width: k.ink * 0.6 }) +
    line(k, brow, { width: k.ink * 0.9, opacity: 0.7 }) +
    '</g>'
  );
}
