import { between, f, flipped, INK, IRISES, line, onCurve, STOP, WHITE, xy, type Kit, type Point } from './ink';

/** A soft lens from the front. Its place is in mm from the middle of the pupil, + to the nose and down. */
export interface WornLens {
  readonly dx?: number;
  readonly dy?: number;
  /** Degrees at which its mark stands from 6 o'clock; none where null. */
  readonly mark?: number | null;
  readonly flatten?: number;
}
export interface EyePose {
  readonly at?: Point;
  /** From corner to corner (29 mm). */
  readonly width?: number;
  /** 0 closed, 0.62 at ease, 1 held open. */
  readonly open?: number;
  /** −1 to 1: + to the nose, and down. */
  readonly gaze?: Point;
  readonly lens?: WornLens | null;
  /** Where the lens was before, mm. */
  readonly ghost?: Point | null;
  readonly red?: boolean;
  readonly brow?: boolean;
  readonly nose?: boolean;
  /** The outer corner drawn aside. */
  readonly pull?: number;
  readonly liftUpper?: number;
  readonly dropLower?: number;
}
/** An eye, and where fingers hold it. */
export interface Eyelids {
  readonly drawn: string;
  /** Points of the lash lines, t 0 at the outer corner, 1 at the inner. */
  readonly upper: (t: number) => Point;
  readonly lower: (t: number) => Point;
  /** Middle of the pupil. */
  readonly pupil: Point;
  readonly mm: number;
}

/** Iris, lens: mm. */
const IRIS_RADIUS = 5.9;
const LENS_RADIUS = 7.1;

/** A lens from the front: a ring, hardly lighter inside. */
export function lensFace(k: Kit, [x, y]: Point, r: number, look: { mark?: number | null; fill?: number; flatten?: number } = {}): string {
  const { mark = null, fill = 0.1, flatten = 1 } = look;
  const marked =
    mark === null ? '' : `<path transform="rotate(${mark})" d="M0 ${f(r * 0.72)}V${f(r * 0.96)}" stroke="${INK}" stroke-width="${f(k.ink * 1.1)}"/>`;
  return `<g transform="translate(${f(x)} ${f(y)}) scale(1 ${flatten})"><circle r="${f(r)}" fill="#fff" fill-opacity="${fill}" stroke="${INK}" stroke-width="${f(k.ink)}"/>${marked}</g>`;
}

type Curve = readonly [Point, Point, Point, Point];
const pathOf = (c: Curve): string => `${xy(c[0])}C${xy(c[1])},${xy(c[2])},${xy(c[3])}`;
const backOf = (c: Curve): string => `C${xy(c[2])},${xy(c[1])},${xy(c[0])}Z`;

const noseOf = (k: Kit, [x, y]: Point, w: number): string =>
  line(
    k,
    `M${f(x + w * 0.78)} ${f(y - w * 0.52)}C${f(x + w * 0.66)} ${f(y - w * 0.2)},${f(x + w * 0.7)} ${f(y + w * 0.2)},${f(x + w * 0.86)} ${f(y + w * 0.62)}C${f(x + w * 0.9)} ${f(y + w * 0.74)},${f(x + w * 0.88)} ${f(y + w * 0.82)},${f(x + w * 0.82)} ${f(y + w * 0.84)}`,
    { opacity: 0.75 },
  );

function browOf(k: Kit, [x, y]: Point, w: number): string {
  let hairs = '';
  for (let i = 0; i < 22; i++) {
    const t = i / 21;
    const from: Point = [x + w * between(0.58, -0.66, t), y - w * (0.5 + 0.13 * Math.sin(Math.PI * (0.06 + t * 0.66))) + t * t * w * 0.07];
    hairs += `M${f(from[0])} ${f(from[1] + w * 0.03)}l${f(-w * between(0.01, 0.075, t))} ${f(-w * between(0.085, 0.03, t))}`;
  }
  return line(k, hairs, { width: k.ink * 0.9, opacity: 0.7 });
}

function irisOf(k: Kit, [x, y]: Point, r: number, [gx, gy]: Point): string {
  let rays = '';
  for (let i = 0; i < 36; i++) {
    const a = (i * 10 * Math.PI) / 180;
    const [from, to] = [r * (0.5 + ((i * 7) % 5) / 40), r * (0.74 + ((i * 11) % 7) / 44)];
    rays += `M${f(Math.cos(a) * from)} ${f(Math.sin(a) * from)}L${f(Math.cos(a) * to)} ${f(Math.sin(a) * to)}`;
  }
  return `<g transform="translate(${f(x)} ${f(y)}) scale(${(1 - Math.abs(gx) * 0.12).toFixed(3)} ${(1 - Math.abs(gy) * 0.12).toFixed(3)})"><circle r="${f(r)}" fill="${IRISES[k.iris]}" stroke="${INK}" stroke-width="${f(k.ink)}"/><path d="${rays}" stroke="${INK}" stroke-width="${f(k.ink * 0.36)}" opacity=".55"/><circle r="${f(r * 0.37)}" fill="${INK}"/><path d="M${f(-r * 0.17)} ${f(-r * 0.16)}v${f(-r * 0.1)}" stroke="${WHITE}" stroke-width="${f(r * 0.09)}"/></g>`;
}

