import type { Eye } from '@/core';

/** A point of a drawing: right and down, in drawing units. */
export type Point = readonly [number, number];

export const INK = '#211B14';
export const PAPER = '#FCF9F2';
export const WHITE = '#FFFDF8';
export const STOP = '#9C2415';
export const FINE = '#245C34';
/** What is neither skin nor white: labels, lids of cases, cloth. */
export const SAND = '#EDE4D2';
export const FLUID = '#E3E6DA';

/** Skin as it is drawn: wash, nail, the pink of the inner corner; the line inside a hand where ink would not show. */
export interface Tone {
  readonly skin: string;
  readonly nail: string;
  readonly pink: string;
  readonly line?: string;
}
export const SKIN_TONES = [1, 2, 3, 4, 5, 6, 7] as const;
export type SkinTone = (typeof SKIN_TONES)[number];
export const TONES: Readonly<Record<SkinTone, Tone>> = {
  1: { skin: '#F6E4D0', nail: '#FFFBF4', pink: '#E9B7A0' },
  2: { skin: '#EFCFAE', nail: '#FFF3E6', pink: '#DE9F86' },
  3: { skin: '#DCB08A', nail: '#F7E0CB', pink: '#C98B70' },
  4: { skin: '#C4926A', nail: '#EFD2B8', pink: '#B67860' },
  5: { skin: '#A8774F', nail: '#E2BF9F', pink: '#A06650' },
  6: { skin: '#90623F', nail: '#D6AF8E', pink: '#8D5543' },
  7: { skin: '#66422B', nail: '#C29A7C', pink: '#7E463A', line: '#E3C7AC' },
};
export const IRISES = { brown: '#8B6A45', hazel: '#C0A672', grey: '#B4B2A6', dark: '#5F4529' } as const;
export type IrisColour = keyof typeof IRISES;

/** Words that stand in a drawing, in the language of whoever looks at it. */
export interface DrawingWords {
  readonly right: string;
  readonly left: string;
  readonly soap: string;
  readonly basket: string;
  readonly disc: string;
  readonly call: readonly [string, string];
}

/** What every part of a drawing needs to know; see `makeKit`. */
export interface Kit {
  /** The hand and the eye that are drawn: as told, or their mirror images. */
  readonly hand: Eye;
  readonly eye: Eye;
  /** The wearer's own eye that is meant, also where its mirror image is drawn. */
  readonly wearersEye: Eye;
  /** Which side of the picture is the wearer's left: −1 the left (a mirror), 1 the right (face to face). */
  readonly wearersLeft: 1 | -1;
  readonly tone: SkinTone;
  readonly iris: IrisColour;
  /** Ink line, in drawing units. */
  readonly ink: number;
  /** Line of what lies inside an outline. */
  readonly thin: number;
  readonly wash: Tone;
  /** Colour of lines inside a hand. */
  readonly inner: string;
  readonly words: DrawingWords;
  /** A name for something in this drawing that another part of it points to; the same in every run. */
  readonly name: () => string;
}

/** A tenth of a unit is the least that is seen. */
export const f = (n: number): string => n.toFixed(1).replace(/^-0\.0$/, '0.0');
export const xy = ([x, y]: Point): string => `${f(x)} ${f(y)}`;
export const add = (a: Point, b: Point, times = 1): Point => [a[0] + b[0] * times, a[1] + b[1] * times];
export const between = (a: number, b: number, t: number): number => a + (b - a) * t;

/** A point of a cubic curve, t from 0 to 1. */
export function onCurve(curve: readonly [Point, Point, Point, Point], t: number): Point {
  const u = 1 - t;
  const at = (i: 0 | 1): number => u * u * u * curve[0][i] + 3 * u * u * t * curve[1][i] + 3 * u * t * t * curve[2][i] + t * t * t * curve[3][i];
  return [at(0), at(1)];
}

