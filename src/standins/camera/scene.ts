import type { Degrees, Eye, MarkLayout, Millimetres } from '../../core';
import { chanceFrom, type Chance } from '../../lib/chance';
import type { CameraRange, Span } from './ranges';

/** Something with a place on the eye: mm from the cornea's centre, nose and up as the eye has them. */
export interface Spot {
  readonly x: Millimetres;
  readonly y: Millimetres;
  readonly size: Millimetres;
}
/** A vessel of the conjunctiva: where it leaves the limbus, and how it winds. */
export interface Vessel {
  readonly angle: number;
  readonly winds: number;
  readonly phase: number;
  readonly width: Millimetres;
  readonly redness: number;
}
/** A lash: from where on the upper lid, how long, which way it leans. */
export interface Lash {
  readonly at: Millimetres;
  readonly length: Millimetres;
  readonly leans: number;
}

/** One eye with a lens on it as the camera finds it: everything that is drawn, and so everything that is true of the picture. */
export interface Scene {
  readonly seed: number;
  readonly width: number;
  readonly height: number;
  /** Pixels a millimetre. */
  readonly scale: number;
  readonly eye: Eye;
  /** The cornea's centre, pixels. */
  readonly centre: readonly [number, number];
  /** Turned clockwise against the line of the canthi, degrees. */
  readonly roll: Degrees;
  readonly mirrored: boolean;
  readonly hvidMm: Millimetres;
  readonly pupilMm: Millimetres;
  readonly limbusMm: Millimetres;
  readonly iris: readonly [number, number, number];
  readonly lens: {
    readonly mm: Millimetres;
    /** Its centre from the cornea's, as the examiner sees it: right and down. */
    readonly off: readonly [Millimetres, Millimetres];
    /** Turned to the examiner's left, degrees. */
    readonly rotationLeft: Degrees;
    readonly layout: MarkLayout;
    readonly spacing: Degrees;
    readonly markLengthMm: Millimetres;
    readonly markWidthMm: Millimetres;
    /** Negative: darker than what lies under it. */
    readonly markContrast: number;
    readonly edgeContrast: number;
  };
  readonly upperLidMm: Millimetres;
  readonly lowerLidMm: Millimetres;
  readonly vessels: readonly Vessel[];
  readonly lashes: readonly Lash[];
  readonly reflexes: readonly Spot[];
  readonly bubbles: readonly Spot[];
  readonly specks: readonly (Spot & { readonly angle: number })[];
  readonly defocusPx: number;
  readonly motionPx: number;
  readonly motionAngle: number;
  readonly noise: number;
  readonly shade: number;
  readonly shadeAngle: number;
}

/** Hours at which marks are engraved, as degrees clockwise from 6 o'clock as the examiner sees them. */
export function markAngles(layout: MarkLayout, spacing: Degrees): readonly Degrees[] {
  switch (layout) {
    case 'none':
      return [];
    case 'six':
      return [0];
    case 'threeNine':
      return [90, 270];
    case 'twelve':
      return [180];
    case 'fiveSixSeven':
      return [-spacing, 0, spacing];
  }
}

const IRISES: readonly (readonly [number, number, number])[] = [
  [0.36, 0.25, 0.15],
  [0.45, 0.33, 0.2],
  [0.32, 0.42, 0.5],
  [0.38, 0.45, 0.36],
  [0.22, 0.15, 0.1],
];
export const PICTURE = { width: 800, height: 600 } as const;

/** How many of something there are. */
const some = <T>(chance: Chance, [from, to]: Span, make: () => T): T[] => Array.from({ length: chance.whole(from, to) }, make);

/**
 * An eye with a lens as a camera of a range finds it; the same seed finds the same.
 * @param layout marks of the lens
 * @example sceneOf(CAMERA_RANGES.easy, 'six', 1).lens.layout → 'six'
 */
export function sceneOf(range: CameraRange, layout: MarkLayout, seed: number): Scene {
  const chance = chanceFrom(seed);
  const of = ([from, to]: Span): number => chance.between(from, to);
  const either = (): 1 | -1 => (chance.happens(0.5) ? 1 : -1);
  const away = chance.between(0, 2 * Math.PI);
  const off = of(range.offCentreMm);
  const spread = (): Pick<Spot, 'x' | 'y'> => ({ x: chance.between(-6, 6), y: chance.between(-5, 6) });
  const marked = !chance.happens(range.markless);
  return {
    seed,
    ...PICTURE,
    scale: of(range.scale),
    eye: chance.happens(0.5) ? 'right' : 'left',
    centre: [PICTURE.width / 2 + chance.between(-20, 20), PICTURE.height / 2 + chance.between(-25, 5)],
    roll: of(range.roll) * either(),
    mirrored: chance.happens(range.mirrored),
    hvidMm: of(range.hvidMm),
    pupilMm: of(range.pupilMm),
    limbusMm: of(range.limbusMm),
    iris: chance.pick(IRISES),
    lens: {
      mm: of(range.lensMm),
      off: [off * Math.cos(away), off * Math.sin(away)],
      rotationLeft: of(range.turn) * either(),
      layout: marked ? layout : 'none',
      spacing: chance.pick([15, 20, 30]),
      markLengthMm: of(range.markLengthMm),
      markWidthMm: of(range.markWidthMm),
      // Engraved lines are dark on the white of the eye, laser marks light: most are dark.
      markContrast: of(range.markContrast) * (chance.happens(0.8) ? -1 : 1),
      edgeContrast: of(range.edgeContrast) * either(),
    },
    // The lid that hides the marks is held: the lower one, but for a mark at 12.
    upperLidMm: of(layout === 'twelve' ? range.lowerLidMm : range.upperLidMm),
    lowerLidMm: layout === 'twelve' ? of(range.upperLidMm) + 0.8 : of(range.lowerLidMm),
    vessels: some(chance, range.vessels, () => ({
      angle: chance.between(0, 2 * Math.PI),
      winds: chance.between(0.01, 0.05),
      phase: chance.between(0, 6),
      width: chance.between(0.03, 0.12),
      redness: chance.between(0.1, 0.35),
    })),
    lashes: some(chance, range.lashes, () => ({ at: chance.between(-9, 9), length: chance.between(1.5, 4.5), leans: chance.between(-0.6, 0.6) })),
    reflexes: some(chance, range.reflexes, () => ({ x: chance.between(-2.5, 2.5), y: chance.between(-3, 1.5), size: chance.between(0.25, 0.7) })),
    bubbles: some(chance, range.bubbles, () => ({ ...spread(), size: chance.between(0.2, 0.6) })),
    specks: some(chance, range.specks, () => ({ ...spread(), size: chance.between(0.2, 1), angle: chance.between(0, Math.PI) })),
    defocusPx: of(range.defocusPx),
    motionPx: of(range.motionPx),
    motionAngle: chance.between(0, Math.PI),
    noise: of(range.noise),
    shade: of(range.shade),
    shadeAngle: chance.between(0, 2 * Math.PI),
  };
}