function vesselsOf(k: Kit, [x, y]: Point, r: number): string {
  let drawn = '';
  for (let i = 0; i < 15; i++) {
    const a = (i * 24.4 * Math.PI) / 180;
    const out = r * (1.75 + ((i * 37) % 10) / 16) * 1.25;
    const from: Point = [x + Math.cos(a + 0.07) * out, y + Math.sin(a + 0.07) * out];
    const to: Point = [x + Math.cos(a) * r * 1.12, y + Math.sin(a) * r * 1.12];
    drawn += `M${xy(from)}Q${f((from[0] + to[0]) / 2 + 4)} ${f((from[1] + to[1]) / 2 - 4)},${xy(to)}`;
  }
  return line(k, drawn, { colour: STOP, width: k.thin });
}

/** Lashes of an open lid. */
function lashesOf(k: Kit, lid: Curve, w: number, upper: boolean): string {
  let drawn = '';
  const count = upper ? 13 : 9;
  for (let i = 0; i < count; i++) {
    const t = upper ? 0.07 + (i / 12) * 0.8 : 0.14 + (i / 8) * 0.66;
    const from = onCurve(lid, t);
    drawn += upper
      ? `M${xy(from)}q${f((t - 0.55) * w * 0.05)} ${f(-w * 0.05)} ${f((t - 0.58) * w * 0.2)} ${f(-w * 0.095)}`
      : `M${xy(from)}q${f((t - 0.5) * w * 0.02)} ${f(w * 0.02)} ${f((t - 0.5) * w * 0.09)} ${f(w * 0.042)}`;
  }
  return line(k, drawn, { width: k.ink * (upper ? 0.75 : 0.6) });
}

/** A closed eye: one line, the lashes down. */
function closedEye(k: Kit, [x, y]: Point, w: number, outer: Point, inner: Point): { readonly drawn: string; readonly lid: Curve } {
  const lid: Curve = [outer, [x - w * 0.28, y + w * 0.13], [x + w * 0.22, y + w * 0.15], inner];
  let lashes = '';
  for (let i = 0; i < 12; i++) {
    const t = 0.08 + (i / 11) * 0.76;
    lashes += `M${xy(onCurve(lid, t))}q${f((t - 0.55) * 5)} ${f(w * 0.04)} ${f((t - 0.6) * w * 0.16)} ${f(w * 0.085)}`;
  }
  const fold = (half: number, from: number, over: number, to: number): string =>
    `M${f(x - w * half)} ${f(y - w * from)}C${f(x - w * half * 0.45)} ${f(y - w * over)},${f(x + w * half * 0.5)} ${f(y - w * over)},${f(x + w * half)} ${f(y - w * to)}`;
  return {
    lid,
    drawn:
      line(k, `M${pathOf(lid)}`, { width: k.ink * 1.1 }) +
      line(k, lashes, { width: k.ink * 0.75 }) +
      line(k, fold(0.44, 0.1, 0.25, 0.05), { width: k.thin, opacity: 0.7 }) +
      line(k, fold(0.3, 0.02, 0.1, 0), { width: k.thin, opacity: 0.3 }),
  };
}

/** What is seen between the lids. */
function betweenLids(k: Kit, pose: EyePose, pupil: Point, mm: number): string {
  const { gaze = [0, 0], lens = null, ghost = null, red = false } = pose;
  const at = (dx: number, dy: number): Point => [pupil[0] + dx * mm, pupil[1] + dy * mm];
  return (
    (red ? vesselsOf(k, pupil, IRIS_RADIUS * mm) : '') +
    irisOf(k, pupil, IRIS_RADIUS * mm, gaze) +
    (ghost
      ? `<circle cx="${f(at(...ghost)[0])}" cy="${f(at(...ghost)[1])}" r="${f(LENS_RADIUS * mm)}" fill="none" stroke="${INK}" stroke-width="${f(k.thin)}" stroke-dasharray="5 4"/>`
      : '') +
    (lens ? lensFace(k, at(lens.dx ?? 0, lens.dy ?? 0), LENS_RADIUS * mm, { mark: lens.mark ?? null, flatten: lens.flatten ?? 1 }) : '')
  );
}

