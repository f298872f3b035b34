import type { LensAdd } from '../lens/family';
import { EYES, type Dioptres, type Eye } from '../units';

/** A lens of a pair as far as one change goes. `sphere` as labelled, D; `add` null for single vision. */
export interface PairLens {
  readonly sphere: Dioptres;
  readonly add: LensAdd | null;
  readonly toric: boolean;
}
export type LensPair = Readonly<Record<Eye, PairLens>>;

/** The one thing that is changed. `swap`: the two eyes' additions change places, each eye keeping its far power. */
export type PairChange =
  | { readonly kind: 'sphere'; readonly eye: Eye; readonly by: Dioptres }
  | { readonly kind: 'add'; readonly eye: Eye; readonly to: LensAdd | null }
  | { readonly kind: 'swap' }
  | { readonly kind: 'toric'; readonly eye: Eye };

export const otherOf = (eye: Eye): Eye => (eye === 'right' ? 'left' : 'right');

/** The pair after a change. @example changedPair({right: {sphere: -2, add: 'low', toric: false}, left: {sphere: -2, add: 'low', toric: false}}, {kind: 'sphere', eye: 'left', by: 0.25}).left.sphere → -1.75 */
export function changedPair(pair: LensPair, change: PairChange): LensPair {
  switch (change.kind) {
    case 'sphere':
      return { ...pair, [change.eye]: { ...pair[change.eye], sphere: pair[change.eye].sphere + change.by + 0 } };
    case 'add':
      return { ...pair, [change.eye]: { ...pair[change.eye], add: change.to } };
    case 'swap':
      return { right: { ...pair.right, add: pair.left.add }, left: { ...pair.left, add: pair.right.add } };
    case 'toric':
      return { ...pair, [change.eye]: { ...pair[change.eye], toric: true } };
  }
}

/** Are two pairs the same lenses? */
export const isSamePair = (a: LensPair, b: LensPair): boolean =>
  EYES.every((eye) => Math.abs(a[eye].sphere - b[eye].sphere) < 1e-9 && a[eye].add === b[eye].add && a[eye].toric === b[eye].toric);
