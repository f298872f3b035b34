import { eyeFront } from '../eye';
import { drawFinger } from '../finger';
import { hand } from '../hand';
import { add, line, type Point } from '../ink';
import { arrow, octagon } from '../signs';
import { bottle, clockFace, cottonBud, drop } from '../things';
import { away, handAbove, handBelow, MIDDLE, pinch, skinGround, theEye, withEye, withHand, type Scene } from './poses';

/** A lens beside the cornea, nudged back through the lid while the eye looks at it. */
export const nudgeLens: Scene = (k) => {
  const s = away(k);
  const eye = theEye(k, { open: 0.72, gaze: [-0.22 * s, 0], lens: { dx: -5.6 * s, dy: 2.2 } });
  const lid = eye.lower(0.2);
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      hand(k, {
        at: [lid[0] - 70, lid[1] + 96],
        turn: 26,
        scale: 1.8,
        index: { to: [lid[0] - 6, lid[1] + 6], bow: -0.04 },
        middle: 'curl',
        ring: 'curl',
        little: 'curl',
        thumb: 'curl',
        over: ['index'],
      }) +
        arrow(k, [
          [lid[0] + 24, lid[1] + 24],
          [lid[0] + 60, lid[1] + 2],
        ]),
    )
  );
};

/** Lost: it is under the upper lid, for it cannot go behind the eye. */
export const underLid: Scene = (k) => {
  const eye = theEye(k, { open: 0.78, gaze: [0, 0.95], liftUpper: 0.02, lens: { dx: 0.3, dy: -11.6, flatten: 0.8 } });
  return (
    skinGround(k) +
    eye.drawn +
    withHand(k, handAbove(k, add(eye.upper(0.5), [0, -3]))) +
    withEye(
      k,
      arrow(k, [
        [262, 92],
        [262, 132],
      ]),
    )
  );
};
export const strokeLid: Scene = (k) =>
  skinGround(k) +
  theEye(k, { open: 0 }).drawn +
  withHand(
    k,
    drawFinger(k, { tip: [166, 80], base: [-60, 150], width: 42, bow: -0.04 }) +
      arrow(k, [
        [206, 66],
        [206, 104],
      ]) +
      cottonBud(k) +
      octagon([259, 167], 15),
  );

/** Off: the eye looks up and aside, one finger on the lens. */
export const fingerOnLens: Scene = (k) => {
  const eye = theEye(k, { open: 1, gaze: [0.62 * away(k), -0.5], lens: {} });
  const lid = eye.lower(0.52);
  return skinGround(k) + eye.drawn + withHand(k, handBelow(k, [lid[0] + 22, lid[1]], { to: [eye.pupil[0] - 26, eye.pupil[1] + 28] }));
};
export const slideDown: Scene = (k) => {
  const s = away(k);
  const eye = theEye(k, { open: 1, gaze: [0.62 * s, -0.6], dropLower: 0.04, lens: { dx: -4.5 * s, dy: 7.6 }, ghost: [0, 0] });
  const [lid, pupil] = [eye.lower(0.52), eye.pupil];
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      handBelow(k, [lid[0] + 26, lid[1]], { to: [pupil[0] - 38, pupil[1] + 54] }) +
        arrow(k, [
          [pupil[0] - 50, pupil[1] + 2],
          [pupil[0] - 64, pupil[1] + 32],
        ]),
    )
  );
};
export const pinchPads: Scene = (k) => {
  const [x, y] = [136, 118];
  const lens =
    line(k, `M${x} ${y - 27}C${x + 17} ${y - 16},${x + 17} ${y + 16},${x} ${y + 26}C${x - 17} ${y + 16},${x - 17} ${y - 16},${x} ${y - 27}Z`, {
      fill: '#fff',
    }) + line(k, `M${x} ${y - 24}Q${x + 3} ${y},${x} ${y + 24}`, { width: k.thin });
  return skinGround(k) + theEye(k, { open: 1, gaze: [0.62 * away(k), -0.6], dropLower: 0.06 }).drawn + withHand(k, lens + pinch(k, [x, y - 2], 11));
};
/** Long nails: the lens is rolled off with the side of the finger. */
export const rollOff: Scene = (k) => {
  const s = away(k);
  const eye = theEye(k, { open: 1, gaze: [0.5 * s, -0.7], dropLower: 0.05, lens: { dx: -5 * s, dy: 8.6, flatten: 0.9 } });
  const lid = eye.lower(0.38);
  const at = (dx: number, dy: number): Point => add(lid, [dx, dy]);
  return (
    skinGround(k) +
    eye.drawn +
    withHand(k, drawFinger(k, { tip: at(46, -22), base: at(-190, 110), width: 42, view: 'side', bow: 0.03 }) + arrow(k, [at(84, 10), at(74, 44), at(40, 56)]))
  );
};
/** The outer corner drawn aside, and a blink. It follows the eye, never the hand. */
export const outerCorner: Scene = (k) =>
  skinGround(k) +
  theEye(k, { open: 0.9, pull: 1, lens: { dy: -0.6 } }).drawn +
  withEye(
    k,
    drawFinger(k, { tip: [64, 86], base: [-60, 176], width: 44, bow: -0.04 }) +
      arrow(k, [
        [58, 44],
        [20, 34],
      ]),
  ) +
  arrow(
    k,
    [
      [160, 6],
      [160, 36],
    ],
    11,
  ) +
  arrow(
    k,
    [
      [160, 166],
      [160, 132],
    ],
    11,
  );

/** A dry lens is never pulled: drops, and time until it moves. */
export const stuckLens: Scene = (k) =>
  skinGround(k) +
  withEye(k, eyeFront(k, { at: [MIDDLE, 128], open: 0.8, brow: false, lens: {} }).drawn) +
  withHand(k, bottle(k, [140, 54], { height: 96, turn: 200 }) + drop(k, [142, 76], 7)) +
  clockFace(k, [270, 42], 25, 60);
