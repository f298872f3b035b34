import { drawFinger } from '../finger';
import { hand } from '../hand';
import { INK, line, f, text } from '../ink';
import { bottle, lensCase, standingMirror, suds, towel, waterTap } from '../things';
import { withHand, type Scene } from './poses';

export const washHands: Scene = (k) =>
  withHand(
    k,
    waterTap(k, [262, 52], 0.95, false) +
      line(k, 'M255 70V140M262 70V134M269 70V140', { width: k.thin * 1.2 }) +
      hand(k, { at: [172, 130], turn: -72, scale: 1.3, flip: true, arm: 120, thumb: 'off' }) +
      hand(k, { at: [146, 128], turn: 58, scale: 1.3, arm: 120, thumb: { to: [142, 72], bow: -0.06 } }) +
      suds(k, [
        [192, 118, 12],
        [164, 162, 10],
        [222, 142, 11],
        [108, 98, 8],
        [232, 168, 8],
        [136, 180, 8],
      ]) +
      line(k, 'M250 138q-5 6 -11 7M262 132v9M274 138q5 6 11 7', { width: k.thin }),
  );

export const dryHands: Scene = (k) =>
  withHand(
    k,
    hand(k, { at: [150, 96], turn: 66, scale: 1.35, arm: 140, thumb: { to: [150, 46], bow: -0.06 } }) +
      towel(k, [176, 36], 130, 150) +
      drawFinger(k, { tip: [196, 104], base: [330, 86], width: 30, bow: 0.02 }) +
      drawFinger(k, { tip: [190, 134], base: [330, 128], width: 31 }) +
      drawFinger(k, { tip: [204, 164], base: [330, 168], width: 28 }),
  );

/** What stands on the table before anything begins. */
export const theTable: Scene = (k) =>
  line(k, 'M0 176H320') +
  standingMirror(k, [74, 176], 92, 134) +
  towel(k, [130, 160], 176, 34) +
  bottle(k, [160, 72], { height: 100 }) +
  `<g transform="translate(14 44)"><path d="M206 104V62q0 -6 6 -6h22q6 0 6 6v42Z" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/><path d="M223 56V40h-18q-6 0 -6 6M216 40h14" fill="none" stroke="${INK}" stroke-width="${f(k.ink)}" stroke-linecap="round"/>${text(223, 88, k.words.soap, 13)}${line(k, 'M206 104V118H240V104')}</g>` +
  lensCase(k, [242, 162], { scale: 0.72, lids: true });
