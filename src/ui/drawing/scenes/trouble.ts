import { drawFinger } from '../finger';
import { f, INK, line, SAND } from '../ink';
import { lensSide } from '../lensSide';
import { arrow, octagon } from '../signs';
import { bottle, clockFace, drop, glasses, lensCase, telephone } from '../things';
import { openPalm, skinGround, theEye, withEye, withHand, type Scene } from './poses';

/** Folded on itself: soaked, then rolled; never peeled. */
export const foldedLens: Scene = (k) =>
  withHand(
    k,
    openPalm(k, [70, 128], 82, 1.35) +
      lensSide(k, [76, 150], { size: 54, shape: 'fold' }) +
      drop(k, [76, 116], 7) +
      bottle(k, [84, 88], { height: 84, turn: 206 }) +
      drawFinger(k, { tip: [240, 118], base: [350, 196], width: 40, thumb: true, view: 'edge', bow: -0.06, dir: -64 }) +
      `<ellipse cx="238" cy="103" rx="28" ry="8" transform="rotate(-8 238 103)" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/><path d="M213 106q26 5 50 -7" fill="none" stroke="${INK}" stroke-width="${f(k.thin)}"/>` +
      drawFinger(k, { tip: [232, 86], base: [350, 30], width: 36, view: 'side', bow: 0.05, dir: 240 }) +
      arrow(
        k,
        [
          [250, 44],
          [226, 52],
          [212, 68],
        ],
        11,
      ) +
      arrow(
        k,
        [
          [232, 160],
          [252, 164],
          [268, 158],
        ],
        11,
      ),
  );

/** Dropped: cleaned, and a whole soak, before it is worn. */
export const droppedLens: Scene = (k) =>
  line(k, 'M14 150H148') +
  `<path d="M24 150Q80 138 138 150" fill="${SAND}" stroke="${INK}" stroke-width="${f(k.thin)}"/>` +
  lensSide(k, [80, 144], { size: 52, turn: 14 }) +
  line(k, 'M66 40q8 14 2 28M84 30q10 16 4 36', { width: k.thin, dash: '5 4' }) +
  arrow(
    k,
    [
      [80, 74],
      [80, 100],
    ],
    10,
  ) +
  lensCase(k, [246, 124], { scale: 0.74 }) +
  clockFace(k, [246, 54], 24, 180) +
  arrow(
    k,
    [
      [150, 118],
      [190, 118],
    ],
    12,
  );

/** Torn: it goes into the bin, and the missing piece is looked for. */
export const tornLens: Scene = (k) =>
  lensSide(k, [92, 142], { size: 104, shape: 'torn' }) +
  `<path d="M196 96L206 62L222 84L212 104Z" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}" stroke-linejoin="round"/>` +
  `<circle cx="214" cy="84" r="42" fill="none" stroke="${INK}" stroke-width="${f(k.ink * 1.4)}"/>` +
  line(k, 'M245 113L282 150', { width: k.ink * 2.4 }) +
  octagon([92, 40], 17);

export const dangerSigns: Scene = (k) =>
  skinGround(k) + theEye(k, { open: 0.56, red: true }).drawn + withEye(k, drop(k, [196, 150], 9) + drop(k, [188, 182], 7)) + octagon([280, 40], 22);

/** Lenses off and not back on; lens and case kept; seen the same day. */
export const lensesOff: Scene = (k) =>
  lensCase(k, [88, 136], { scale: 0.9 }) +
  lensSide(k, [88, 78], { size: 54, rim: true }) +
  arrow(
    k,
    [
      [88, 86],
      [88, 112],
    ],
    11,
  ) +
  glasses(k, [238, 146]) +
  telephone(k, [238, 60]);

/** A splash: flushed at once, the lens out meanwhile. */
export const flushEye: Scene = (k) =>
  skinGround(k) +
  theEye(k, { open: 0.9, brow: false }).drawn +
  withHand(k, bottle(k, [116, 40], { height: 110, turn: 226 }) + line(k, 'M118 46Q136 70 140 112M124 44Q146 70 152 112', { width: k.thin * 1.6 })) +
  withEye(k, drop(k, [206, 156], 9) + drop(k, [222, 180], 7)) +
  clockFace(k, [278, 40], 24, 90);
