import { eyeSide } from '../eyeSide';
import { drawFinger } from '../finger';
import { lensSide } from '../lensSide';
import { arrow, numeral, octagon, tick } from '../signs';
import { drop } from '../things';
import { fingertip, handAbove, handBelow, MIDDLE, skinGround, theEye, withHand, type Scene } from './poses';
import type { Kit, Point } from '../ink';

export const rehearseLids: Scene = (k) => {
  const eye = theEye(k, { open: 1 });
  return skinGround(k) + eye.drawn + withHand(k, handAbove(k, eye.upper(0.5)) + handBelow(k, eye.lower(0.5), null));
};

export const comfortDrop: Scene = (k) => {
  const eye = theEye(k, { open: 1 });
  const tip: Point = [118, 142];
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      handAbove(k, eye.upper(0.5)) +
        handBelow(k, eye.lower(0.6), { to: tip, bow: -0.05 }) +
        drop(k, [tip[0] + 1, tip[1] - 8], 9) +
        arrow(
          k,
          [
            [tip[0] + 6, tip[1] - 26],
            [tip[0] + 24, tip[1] - 44],
          ],
          11,
        ),
    )
  );
};

export const liftLid: Scene = (k) => {
  const eye = theEye(k, { open: 0.85 });
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      handAbove(k, eye.upper(0.5)) +
        arrow(k, [
          [232, 52],
          [232, 22],
        ]),
    )
  );
};

/** Both lids held, the lens waiting on the forefinger. */
export const lensReady: Scene = (k) => {
  const eye = theEye(k, { open: 1 });
  const tip: Point = [106, 150];
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      handAbove(k, eye.upper(0.5)) +
        handBelow(k, eye.lower(0.58), { to: tip, bow: -0.04 }) +
        lensSide(k, [tip[0], tip[1] + 1], { size: 50, turn: 20, rim: true }),
    )
  );
};

export const placeLens: Scene = (k) =>
  withHand(
    k,
    eyeSide(k, [186, 104], 0.92) +
      drawFinger(k, { tip: [182, 69], base: [96, -70], width: 36, view: 'side', bow: -0.1, dir: 158 }) +
      drawFinger(k, { tip: [192, 144], base: [96, 262], width: 36, view: 'edge', bow: 0.06, dir: 20 }) +
      drawFinger(k, { tip: [112, 104], base: [-60, 132], width: 42, view: 'side', bow: 0.05 }) +
      lensSide(k, [113, 104], { size: 56, turn: 90, rim: true }) +
      arrow(
        k,
        [
          [24, 66],
          [78, 66],
        ],
        13,
      ),
  );

/** One-handed: the eye looks up, the lens is set on the lower white. */
export const lowerWhite: Scene = (k) => {
  const eye = theEye(k, { open: 0.9, gaze: [0, -0.95], dropLower: 0.07 });
  const lid = eye.lower(0.42);
  const tip: Point = [lid[0] - 20, lid[1] + 3];
  return (
    skinGround(k) +
    eye.drawn +
    withHand(k, handBelow(k, eye.lower(0.7), { to: [tip[0] - 1, tip[1]], bow: -0.05, dir: 20 }) + lensSide(k, tip, { size: 50, turn: 24, rim: true })) +
    arrow(k, [
      [250, 64],
      [250, 28],
    ])
  );
};
export const lidRises: Scene = (k) => {
  const eye = theEye(k, { open: 0.62, gaze: [0, 0.3], lens: { dy: 0.4 } });
  return (
    skinGround(k) +
    eye.drawn +
    arrow(k, [
      [160, 180],
      [160, 146],
    ]) +
    arrow(k, [
      [252, 66],
      [252, 104],
    ])
  );
};

/** Lids still held, the eye looks about: bubbles leave from under the lens. @param gaze + to the wearer's left, and down */
const looks = (k: Kit, [aside, down]: Point, way: readonly Point[]): string => {
  const across = aside * k.wearersLeft;
  const eye = theEye(k, { open: 1, gaze: [k.eye === 'left' ? -across : across, down], lens: { dx: 0.1, dy: 0.2 } });
  return skinGround(k) + eye.drawn + withHand(k, handAbove(k, eye.upper(0.5)) + handBelow(k, eye.lower(0.52), null)) + arrow(k, way);
};
const sideways = (k: Kit, toLeft: 1 | -1): readonly Point[] => {
  const way = toLeft * k.wearersLeft;
  return [
    [MIDDLE + 84 * way, 30],
    [MIDDLE + 124 * way, 30],
  ];
};
export const settleUp: Scene = (k) =>
  looks(
    k,
    [0, -0.85],
    [
      [262, 74],
      [262, 34],
    ],
  );
export const settleLeft: Scene = (k) => looks(k, [0.9, 0], sideways(k, 1));
export const settleRight: Scene = (k) => looks(k, [-0.9, 0], sideways(k, -1));
export const settleDown: Scene = (k) =>
  looks(
    k,
    [0, 0.85],
    [
      [262, 40],
      [262, 80],
    ],
  );

/** The lower lid is let go first, then the upper. */
export const letGo: Scene = (k) => {
  const eye = theEye(k, { open: 0.8, lens: { dy: 0.2 } });
  const [up, low] = [eye.upper(0.5), eye.lower(0.52)];
  const left = k.hand === 'left';
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      handAbove(k, [up[0], up[1] - 3]) +
        handBelow(k, [low[0], low[1] + 34], null) +
        arrow(k, [
          [low[0] + 46, low[1] + 44],
          [low[0] + 46, low[1] + 12],
        ]),
    ) +
    numeral([left ? 70 : 250, 156], 1) +
    numeral([left ? 80 : 240, 40], 2)
  );
};

/** A lens that sticks to a wet finger, and one on a dry tip with its edges free. */
export const sticksToFinger: Scene = (k) =>
  fingertip(k, [84, 116], 54) +
  lensSide(k, [84, 114], { size: 58, shape: 'collapse' }) +
  drop(k, [51, 152], 6) +
  drop(k, [114, 140], 6) +
  drop(k, [108, 176], 5) +
  fingertip(k, [236, 116], 54) +
  lensSide(k, [236, 116], { size: 76 }) +
  octagon([84, 52], 15) +
  tick([236, 40], 14) +
  arrow(k, [
    [138, 130],
    [178, 130],
  ]);
