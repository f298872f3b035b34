import type { MarkLayout } from '../lens/family';
import type { Degrees } from '../units';

/** Where the marks of a layout lie, degrees clockwise from its own zero. @example anglesOf('fiveSixSeven', 20) → [-20, 0, 20] */
export const anglesOf = (layout: MarkLayout, spacing: Degrees): readonly Degrees[] =>
  layout === 'six' ? [0] : layout === 'twelve' ? [180] : layout === 'threeNine' ? [90, 270] : layout === 'fiveSixSeven' ? [-spacing, 0, spacing] : [];
