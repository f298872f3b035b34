import { f, FLUID, INK, line, PAPER, SAND, shape, smooth, text, xy, type Kit, type Point } from './ink';
import { octagon } from './signs';

const moved = ([x, y]: Point, turn: number, scale: number, drawn: string): string =>
  `<g transform="translate(${f(x)} ${f(y)}) rotate(${turn}) scale(${scale})">${drawn}</g>`;

/** A drop of water or solution. @param at its middle */
export const drop = (k: Kit, [x, y]: Point, r: number, ink = k.ink): string =>
  shape(
    k,
    `M${f(x)} ${f(y - r * 1.7)}C${f(x + r * 0.3)} ${f(y - r * 1.1)},${f(x + r)} ${f(y - r * 0.5)},${f(x + r)} ${f(y + r * 0.1)}A${f(r)} ${f(r)} 0 0 1 ${f(x - r)} ${f(y + r * 0.1)}C${f(x - r)} ${f(y - r * 0.5)},${f(x - r * 0.3)} ${f(y - r * 1.1)},${f(x)} ${f(y - r * 1.7)}Z`,
    { fill: '#fff', width: ink },
  );
/** Never water. */
export const noWater = (k: Kit, [x, y]: Point, r: number): string => drop(k, [x, y], r) + octagon([x, y - r * 0.05], r * 0.62);

/** A bottle, its spout at a point. @param look.turn degrees: 180 pours down */
export function bottle(k: Kit, at: Point, look: { height?: number; turn?: number; label?: string } = {}): string {
  const { height: h = 90, turn = 0, label = '' } = look;
  const w = h * 0.4;
  const neck = w * 0.36;
  const spout = shape(k, `M${f(-w * 0.1)} 0L${f(-neck * 0.5)} ${f(h * 0.14)}H${f(neck * 0.5)}L${f(w * 0.1)} 0Z`);
  const collar = shape(k, `M${f(-neck * 0.9)} ${f(h * 0.14)}H${f(neck * 0.9)}V${f(h * 0.26)}H${f(-neck * 0.9)}Z`);
  const side = (s: 1 | -1): string => `${f(s * w * 0.5)} ${f(h * 0.42)}`;
  const body = shape(
    k,
    `M${f(-neck * 0.8)} ${f(h * 0.26)}C${f(-w * 0.5)} ${f(h * 0.3)},${f(-w * 0.5)} ${f(h * 0.36)},${side(-1)}V${f(h * 0.97)}Q${f(-w * 0.5)} ${f(h)},${f(-w * 0.42)} ${f(h)}H${f(w * 0.42)}Q${f(w * 0.5)} ${f(h)},${f(w * 0.5)} ${f(h * 0.97)}V${f(h * 0.42)}C${f(w * 0.5)} ${f(h * 0.36)},${f(w * 0.5)} ${f(h * 0.3)},${f(neck * 0.8)} ${f(h * 0.26)}Z`,
  );
  const labelled = label
    ? `<g transform="translate(0 ${f(h * 0.68)})${Math.abs(turn) > 90 ? ' rotate(180)' : ''}"><rect x="${f(-w * 0.5)}" y="${f(-h * 0.13)}" width="${f(w)}" height="${f(h * 0.26)}" fill="${SAND}" stroke="${INK}" stroke-width="${f(k.thin)}"/>${text(0, h * 0.05, label, h * 0.15)}</g>`
    : '';
  return moved(at, turn, 1, spout + collar + body + labelled);
}

const WELL = 34;
const WELL_TALL = 13;

function well(k: Kit, cx: number, letter: string, fluid: number, lens: boolean): string {
  const level = 0.7 + 0.3 * fluid;
  return (
    `<ellipse cx="${cx}" cy="0" rx="${WELL}" ry="${WELL_TALL}" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/>` +
    (fluid > 0
      ? `<ellipse cx="${cx}" cy="${f(2.5 + (1 - fluid) * 4)}" rx="${f(WELL * 0.86 * level)}" ry="${f(WELL_TALL * 0.74 * level)}" fill="${FLUID}" stroke="${INK}" stroke-width="${f(k.thin * 0.8)}"/>`
      : '') +
    (lens
      ? `<path d="M${cx - 20} 0q20 13 40 0" fill="none" stroke="${INK}" stroke-width="${f(k.thin * 1.3)}"/><ellipse cx="${cx}" cy="0" rx="20" ry="5.4" fill="#fff" fill-opacity=".7" stroke="${INK}" stroke-width="${f(k.thin)}"/>`
      : '') +
    text(cx, 29, letter, 17)
  );
}

