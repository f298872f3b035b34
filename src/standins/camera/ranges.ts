/** A least and a most that a picture draws from, evenly. */
export type Span = readonly [from: number, to: number];

/**
 * What pictures of a slit lamp are like: three ranges, from a careful photographer with a still wearer to a hurried one. They were set before
 * anything was written that reads them, and are not moved to suit it. Our own estimates; lengths in mm on the eye, angles in degrees,
 * blur in pixels (standard deviation), contrasts and noise as shares of full white.
 */
export interface CameraRange {
  /** Pixels a millimetre on the eye. */
  readonly scale: Span;
  readonly hvidMm: Span;
  readonly pupilMm: Span;
  readonly lensMm: Span;
  /** How far the lens's centre lies from the cornea's. */
  readonly offCentreMm: Span;
  /** How far the lens sits turned; the sign is thrown. */
  readonly turn: Span;
  /** How far the camera is turned against the line of the canthi; the sign is thrown. */
  readonly roll: Span;
  /** Where the lids stand from the cornea's centre. */
  readonly upperLidMm: Span;
  readonly lowerLidMm: Span;
  readonly markLengthMm: Span;
  readonly markWidthMm: Span;
  readonly markContrast: Span;
  readonly edgeContrast: Span;
  readonly limbusMm: Span;
  readonly vessels: Span;
  readonly lashes: Span;
  readonly reflexes: Span;
  readonly bubbles: Span;
  /** Specks and scratches that are no mark. */
  readonly specks: Span;
  readonly defocusPx: Span;
  readonly motionPx: Span;
  readonly noise: Span;
  /** Light from one side to the other. */
  readonly shade: Span;
  /** Chances of a picture that must not be read: turned round, or of a lens without a mark. */
  readonly mirrored: number;
  readonly markless: number;
}

const USUAL: CameraRange = {
  scale: [31, 36],
  hvidMm: [11.2, 12.4],
  pupilMm: [2.5, 5.5],
  lensMm: [13.8, 14.6],
  offCentreMm: [0, 0.6],
  turn: [0, 30],
  roll: [0, 5],
  upperLidMm: [4.2, 6.5],
  lowerLidMm: [7.4, 9],
  markLengthMm: [0.8, 1.4],
  markWidthMm: [0.08, 0.16],
  markContrast: [0.12, 0.32],
  edgeContrast: [0.04, 0.12],
  limbusMm: [0.4, 0.9],
  vessels: [8, 22],
  lashes: [0, 12],
  reflexes: [1, 2],
  bubbles: [0, 1],
  specks: [0, 3],
  defocusPx: [0.7, 1.8],
  motionPx: [0, 3],
  noise: [0.008, 0.025],
  shade: [0, 0.25],
  mirrored: 0.03,
  markless: 0.03,
};

export const CAMERA_RANGES = {
  easy: {
    ...USUAL,
    ...{
      offCentreMm: [0, 0.3],
      turn: [0, 20],
      roll: [0, 2],
      upperLidMm: [5.5, 7],
      lowerLidMm: [8, 9.5],
      markContrast: [0.25, 0.45],
      edgeContrast: [0.08, 0.16],
    },
    ...{
      vessels: [4, 10],
      lashes: [0, 4],
      reflexes: [1, 1],
      bubbles: [0, 0],
      specks: [0, 0],
      defocusPx: [0.5, 1],
      motionPx: [0, 0.5],
      noise: [0.004, 0.012],
      shade: [0, 0.1],
    },
  },
  usual: USUAL,
  hard: {
    ...USUAL,
    ...{
      offCentreMm: [0.3, 1.1],
      turn: [0, 45],
      roll: [0, 10],
      upperLidMm: [2.8, 5],
      lowerLidMm: [6.2, 8.2],
      markContrast: [0.06, 0.2],
      edgeContrast: [0.02, 0.07],
    },
    ...{
      vessels: [18, 40],
      lashes: [8, 26],
      reflexes: [1, 3],
      bubbles: [0, 4],
      specks: [2, 8],
      defocusPx: [1.4, 3.2],
      motionPx: [0, 8],
      noise: [0.02, 0.05],
      shade: [0.1, 0.45],
    },
  },
} as const satisfies Readonly<Record<string, CameraRange>>;
export type CameraRangeName = keyof typeof CAMERA_RANGES;
