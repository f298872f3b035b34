import { drawFinger } from '../finger';
import { lensSide } from '../lensSide';
import { arrow } from '../signs';
import { add, type Point } from '../ink';
import { skinGround, theEye, withHand, type Scene } from './poses';

/** Somebody else's fingers: they come from the side of whoever sits opposite, thumb at the brow, middle finger at the cheek. */
const opposite = (k: Parameters<Scene>[0], up: Point, low: Point): string =>
  drawFinger(k, { tip: [up[0] + 4, up[1] - 2], base: [up[0] + 140, up[1] - 96], width: 46, thumb: true, bow: -0.08 }) +
  drawFinger(k, { tip: [low[0] + 30, low[1] + 2], base: [low[0] + 96, low[1] + 150], width: 40, bow: 0.04 });

/** A lens put on somebody else's eye: they look up and inwards, the lens goes on the lower white. */
export const placeForSomebody: Scene = (k) => {
  const eye = theEye(k, { open: 1, gaze: [0.3, -0.7], dropLower: 0.05 });
  const low = eye.lower(0.4);
  const tip = add(low, [-16, -2]);
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      opposite(k, eye.upper(0.55), eye.lower(0.62)) +
        drawFinger(k, { tip, base: add(tip, [-64, 170]), width: 42, bow: -0.06 }) +
        lensSide(k, tip, { size: 50, turn: 24, rim: true }) +
        arrow(k, [add(tip, [26, -30]), add(tip, [46, -52])], 11),
    )
  );
};
/** The finger is rolled off the lens, the lids still held. */
export const rollFingerAway: Scene = (k) => {
  const eye = theEye(k, { open: 1, gaze: [0.1, -0.3], lens: { dy: 0.6 } });
  const tip = add(eye.lower(0.34), [-12, 8]);
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      opposite(k, eye.upper(0.55), eye.lower(0.62)) +
        drawFinger(k, { tip, base: add(tip, [-80, 160]), width: 42, bow: -0.06, view: 'side' }) +
        arrow(k, [add(tip, [10, -26]), add(tip, [-18, -28]), add(tip, [-42, -6])], 11),
    )
  );
};
/** Off somebody else's eye: thumb and forefinger, pads only, after the lens has slid to the white. */
export const takeOffForSomebody: Scene = (k) => {
  const eye = theEye(k, { open: 1, gaze: [0.55, -0.6], dropLower: 0.05, lens: { dx: -4, dy: 7.8 } });
  const low = add(eye.lower(0.36), [-6, -14]);
  return (
    skinGround(k) +
    eye.drawn +
    withHand(
      k,
      drawFinger(k, { tip: add(low, [24, 6]), base: add(low, [92, 168]), width: 40, view: 'side', bow: 0.1, dir: -36 }) +
        drawFinger(k, { tip: add(low, [-24, 8]), base: add(low, [-92, 150]), width: 44, view: 'edge', bow: -0.1, dir: 38, thumb: true }) +
        arrow(k, [add(low, [-54, 2]), add(low, [-34, 4])], 9) +
        arrow(k, [add(low, [54, 0]), add(low, [34, 2])], 9),
    )
  );
};