function wellLid(k: Kit, cx: number, letter: string, filled: boolean): string {
  const r = WELL + 3;
  return (
    shape(k, `M${cx - r} 4V-8A${r} ${WELL_TALL} 0 0 1 ${cx + r} -8V4A${r} ${WELL_TALL} 0 0 1 ${cx - r} 4Z`) +
    `<ellipse cx="${cx}" cy="-8" rx="${r}" ry="${WELL_TALL}" fill="${filled ? INK : '#fff'}" stroke="${INK}" stroke-width="${f(k.ink)}"/>` +
    text(cx, -2, letter, 18).replace(`fill="${INK}"`, `fill="${filled ? PAPER : INK}"`)
  );
}

export interface CaseLook {
  readonly scale?: number;
  /** 0 empty to 1 full. */
  readonly fluid?: number;
  readonly lens?: boolean;
  readonly lids?: boolean;
  readonly turn?: number;
}

/** An ordinary case from the front and above: the right well on the left, as it stands before its owner. */
export function lensCase(k: Kit, at: Point, look: CaseLook = {}): string {
  const { scale = 1, fluid = 1, lens = true, lids = false, turn = 0 } = look;
  const side = (cx: number, letter: string, filled: boolean): string =>
    shape(k, `M${cx - WELL} 0V26Q${cx - WELL} 36,${cx - WELL + 12} 37H${cx + WELL - 12}Q${cx + WELL} 36,${cx + WELL} 26V0`) +
    (lids ? wellLid(k, cx, letter, filled) : well(k, cx, letter, fluid, lens));
  return moved(at, turn, scale, shape(k, 'M-12 6H12V18H-12Z') + side(-42, k.words.right, true) + side(42, k.words.left, false));
}

/** The same, set down to dry with its openings below. */
export function caseUpsideDown(k: Kit, at: Point, scale = 1): string {
  const side = (cx: number, letter: string): string =>
    shape(k, `M${cx - WELL} 0V-30Q${cx - WELL} -36,${cx - WELL + 8} -36H${cx + WELL - 8}Q${cx + WELL} -36,${cx + WELL} -30V0`) +
    `<ellipse cx="${cx}" cy="0" rx="${WELL}" ry="5" fill="${SAND}" stroke="${INK}" stroke-width="${f(k.ink)}"/>` +
    text(cx, -12, letter, 18, 'middle', `transform="rotate(180 ${cx} -18)"`);
  return moved(at, 0, scale, side(-42, k.words.left) + side(42, k.words.right) + shape(k, 'M-12 -32H12V-22H-12Z'));
}

/** Case of a peroxide system: tall cup, cap with stem, two baskets, catalyst disc at the bottom. */
export function peroxideCase(k: Kit, at: Point, look: { scale?: number; open?: boolean; fluid?: boolean } = {}): string {
  const { scale = 1, open = false, fluid = true } = look;
  const basket = (y: number, letter: string): string =>
    `<rect x="-20" y="${y - 15}" width="40" height="29" rx="3" fill="#fff" fill-opacity=".85" stroke="${INK}" stroke-width="${f(k.ink * 0.8)}"/>` +
    `<path d="M-20 ${y - 7}H20M-20 ${y}H20M-20 ${y + 7}H20M-10 ${y - 15}V${y + 14}M10 ${y - 15}V${y + 14}" stroke="${INK}" stroke-width="${f(k.thin * 0.5)}" opacity=".45"/>` +
    `<rect x="-8" y="${y - 9}" width="16" height="17" fill="#fff"/>${text(0, y + 5.5, letter, 15)}`;
  const cup =
    `<path d="M-34 -70L-27 48Q-26 56,-18 56H18Q26 56,27 48L34 -70" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}" stroke-linejoin="round"/>` +
    (fluid
      ? `<path d="M-31.4 -50L-25.8 47Q-25 54,-18 54H18Q25 54,25.8 47L31.4 -50Z" fill="${FLUID}"/><path d="M-31.4 -50H31.4" stroke="${INK}" stroke-width="${f(k.thin)}"/>`
      : '');
  const stem =
    shape(k, 'M-3 -72H3V28H-3Z') +
    basket(-26, k.words.right) +
    basket(8, k.words.left) +
    shape(k, 'M-15 30H15V40H-15Z', { fill: INK }) +
    `<path d="M-9 31V39M-3 31V39M3 31V39M9 31V39" stroke="${PAPER}" stroke-width="${f(k.thin)}"/>`;
  const cap =
    shape(k, 'M-39 -92Q-39 -96,-35 -96H35Q39 -96,39 -92V-70H-39Z', { fill: SAND }) +
    `<path d="M-26 -92V-74M-13 -92V-74M0 -92V-74M13 -92V-74M26 -92V-74" stroke="${INK}" stroke-width="${f(k.thin)}"/>`;
  return moved(at, 0, scale, `${cup}<g transform="translate(0 ${open ? -46 : 0})">${stem}${cap}</g>`);
}

