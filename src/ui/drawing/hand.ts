import { add, blob, f, line, smooth, xy, type Kit, type Point } from './ink';
import { finger, type Finger, type FingerView } from './finger';

const DIGITS = ['index', 'middle', 'ring', 'little', 'thumb'] as const;
type Digit = (typeof DIGITS)[number];

/** What a finger does: it is bent away, hidden, or goes where it is told. */
export type DigitPose =
  | 'curl'
  | 'off'
  | {
      /** Where its tip goes, in the scene. */
      readonly to?: Point;
      /** Or straight out: how long, and how many degrees aside. */
      readonly length?: number;
      readonly spread?: number;
      readonly bow?: number;
      readonly view?: FingerView;
      readonly dir?: number;
    };

export interface HandPose extends Partial<Readonly<Record<Digit, DigitPose>>> {
  /** Middle of the knuckles. */
  readonly at: Point;
  /** Turned so many degrees; 0 with the fingers up. */
  readonly turn?: number;
  /** A finger is 21 × this wide. */
  readonly scale?: number;
  /** The other hand: fingers up, a right hand is seen from its back with the thumb on the left. */
  readonly flip?: boolean;
  readonly palm?: boolean;
  readonly arm?: number;
  /** Fingers drawn on top of the hand, in this order. */
  readonly over?: readonly Digit[];
}

/** Knuckle and tip of each finger of a hand at rest, from the middle of the knuckles. */
const REST: Readonly<Record<Digit, { readonly base: Point; readonly tip: Point; readonly bow: number }>> = {
  index: { base: [-30, 0], tip: [-36, -72], bow: -0.03 },
  middle: { base: [-9, -7], tip: [-10, -88], bow: 0.01 },
  ring: { base: [12, -4], tip: [16, -80], bow: 0.01 },
  little: { base: [31, 7], tip: [40, -50], bow: 0.05 },
  thumb: { base: [-19, 66], tip: [-74, 6], bow: -0.1 },
};
const PALM: readonly Point[] = [
  [-41, 6],
  [-24, -8],
  [-8, -11],
  [12, -9],
  [30, -1],
  [42, 16],
  [43, 46],
  [38, 76],
  [33, 106],
  [31, 140],
];
/** Lines between fingers. */
const WEBS: readonly (readonly [Point, Point, Digit, Digit])[] = [
  [[-20, -8], [-21, -22], 'index', 'middle'],
  [[2, -10], [2, -26], 'middle', 'ring'],
  [[23, -3], [24, -17], 'ring', 'little'],
];
const PALM_LINES: readonly (readonly Point[])[] = [
  [
    [-36, 22],
    [-14, 34],
    [-4, 56],
    [-8, 84],
  ],
  [
    [40, 22],
    [18, 15],
    [-6, 12],
  ],
];

type Place = (p: Point) => Point;

function digitOf(k: Kit, name: Digit, pose: HandPose, place: Place, mirrored: 1 | -1): Finger {
  const { scale = 1, palm = false } = pose;
  const wanted = pose[name];
  const rest = REST[name];
  const thumb = name === 'thumb';
  const base = place(add(rest.base, [0, 8]));
  const width = 21 * scale * (name === 'little' ? 0.86 : thumb ? 1.14 : 1);
  const view: FingerView = palm ? 'pad' : 'nail';
  if (wanted === 'curl') {
    const tip: Point = thumb ? [-50, 26] : add(rest.base, [name === 'index' ? 9 : name === 'little' ? -5 : 0, -34 + Math.abs(rest.base[0]) * 0.18]);
    return finger(k, { base, tip: place(tip), width, thumb, view: thumb ? view : 'knuckle', bow: (thumb ? -0.12 : rest.bow) * mirrored });
  }
  const told = typeof wanted === 'object' ? wanted : {};
  const aside = ((told.spread ?? 0) * Math.PI) / 180;
  const straight = told.length === undefined ? place(rest.tip) : place(add(rest.base, [Math.sin(aside) * told.length, -Math.cos(aside) * told.length]));
  return finger(k, {
    ...{ base, width, thumb, tip: told.to ?? straight, view: told.view ?? view, bow: told.bow ?? rest.bow * mirrored },
    ...(told.dir === undefined ? {} : { dir: told.dir }),
  });
}

/** Webs between fingers, and the palm's or the knuckles' lines. */
function marksOf(k: Kit, pose: HandPose, place: Place, shown: ReadonlySet<Digit>): string {
  const curve = (points: readonly Point[]): string => line(k, smooth(points.map(place), false), { width: k.thin, colour: k.inner });
  const webs = WEBS.filter(([, , a, b]) => shown.has(a) && shown.has(b)).map(([from, to]) =>
    line(k, `M${xy(place(from))}L${xy(place(to))}`, { width: k.thin * 1.2, colour: k.inner }),
  );
  const knuckles = (['index', 'middle', 'ring', 'little'] as const)
    .filter((name) => pose[name] !== 'off' && pose[name] !== 'curl')
    .map((name) => {
      const [x, y] = REST[name].base;
      return curve([
        [x - 6, y + 12],
        [x, y + 9],
        [x + 6, y + 12],
      ]);
    });
  return webs.join('') + (pose.palm ? PALM_LINES.map(curve) : knuckles).join('');
}

/** A whole hand, its fingertips where they are told to be. */
export function hand(k: Kit, pose: HandPose): string {
  const { at, turn = 0, scale = 1, flip = false, palm = false, arm = 60, over = [] } = pose;
  const mirrored = flip === palm ? 1 : -1;
  const r = (turn * Math.PI) / 180;
  const place: Place = ([px, py]) => {
    const [x, y] = [px * mirrored * scale, py * scale];
    return [at[0] + x * Math.cos(r) - y * Math.sin(r), at[1] + x * Math.sin(r) + y * Math.cos(r)];
  };
  const drawn = DIGITS.filter((name) => pose[name] !== 'off').map((name) => ({ name, made: digitOf(k, name, pose, place, mirrored) }));
  const under = drawn.filter(({ name }) => !over.includes(name));
  const outline: readonly Point[] = [...PALM, [33, 124 + arm], [-29, 124 + arm], [-27, 140], [-29, 108], [-37, 82], [-43, 50]];
  const palmPath = smooth(outline.map(place));
  const body = blob(k, [...under.map(({ made }) => made.path), palmPath]) + under.map(({ made }) => made.inside).join('');
  const onTop = over.map((name) => {
    const found = drawn.find((d) => d.name === name);
    if (!found) return '';
    const [x, y] = place(add(REST[name].base, [0, 8]));
    const root = found.made.width * (pose[name] === 'curl' ? 0.78 : 0.66);
    return `${blob(k, [found.made.path])}<circle cx="${f(x)}" cy="${f(y)}" r="${f(root)}" fill="${k.wash.skin}"/>${found.made.inside}`;
  });
  return body + marksOf(k, pose, place, new Set(under.map(({ name }) => name))) + onTop.join('');
}