/** A right eye from the front. Everything on it is to scale: opening 29 mm, iris 11.8, lens 14.2. */
export function eyeFront(k: Kit, pose: EyePose = {}): Eyelids {
  const { at = [160, 92], width: w = 150, open = 0.62, gaze = [0, 0], brow = true, nose = true, pull = 0, liftUpper = 0, dropLower = 0 } = pose;
  const [x, y] = at;
  const mm = w / 29;
  const follows = (much: number): number => (open > 0.2 ? gaze[1] * much : 0);
  const up = between(0.075, -0.3, open) + follows(0.05) - liftUpper;
  const low = between(0.095, 0.2, open) + follows(0.035) + dropLower;
  const outer: Point = [x - w * 0.5 - pull * w * 0.1, y - w * 0.035 - pull * w * 0.02];
  const inner: Point = [x + w * 0.5, y + w * 0.045];
  const around = (nose ? noseOf(k, at, w) : '') + (brow ? browOf(k, at, w) : '');
  const pupil: Point = [x + gaze[0] * w * 0.2, y - w * 0.03 + gaze[1] * w * 0.17];
  if (open <= 0.12) {
    const { drawn, lid } = closedEye(k, at, w, outer, inner);
    const onLid = (t: number): Point => onCurve(lid, t);
    return { drawn: around + drawn, upper: onLid, lower: onLid, pupil, mm };
  }
  const upper: Curve = [outer, [x - w * 0.3, y + up * 1.32 * w], [x + w * 0.2, y + up * 1.36 * w], inner];
  const lower: Curve = [outer, [x - w * 0.26, y + low * 1.36 * w], [x + w * 0.22, y + low * 1.22 * w], inner];
  const opening = `M${pathOf(upper)}${backOf(lower)}`;
  const name = k.name();
  const creases =
    line(
      k,
      `M${f(outer[0] + w * 0.02)} ${f(y + (up * 0.5 - 0.1) * w)}C${f(x - w * 0.3)} ${f(y + (up * 1.22 - 0.1) * w)},${f(x + w * 0.2)} ${f(y + (up * 1.24 - 0.11) * w)},${f(inner[0] - w * 0.04)} ${f(y - w * 0.09)}`,
      { width: k.thin, opacity: 0.75 },
    ) +
    line(
      k,
      `M${f(x - w * 0.34)} ${f(y + (low * 0.9 + 0.1) * w)}C${f(x - w * 0.1)} ${f(y + (low + 0.15) * w)},${f(x + w * 0.18)} ${f(y + (low + 0.15) * w)},${f(x + w * 0.4)} ${f(y + (low * 0.6 + 0.1) * w)}`,
      { width: k.thin, opacity: 0.5 },
    );
  const innerCorner = `<path d="M${xy(inner)}q${f(-w * 0.04)} ${f(-w * 0.05)} ${f(-w * 0.085)} ${f(-w * 0.005)}q${f(w * 0.03)} ${f(w * 0.055)} ${f(w * 0.085)} ${f(w * 0.005)}Z" fill="${k.wash.pink}" stroke="${INK}" stroke-width="${f(k.thin * 0.8)}"/>`;
  const raised = ([px, py]: Point): Point => [px, py - w * 0.04];
  const lidEdge = line(k, `M${pathOf([lower[0], raised(lower[1]), raised(lower[2]), lower[3]])}`, { width: k.thin * 0.8, opacity: 0.55 });
  return {
    drawn:
      around +
      creases +
      `<defs><clipPath id="${name}"><path d="${opening}"/></clipPath></defs><path d="${opening}" fill="${pose.red ? '#F6D9CD' : WHITE}"/>` +
      `<g clip-path="url(#${name})">${betweenLids(k, pose, pupil, mm)}${innerCorner}${lidEdge}</g>` +
      line(k, opening, { width: k.ink * 1.05 }) +
      lashesOf(k, upper, w, true) +
      lashesOf(k, lower, w, false),
    upper: (t) => onCurve(upper, t),
    lower: (t) => onCurve(lower, t),
    pupil,
    mm,
  };
}

/** The eye of a scene, mirrored where a left one is drawn; the lids are told to the hand in the hand's own frame. */
export function eyeOf(k: Kit, middle: number, pose: EyePose): Eyelids {
  // Facing the reader a mark stays on the examiner's side of the lens, whichever eye wears it; in a mirror it changes sides with all else.
  const lens = pose.lens?.mark != null && k.wearersEye === 'left' ? { ...pose.lens, mark: -pose.lens.mark } : pose.lens;
  const made = eyeFront(k, { at: [middle, 95], ...pose, ...(lens === undefined ? {} : { lens }) });
  const crossed = k.eye !== k.hand;
  const told = ([x, y]: Point): Point => (crossed ? [2 * middle - x, y] : [x, y]);
  return {
    drawn: k.eye === 'left' ? flipped(middle, made.drawn) : made.drawn,
    upper: (t) => told(made.upper(crossed ? 1 - t : t)),
    lower: (t) => told(made.lower(crossed ? 1 - t : t)),
    pupil: told(made.pupil),
    mm: made.mm,
  };
}