/** A cloth. @param at its upper left corner */
export function towel(k: Kit, [x, y]: Point, w = 150, h = 90): string {
  const at = (u: number, v: number, du = 0, dv = 0): Point => [x + w * u + du, y + h * v + dv];
  const edge = smooth([
    ...[at(0, 0, 0, 6), at(0.25, 0), at(0.5, 0, 0, 5), at(0.78, 0), at(1, 0, 0, 5), at(0.985, 0.5)],
    ...[at(1, 1), at(0.7, 0.965), at(0.45, 1), at(0.2, 0.97), at(0, 1), at(0.012, 0.5)],
  ]);
  const stripe = (v: number): string => `M${xy(at(0.04, v))}Q${xy(at(0.3, v - 0.04))},${xy(at(0.5, v + 0.01))}T${xy(at(0.96, v))}`;
  const fold = (u: number, from: number, aside: number, to: number): string =>
    `M${xy(at(u, from))}Q${xy(at(u + aside, (from + to) / 2))},${xy(at(u + 0.01, to))}`;
  return (
    shape(k, edge, { fill: '#fff' }) +
    line(k, stripe(0.86) + stripe(0.79), { width: k.thin }) +
    line(k, fold(0.3, 0.12, -0.04, 0.66) + fold(0.66, 0.2, 0.04, 0.6), { width: k.thin, opacity: 0.6 })
  );
}

/** A mirror on its foot. @param at middle of the foot */
export const standingMirror = (k: Kit, [x, y]: Point, w = 80, h = 110): string =>
  shape(k, `M${f(x - w / 2)} ${f(y - h)}H${f(x + w / 2)}V${f(y - 14)}H${f(x - w / 2)}Z`) +
  shape(k, `M${f(x - w * 0.32)} ${f(y)}L${f(x - 6)} ${f(y - 14)}H${f(x + 6)}L${f(x + w * 0.32)} ${f(y)}Z`) +
  line(k, `M${f(x - w * 0.32)} ${f(y - h + 22)}l18 -14M${f(x - w * 0.32)} ${f(y - h + 40)}l40 -31`, { width: k.thin, opacity: 0.6 });

export const waterTap = (k: Kit, at: Point, scale = 1, running = true): string =>
  moved(
    at,
    0,
    scale,
    shape(k, 'M60 -30H28Q-14 -30,-14 6V14H12V8Q12 -4,28 -4H60Z') +
      shape(k, 'M26 -30V-42H14V-50H50V-42H38V-30') +
      (running ? line(k, 'M-8 18V64M-1 18V74M6 18V60', { width: k.thin * 1.2 }) : ''),
  );

export const suds = (k: Kit, bubbles: readonly (readonly [number, number, number])[]): string =>
  bubbles
    .map(([x, y, r]) =>
      shape(
        k,
        `M${f(x - r)} ${f(y)}a${r} ${r} 0 0 1 ${f(r * 1.2)} ${f(-r * 0.9)}a${f(r * 0.9)} ${f(r * 0.9)} 0 0 1 ${f(r * 1.3)} ${f(r * 0.5)}a${f(r * 0.8)} ${f(r * 0.8)} 0 0 1 ${f(-r * 0.3)} ${f(r * 1.2)}a${r} ${r} 0 0 1 ${f(-r * 1.3)} ${f(r * 0.1)}a${f(r * 0.8)} ${f(r * 0.8)} 0 0 1 ${f(-r * 0.9)} ${f(-r * 0.9)}Z`,
        { width: k.thin },
      ),
    )
    .join('');

