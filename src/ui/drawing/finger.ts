import { add, between, blob, f, line, onCurve, smooth, type Kit, type Point } from './ink';

/** Which side of a finger is seen. `side`: the nail on the side of the bow; `edge`: on the other. */
export type FingerView = 'nail' | 'pad' | 'side' | 'edge' | 'knuckle';
export interface FingerPose {
  readonly tip: Point;
  readonly base: Point;
  /** Sideways swing of the knuckle as a part of the length, + to the right looking from tip to base. */
  readonly bow?: number;
  /** How the tip lies, degrees; 0 with the base straight below. */
  readonly dir?: number | null;
  readonly width?: number;
  readonly view?: FingerView;
  readonly thumb?: boolean;
}
export interface Finger {
  /** Its outline. */
  readonly path: string;
  /** Nail and creases. */
  readonly inside: string;
  readonly width: number;
}

interface Station {
  readonly at: Point;
  /** From the tip along the finger. */
  readonly s: number;
  readonly along: Point;
  readonly across: Point;
}
interface Measures {
  readonly length: number;
  readonly width: number;
  readonly view: FingerView;
  readonly thumb: boolean;
  /** Where the two joints are, from the tip: at real distances, foreshortened in a short finger. */
  readonly first: number;
  readonly second: number;
}
const clamp = (n: number): number => Math.max(0, Math.min(1, n));

/** Half the finger's width at a distance from its tip. @param side 1 or −1: left or right of it looking from tip to base */
function halfWidth({ length, width: w, view, thumb, first, second }: Measures, s: number, side: 1 | -1): number {
  const middle = first + (second - first) * 0.5;
  let r = between(0.46, 0.5, Math.min(1, s / first));
  if (s > first) r = between(0.5, 0.47, Math.min(1, ((s - first) / (second - first)) * 1.6));
  if (s > middle) r = between(0.47, 0.515, Math.min(1, (s - middle) / ((second - first) * 0.5)));
  if (s > second) r = between(0.515, 0.54, (s - second) / Math.max(1, length - second));
  const e = clamp((s - first * 0.75) / (first * 0.8));
  const eased = e * e * (3 - 2 * e);
  if (thumb) r *= between(1.04, 0.97, eased);
  if (view === 'side' || view === 'edge') r *= between(side === (view === 'side' ? -1 : 1) ? 0.86 : 1.08, 1, eased);
  const cap = w * (thumb ? 0.66 : 0.62);
  if (s < cap) r *= Math.pow(1 - Math.pow(1 - s / cap, 2.3), 1 / 2.3);
  return r * w;
}

function stationsAlong(curve: readonly [Point, Point, Point, Point]): readonly Station[] {
  const count = 64;
  const stations: Station[] = [];
  let [before, s] = [curve[0], 0];
  for (let i = 0; i <= count; i++) {
    const t = Math.pow(i / count, 1.25);
    const at = onCurve(curve, t);
    const [a, b] = [onCurve(curve, Math.max(0, t - 0.004)), onCurve(curve, Math.min(1, t + 0.004))];
    s += Math.hypot(at[0] - before[0], at[1] - before[1]);
    before = at;
    const h = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const along: Point = [(b[0] - a[0]) / h, (b[1] - a[1]) / h];
    stations.push({ at, s, along, across: [-along[1], along[0]] });
  }
  return stations;
}

