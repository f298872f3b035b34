import { eyeFront } from '../eye';
import { drawFinger } from '../finger';
import { f, INK, line, type Kit } from '../ink';
import { lensSide } from '../lensSide';
import { arrow, callout, octagon } from '../signs';
import { bin, blister, bottle, caseUpsideDown, clockFace, drop, lensCase, noWater, peroxideCase, towel, waterTap } from '../things';
import { MIDDLE, openPalm, skinGround, withEye, withHand, type Scene } from './poses';

/** A lens that lies in the palm. */
const lying = (k: Kit, y: number): string =>
  `<ellipse cx="92" cy="${y}" rx="34" ry="22" fill="#fff" fill-opacity=".75" stroke="${INK}" stroke-width="${f(k.ink)}"/>`;

/** To and fro from the centre to the edge, never in circles. */
export const rubLens: Scene = (k) =>
  withHand(
    k,
    openPalm(k, [92, 128]) +
      lying(k, 138) +
      drawFinger(k, { tip: [88, 142], base: [226, -40], width: 34, bow: 0.05, dir: 214 }) +
      arrow(
        k,
        [
          [140, 158],
          [176, 158],
        ],
        11,
      ) +
      arrow(
        k,
        [
          [140, 158],
          [122, 158],
        ],
        11,
      ),
  );
export const rinseLens: Scene = (k) =>
  withHand(
    k,
    openPalm(k, [92, 130]) +
      lying(k, 140) +
      line(k, 'M122 64Q104 90 96 132M128 66Q112 94 106 134', { width: k.thin * 1.2 }) +
      bottle(k, [124, 62], { height: 92, turn: 222 }),
  );
export const soakLenses: Scene = (k, { soak = '' }) =>
  lensCase(k, [130, 118], { scale: 1.25 }) +
  line(k, 'M77 62V112M83 62V110', { width: k.thin * 1.2 }) +
  bottle(k, [80, 58], { turn: 218 }) +
  clockFace(k, [278, 70], 26, 180, soak);
export const emptyCase: Scene = (k) =>
  lensCase(k, [150, 76], { scale: 1.2, fluid: 0.25, lens: false, turn: 58 }) +
  line(k, 'M198 144Q212 160 212 200M206 138Q222 156 222 200M213 130Q231 150 231 200', { width: k.thin * 1.3 }) +
  withHand(k, drawFinger(k, { tip: [116, 92], base: [-30, 150], width: 38, thumb: true, bow: -0.05 }));
export const rinseCase: Scene = (k) =>
  lensCase(k, [150, 130], { scale: 1.25, fluid: 0, lens: false }) +
  line(k, 'M96 68V122M104 68V124', { width: k.thin * 1.2 }) +
  bottle(k, [100, 64], { height: 92, turn: 222 }) +
  noWater(k, [276, 72], 24);
export const dryCase: Scene = (k) => {
  const lid = (x: number, y: number, filled: boolean): string =>
    `<path d="M${x - 24} ${y}v-11a24 9 0 0 1 48 0v11a24 9 0 0 1 -48 0Z" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/><ellipse cx="${x}" cy="${y - 11}" rx="24" ry="9" fill="${filled ? INK : '#fff'}" stroke="${INK}" stroke-width="${f(k.ink)}"/>`;
  return (
    towel(k, [20, 104], 280, 88) +
    caseUpsideDown(k, [106, 136], 1.05) +
    lid(214, 144, true) +
    lid(268, 152, false) +
    arrow(k, [
      [52, 76],
      [74, 46],
      [140, 46],
      [164, 78],
    ])
  );
};
/** Peroxide: its own case with its disc, and its full hours. */
export const peroxideSoak: Scene = (k, { soak = '' }) =>
  peroxideCase(k, [96, 130], { scale: 1.12 }) +
  callout([96, 159], [148, 166], k.words.disc) +
  callout([118, 106], [148, 112], k.words.basket) +
  clockFace(k, [256, 60], 30, 180, soak);
/** Its own case, emptied, stands open to dry. */
export const ownCaseDry: Scene = (k) => towel(k, [30, 118], 260, 74) + peroxideCase(k, [160, 130], { scale: 0.78, open: true, fluid: false });
export const peroxideBurns: Scene = (k) =>
  skinGround(k) +
  withEye(k, eyeFront(k, { at: [MIDDLE - 20, 136], width: 136, open: 0.75, brow: false }).drawn) +
  bottle(k, [122, 66], { height: 104, turn: 236, label: 'H₂O₂' }) +
  drop(k, [120, 84], 7) +
  octagon([276, 140], 30);
export const neverWater: Scene = (k) => waterTap(k, [100, 70], 1.15) + lensSide(k, [98, 190], { size: 66, rim: true }) + noWater(k, [240, 118], 46);

/** Single-use: a new pair each day, into the bin at night. */
export const intoTheBin: Scene = (k) =>
  blister(k, [92, 92], 1.1, 0.9) +
  lensSide(k, [92, 84], { size: 46 }) +
  bin(k, [236, 182]) +
  lensSide(k, [236, 66], { size: 46 }) +
  arrow(
    k,
    [
      [142, 74],
      [176, 46],
      [206, 48],
    ],
    12,
  ) +
  arrow(
    k,
    [
      [236, 70],
      [236, 86],
    ],
    9,
  );
