import type { MultifocalDesign } from '../lens/catalogueFamily';
import type { Dioptres, Millimetres } from '../units';

/** A smooth step from 0 to 1 between two radii. */
function rise(at: Millimetres, from: Millimetres, to: Millimetres): number {
  const t = Math.min(1, Math.max(0, (at - from) / (to - from)));
  return t * t * (3 - 2 * t);
}

/** Radii of the zones of each design as they are drawn here, mm. Our own: makers do not say; they stand for no maker's lens. */
const NEAR_ZONE = { full: 0.6, gone: 1.6 } as const;
const FAR_ZONE = { full: 1.1, gone: 2.1 } as const;
const RINGS = { first: 0.9, width: 0.5 } as const;
const DEPTH = 1.7;

/**
 * Near power of a ring of a lens beyond its far power, by the kind of design: a drawing that stands for the kind, for no maker's lens.
 * @param add near power, D
 * @param ring radius from the lens's centre, mm
 * @example nearPower('centreNear', 2, 0.3) → 2
 * @source centre-near, centre-distance, concentric, extended depth: common practice; the radii: our own
 */
export function nearPower(design: MultifocalDesign, add: Dioptres, ring: Millimetres): Dioptres {
  switch (design) {
    case 'centreNear':
      return add * (1 - rise(ring, NEAR_ZONE.full, NEAR_ZONE.gone));
    case 'centreDistance':
      return add * rise(ring, FAR_ZONE.full, FAR_ZONE.gone);
    case 'concentric':
      return ring < RINGS.first || Math.floor((ring - RINGS.first) / RINGS.width) % 2 === 1 ? 0 : add;
    case 'extendedDepth':
      return add * Math.max(0, 1 - ring / DEPTH);
  }
}
