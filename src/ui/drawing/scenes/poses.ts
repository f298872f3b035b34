import { eyeOf, type Eyelids, type EyePose } from '../eye';
import { groundOf } from '../eyeSide';
import { drawFinger } from '../finger';
import { hand } from '../hand';
import { flipped, type Kit, type Point } from '../ink';

/** A scene is 320 × 200. */
export const SCENE_WIDTH = 320;
export const SCENE_HEIGHT = 200;
export const MIDDLE = SCENE_WIDTH / 2;

/** What only some scenes show. */
export interface SceneDetail {
  /** How the lens of *which way out* lies. */
  readonly shape?: 'bowl' | 'flare';
  /** Written under the clock of a soak: its hours. */
  readonly soak?: string;
}
/** One scene of the lesson: what is drawn, within its frame. */
export type Scene = (k: Kit, detail: SceneDetail) => string;

/** Skin all over the picture. */
export const skinGround = (k: Kit): string => {
  const all = (look: string): string => `<rect x="-40" y="-40" width="${SCENE_WIDTH + 80}" height="${SCENE_HEIGHT + 80}" ${look}/>`;
  return all(`fill="${groundOf(k)}"`) + all(`fill="${k.wash.skin}" fill-opacity=".57"`);
};
export const theEye = (k: Kit, pose: EyePose = {}): Eyelids => eyeOf(k, MIDDLE, pose);
/** Mirrored with the hand that works. */
export const withHand = (k: Kit, drawn: string): string => (k.hand === 'left' ? flipped(MIDDLE, drawn) : drawn);
/** Mirrored with the eye. */
export const withEye = (k: Kit, drawn: string): string => (k.eye === 'left' ? flipped(MIDDLE, drawn) : drawn);
/** The eye looks away from the hand, and the lens slides towards it: 1 where hand and eye are of one side. */
export const away = (k: Kit): 1 | -1 => (k.hand === k.eye ? 1 : -1);

/** The other hand, over the head, its middle finger at the roots of the upper lashes. */
export const handAbove = (k: Kit, [x, y]: Point): string =>
  hand(k, {
    at: [x + 12, y - 130],
    turn: 184,
    scale: 1.92,
    flip: true,
    middle: { to: [x, y - 1], bow: 0.02 },
    index: { to: [x - 42, y - 34], bow: 0.03 },
    ring: { to: [x + 38, y - 28], bow: -0.02 },
    little: { to: [x + 72, y - 52] },
    thumb: 'off',
  });

/** The working hand from below: its middle finger on the lower lid, its forefinger free, or where it is told. */
export const handBelow = (k: Kit, middle: Point, index: { readonly to: Point; readonly bow?: number; readonly dir?: number } | null): string =>
  hand(k, {
    at: [middle[0] - 14, middle[1] + 93],
    turn: 4,
    scale: 1.9,
    middle: { to: middle, bow: 0.02 },
    index: index ? { bow: -0.06, view: 'nail', ...index } : 'curl',
    ring: 'curl',
    little: 'curl',
    thumb: 'curl',
    over: ['little', 'ring', 'index'],
  });

/** A fingertip held up, its pad to the reader. */
export const fingertip = (k: Kit, [x, y]: Point, width = 56): string => drawFinger(k, { tip: [x, y], base: [x - 6, y + 150], width, view: 'pad' });

/** Forefinger and thumb at a lens, pad to pad. */
export const pinch = (k: Kit, [x, y]: Point, gap: number): string =>
  drawFinger(k, { tip: [x + gap, y], base: [x + 62, y + 170], width: 40, view: 'side', bow: 0.1, dir: -36 }) +
  drawFinger(k, { tip: [x - gap, y + 2], base: [x - 82, y + 150], width: 44, view: 'edge', bow: -0.1, dir: 38, thumb: true });

/** An open palm that holds something in its hollow. */
export const openPalm = (k: Kit, at: Point, turn = 80, scale = 1.5): string =>
  hand(k, {
    at,
    turn,
    scale,
    palm: true,
    arm: 140,
    thumb: { to: [at[0] - 8, at[1] - 82 * (scale / 1.5)], bow: 0.04 },
    index: { length: 60 },
    middle: { length: 70 },
    ring: { length: 64 },
    little: { length: 46 },
  });