/** Nail and creases, by what of the finger is seen. */
function insideOf(k: Kit, m: Measures, at: (s: number, aside: number) => Point): string {
  const { width: w, length, view, thumb, first, second } = m;
  const crease = (s: number, half: number, sag: number): string =>
    line(
      k,
      `M${f(at(s, -w * half)[0])} ${f(at(s, -w * half)[1])}Q${f(at(s + w * sag, 0)[0])} ${f(at(s + w * sag, 0)[1])},${f(at(s, w * half)[0])} ${f(at(s, w * half)[1])}`,
      {
        width: k.thin,
        colour: k.inner,
      },
    );
  const stroke = (a: Point, b: Point): string => line(k, `M${f(a[0])} ${f(a[1])}L${f(b[0])} ${f(b[1])}`, { width: k.thin, colour: k.inner });
  const nail = (points: readonly (readonly [number, number])[]): string =>
    line(k, smooth(points.map(([s, aside]) => at(w * s, w * aside))), { fill: k.wash.nail, width: k.thin * 1.05 });
  switch (view) {
    case 'nail': {
      const q = thumb ? 1.06 : 1;
      const half = [
        [0.2, 0.2],
        [0.36, 0.27],
        [0.62 * q, 0.26],
        [0.78 * q, 0.13],
      ] as const;
      const whole = nail([[0.16 * q, 0], ...half, [0.8 * q, 0], ...half.toReversed().map(([s, aside]) => [s, -aside] as const)]);
      return (
        whole +
        (length > w * 1.5 ? crease(first + w * 0.12, 0.2, 0.1) + crease(first + w * 0.28, 0.15, 0.08) : '') +
        (length > w * 2.7 ? crease(second, 0.24, 0.12) + crease(second + w * 0.17, 0.18, 0.1) : '')
      );
    }
    case 'pad':
      return (length > w * 1.3 ? crease(first, 0.34, 0.06) : '') + (length > w * 2.5 ? crease(second, 0.36, 0.06) + crease(second + w * 0.16, 0.28, 0.06) : '');
    case 'side':
    case 'edge': {
      const g = view === 'side' ? -1 : 1;
      return (
        nail([
          [0.1, g * 0.2],
          [0.2, g * 0.37],
          [0.45, g * 0.43],
          [0.78, g * 0.4],
          [0.72, g * 0.26],
          [0.4, g * 0.26],
        ]) +
        (length > w * 1.5 ? stroke(at(first, -g * w * 0.46), at(first + w * 0.04, -g * w * 0.12)) : '') +
        (length > w * 2.7 ? stroke(at(second, -g * w * 0.48), at(second + w * 0.05, -g * w * 0.1)) : '')
      );
    }
    case 'knuckle':
      return crease(Math.min(w * 0.62, length * 0.5), 0.22, -0.14) + crease(Math.min(w * 0.8, length * 0.6), 0.16, -0.1);
  }
}

/** A finger from where its tip touches to where it comes from. */
export function finger(k: Kit, { tip, base, bow = 0, dir = null, width: w = 40, view = 'nail', thumb = false }: FingerPose): Finger {
  const [dx, dy] = [base[0] - tip[0], base[1] - tip[1]];
  const length = Math.hypot(dx, dy);
  const u: Point = [dx / length, dy / length];
  const aside: Point = [-u[1], u[0]];
  const angle = ((dir ?? 0) * Math.PI) / 180;
  const leaves: Point = dir === null ? u : [-Math.sin(angle), Math.cos(angle)];
  const stations = stationsAlong([
    tip,
    add(add(tip, leaves, length * 0.36), aside, -bow * length * 0.9),
    add(add(tip, u, length * 0.66), aside, -bow * length * 1.1),
    base,
  ]);
  const measures = {
    ...{ length, width: w, view, thumb },
    first: Math.min(thumb ? w * 1.2 : w * 1.02, length * 0.42),
    second: Math.min(thumb ? w * 2.6 : w * 2.1, length * 0.78),
  };
  const edge = (side: 1 | -1): Point[] => stations.map((m) => add(m.at, m.across, side * halfWidth(measures, m.s, side)));
  const at = (s: number, off: number): Point => {
    const near = stations.reduce((a, b) => (Math.abs(b.s - s) < Math.abs(a.s - s) ? b : a));
    return add(add(near.at, near.along, s - near.s), near.across, off);
  };
  return { path: smooth([...edge(1).slice(1).reverse(), tip, ...edge(-1).slice(1)]), inside: insideOf(k, measures, at), width: w };
}

/** A finger by itself. */
export function drawFinger(k: Kit, pose: FingerPose): string {
  const made = finger(k, pose);
  return blob(k, [made.path]) + made.inside;
}
