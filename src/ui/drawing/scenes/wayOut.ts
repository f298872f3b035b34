import { lensFace } from '../eye';
import { drawFinger } from '../finger';
import { hand } from '../hand';
import { f, FLUID, INK, type Kit } from '../ink';
import { lensSide } from '../lensSide';
import { octagon, tick } from '../signs';
import { blister } from '../things';
import { fingertip, withHand, type Scene } from './poses';

/** A pack held flat, its foil drawn back; the lens lies in its solution. */
export const openPack: Scene = (k) =>
  withHand(
    k,
    drawFinger(k, { tip: [98, 150], base: [-40, 190], width: 42, view: 'side', thumb: true, bow: 0.04 }) +
      blister(k, [150, 140], 1.7, 0.9) +
      `<ellipse cx="150" cy="129" rx="34" ry="5" fill="${FLUID}" stroke="${INK}" stroke-width="${f(k.thin)}"/>` +
      drawFinger(k, { tip: [226, 56], base: [350, 16], width: 38, view: 'side', bow: 0.06 }) +
      drawFinger(k, { tip: [222, 76], base: [350, 108], width: 42, view: 'edge', thumb: true, bow: -0.08 }),
  );

export const bowl: Scene = (k) => fingertip(k, [160, 134], 78) + lensSide(k, [160, 134], { size: 118 }) + tick([280, 40], 17);
export const flare: Scene = (k) => fingertip(k, [160, 134], 78) + lensSide(k, [160, 134], { size: 116, shape: 'flare' }) + octagon([280, 40], 18);

/** A lens held folded between finger and thumb. */
const folded = (k: Kit, x: number, shape: 'taco' | 'tacoOut'): string =>
  drawFinger(k, { tip: [x - 24, 112], base: [x - 78, 262], width: 42, thumb: true, view: 'edge', bow: 0.02, dir: 8 }) +
  drawFinger(k, { tip: [x + 24, 110], base: [x + 70, 260], width: 38, view: 'side', bow: -0.02, dir: -8 }) +
  lensSide(k, [x, 142], { size: 76, shape });

/** One lens, folded: nothing says which way out it is. */
export const foldedBetween: Scene = (k, { shape = 'bowl' }) => withHand(k, folded(k, 160, shape === 'flare' ? 'tacoOut' : 'taco'));

/** Folded between the fingers: edges that turn in are right, edges that flare are inside out. */
export const palmFold: Scene = (k) => {
  const [right, wrong] = k.hand === 'left' ? [238, 84] : [84, 238];
  return withHand(k, folded(k, 84, 'taco') + folded(k, 238, 'tacoOut')) + tick([right, 26], 13) + octagon([wrong, 26], 14);
};

/** A lens from the front with its mark. */
const marked = (k: Kit, x: number, mirrored: boolean): string =>
  lensFace(k, [x, 112], 56, { fill: 0.9 }) +
  `<circle cx="${x}" cy="112" r="47" fill="none" stroke="${INK}" stroke-width="${f(k.thin * 0.7)}" opacity=".5"/>` +
  `<g transform="translate(${x} 150)${mirrored ? ' scale(-1 1)' : ''}"><text text-anchor="middle" font-family="Keen Sans" font-size="24" font-weight="640" fill="${INK}" letter-spacing="1">R7E</text></g>`;

/** One lens with its mark: nothing says which way out it is. */
export const markOfLens: Scene = (k, { shape = 'bowl' }) => marked(k, 160, shape === 'flare');

/** An engraved mark reads true from the outside. */
export const engravedMark: Scene = (k) => marked(k, 84, false) + marked(k, 236, true) + tick([84, 34], 14) + octagon([236, 34], 15);

/** A lens on the wearer's own finger, at eye level: nothing says which way out it is. */
export const onFinger: Scene = (k, { shape = 'bowl' }) =>
  withHand(
    k,
    hand(k, {
      at: [204, 186],
      scale: 1.6,
      index: { to: [152, 94], bow: 0 },
      middle: 'curl',
      ring: 'curl',
      little: 'curl',
      thumb: { to: [98, 170], bow: -0.1 },
      over: ['little', 'ring', 'middle'],
    }) + lensSide(k, [152, 94], { size: 78, shape }),
  );