/** A smooth path through points (Catmull–Rom). */
export function smooth(points: readonly Point[], closed = true): string {
  const n = points.length;
  const at = (i: number): Point => points[closed ? (i + n) % n : Math.max(0, Math.min(n - 1, i))] ?? [0, 0];
  let path = `M${xy(at(0))}`;
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [p0, p1, p2, p3] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    path += `C${f(p1[0] + (p2[0] - p0[0]) / 6)} ${f(p1[1] + (p2[1] - p0[1]) / 6)},${f(p2[0] - (p3[0] - p1[0]) / 6)} ${f(p2[1] - (p3[1] - p1[1]) / 6)},${xy(p2)}`;
  }
  return closed ? `${path}Z` : path;
}

export interface LineLook {
  readonly width?: number;
  readonly fill?: string;
  readonly fillOpacity?: number;
  readonly colour?: string;
  readonly dash?: string;
  readonly opacity?: number;
}
/** One path in ink. */
export const line = (k: Pick<Kit, 'ink'>, path: string, look: LineLook = {}): string =>
  `<path d="${path}" fill="${look.fill ?? 'none'}"${look.fillOpacity === undefined ? '' : ` fill-opacity="${look.fillOpacity}"`} stroke="${look.colour ?? INK}" stroke-width="${f(look.width ?? k.ink)}" stroke-linecap="round" stroke-linejoin="round"${look.dash ? ` stroke-dasharray="${look.dash}"` : ''}${look.opacity === undefined ? '' : ` opacity="${look.opacity}"`}/>`;

/** A thing with an outline, white unless said otherwise. */
export const shape = (k: Pick<Kit, 'ink'>, path: string, look: LineLook = {}): string => line(k, path, { fill: WHITE, ...look });

/** Silhouettes as one: one outer line of ink, no seams inside. */
export const blob = (k: Kit, paths: readonly string[]): string => {
  const all = paths.map((d) => `<path d="${d}"/>`).join('');
  return `<g fill="${INK}" stroke="${INK}" stroke-width="${f(k.ink * 2)}" stroke-linejoin="round">${all}</g><g fill="${k.wash.skin}">${all}</g>`;
};

/** The mirror image about an upright line at x. */
export const flipped = (x: number, drawn: string): string => `<g transform="translate(${2 * x} 0) scale(-1 1)">${drawn}</g>`;

/** Words in a drawing. `middle`: y is the line's foot. */
export const text = (x: number, y: number, words: string, size: number, anchor: 'start' | 'middle' | 'end' = 'middle', look = ''): string =>
  `<text x="${f(x)}" y="${f(y)}" text-anchor="${anchor}" font-family="Keen Sans" font-size="${size}" font-weight="660" fill="${INK}"${look ? ` ${look}` : ''}>${lowered(escaped(words))}</text>`;

/** A small two below the line is set, not asked of a font: few have it. */
const lowered = (words: string): string => words.replaceAll(/₂(.?)/gu, '<tspan dy="3" font-size="70%">2</tspan><tspan dy="-3">$1</tspan>');

const escaped = (words: string): string => words.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

export interface KitOptions {
  /** The hand that works. */
  readonly hand?: Eye;
  readonly eye?: Eye;
  /** As whoever examines sees the wearer, or as the wearer sees themselves in a mirror. */
  readonly view?: 'facing' | 'mirror';
  readonly tone?: SkinTone;
  readonly iris?: IrisColour;
  readonly ink?: number;
  readonly words: DrawingWords;
  /** Begins the names within the drawing: two drawings of a page must not share one. */
  readonly prefix: string;
}

const other = (side: Eye): Eye => (side === 'right' ? 'left' : 'right');

/**
 * What every part of a drawing needs. All is drawn for a right hand and a right eye that faces the reader (nose to the
 * right) and mirrored from there; hand and eye separately, because the same hand does both eyes.
 */
export function makeKit({ hand = 'right', eye = 'right', view = 'facing', tone = 2, iris = 'hazel', ink = 2.4, words, prefix }: KitOptions): Kit {
  const seen = (side: Eye): Eye => (view === 'mirror' ? other(side) : side);
  const wash = TONES[tone];
  let names = 0;
  return {
    hand: seen(hand),
    eye: seen(eye),
    wearersEye: eye,
    wearersLeft: view === 'mirror' ? -1 : 1,
    tone,
    iris,
    ink,
    thin: ink * 0.58,
    wash,
    inner: wash.line ?? INK,
    words,
    name: () => `${prefix}${++names}`,
  };
}