/** A clock with a part of it gone by. @param to degrees from 12 o'clock */
export function clockFace(k: Kit, [x, y]: Point, r: number, to: number, below = ''): string {
  const at = (degrees: number): Point => [x + Math.sin((degrees * Math.PI) / 180) * r * 0.78, y - Math.cos((degrees * Math.PI) / 180) * r * 0.78];
  return (
    `<circle cx="${f(x)}" cy="${f(y)}" r="${f(r)}" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/>` +
    `<path d="M${f(x)} ${f(y)}L${xy(at(0))}A${f(r * 0.78)} ${f(r * 0.78)} 0 ${to > 180 ? 1 : 0} 1 ${xy(at(to))}Z" fill="${INK}"/>` +
    (below ? text(x, y + r + 17, below, 15) : '')
  );
}

/** A cotton bud: never at an eye. */
export const cottonBud = (k: Kit): string =>
  line(k, 'M226 178L292 156', { width: k.ink * 1.1 }) +
  (
    [
      [224, 179],
      [294, 155],
    ] as const
  )
    .map(([x, y]) => `<ellipse cx="${x}" cy="${y}" rx="12" ry="7" transform="rotate(-18 ${x} ${y})" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/>`)
    .join('');

/** Glasses. @param at their bridge */
export const glasses = (k: Kit, at: Point): string =>
  moved(
    at,
    0,
    1,
    `<circle cx="-32" r="25" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink * 1.1)}"/><circle cx="32" r="25" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink * 1.1)}"/>${line(k, 'M-7 -4Q0 -12 7 -4M-56 -6L-62 -22M56 -6L62 -22')}`,
  );

/** A telephone that says to call. @param at its middle */
export const telephone = (k: Kit, at: Point): string =>
  moved(
    at,
    0,
    1,
    `<rect x="-23" y="-42" width="46" height="84" rx="5" fill="#fff" stroke="${INK}" stroke-width="${f(k.ink)}"/><path d="M-16 -30H16V28H-16Z" fill="${SAND}" stroke="${INK}" stroke-width="${f(k.thin)}"/><path d="M-5 35H5" stroke="${INK}" stroke-width="${f(k.thin)}"/>${k.words.call.map((word, i) => text(0, -6 + i * 17, word, 13)).join('')}`,
  );

/** A pack of one lens, its foil drawn back from 0 to 1. @param at middle of its lower edge */
export const blister = (k: Kit, at: Point, scale = 1, opened = 0): string =>
  moved(
    at,
    0,
    scale,
    shape(k, 'M-58 -12H58L50 2H-50Z') +
      shape(k, 'M-34 2Q-34 34 0 34Q34 34 34 2Z') +
      (opened > 0
        ? `<ellipse cx="0" cy="-6" rx="32" ry="5" fill="${FLUID}" stroke="${INK}" stroke-width="${f(k.thin)}"/>` +
          shape(
            k,
            `M-46 -12Q${f(-40 + opened * 10)} ${f(-30 - opened * 30)} ${f(opened * 30)} ${f(-34 - opened * 30)}L${f(opened * 30 + 20)} ${f(-28 - opened * 26)}Q-20 -30 -30 -12Z`,
            { fill: SAND },
          )
        : shape(k, 'M-58 -12H58L62 -18H-54Z', { fill: SAND })),
  );

/** A bin with its lid up. @param at middle of its foot */
export const bin = (k: Kit, at: Point): string =>
  moved(
    at,
    0,
    1,
    shape(k, 'M-34 -84L-26 0H26L34 -84Z') +
      shape(k, 'M-40 -92H40V-82H-40Z', { fill: SAND }) +
      line(k, 'M-12 -70L-9 -12M0 -70V-12M12 -70L9 -12', { width: k.thin }),
  );
