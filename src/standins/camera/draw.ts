import { chanceFrom } from '../../lib/chance';
import { markAngles, type Scene } from './scene';

/** A picture as drawn: red, green and blue of each pixel, 0 to 255, row by row from the top. */
export interface Photo {
  readonly width: number;
  readonly height: number;
  readonly rgb: Uint8ClampedArray;
}

type Rgb = [number, number, number];
const RAD = Math.PI / 180;
const smooth = (from: number, to: number, x: number): number => {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};
const bell = (distance: number, width: number): number => Math.exp((-distance * distance) / (2 * width * width));
const blend = (under: Rgb, over: Readonly<Rgb> | readonly number[], share: number): void => {
  for (let i = 0; i < 3; i++) under[i] = (under[i] ?? 0) * (1 - share) + (over[i] ?? 0) * share;
};
const lift = (colour: Rgb, by: number): void => {
  for (let i = 0; i < 3; i++) colour[i] = (colour[i] ?? 0) + by;
};
/** Distance of a point from a straight piece, all in one unit. */
function fromPiece(px: number, py: number, ax: number, ay: number, bx: number, by: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const along = Math.min(1, Math.max(0, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(px - ax - along * dx, py - ay - along * dy);
}

const SCLERA: Readonly<Rgb> = [0.9, 0.87, 0.84];
const SKIN: Readonly<Rgb> = [0.74, 0.56, 0.47];
/** Share of full white that the white of the eye is exposed to. */
const EXPOSURE = 0.92;
/** Half the width of the palpebral fissure, mm. */
const FISSURE = 13.5;
/** Where the caruncle lies on the nose side, mm from the cornea's centre, and its size. */
const CARUNCLE = { at: 11.2, size: 0.9 } as const;

/** The white of the eye with its vessels, x right and y down in mm from the cornea's centre. */
function sclera(scene: Scene, x: number, y: number, r: number, angle: number): Rgb {
  const colour: Rgb = [...SCLERA];
  lift(colour, -0.012 * Math.max(0, r - 6));
  // The examiner faces the wearer: the nose is at the right of a right eye.
  const nose = scene.eye === 'right' ? CARUNCLE.at : -CARUNCLE.at;
  blend(colour, [0.82, 0.5, 0.47], 0.9 * bell(Math.hypot(x - nose, y - 0.6), CARUNCLE.size));
  const away = smooth(5.6, 7.5, r);
  if (away > 0)
    for (const v of scene.vessels) {
      const turned = angle - v.angle - v.winds * Math.sin(r * 2.2 + v.phase);
      const apart = (turned - 2 * Math.PI * Math.round(turned / (2 * Math.PI))) * r;
      if (Math.abs(apart) < 3 * v.width) blend(colour, [0.72, 0.28, 0.26], bell(apart, v.width) * v.redness * away);
    }
  return colour;
}

/** Iris and pupil. */
function iris(scene: Scene, r: number, angle: number): Rgb {
  const radius = scene.hvidMm / 2;
  const pupil = scene.pupilMm / 2;
  const fibres = 0.05 * Math.sin(angle * 61 + 3 * Math.sin(r * 1.7)) + 0.04 * Math.sin(angle * 37 + r * 2) + 0.03 * Math.sin(angle * 113);
  const colour: Rgb = [...scene.iris];
  lift(colour, fibres + 0.08 * bell(r - pupil - 1.1, 0.35) - 0.16 * smooth(radius - 0.9, radius, r));
  blend(colour, [0.02, 0.02, 0.02], 1 - smooth(pupil - 0.08, pupil + 0.08, r));
  return colour;
}

/** The lens: a faint edge, its marks, whatever lies under it. */
function addLens(scene: Scene, colour: Rgb, x: number, y: number): void {
  const { lens } = scene;
  const [dx, dy] = [x - lens.off[0], y - lens.off[1]];
  const r = Math.hypot(dx, dy);
  const radius = lens.mm / 2;
  if (r > radius + 0.4) return;
  lift(colour, lens.edgeContrast * bell(r - radius, 0.07) - 0.4 * lens.edgeContrast * bell(r - radius + 0.25, 0.12));
  for (const hour of markAngles(lens.layout, lens.spacing)) {
    const a = (hour + lens.rotationLeft) * RAD;
    const [ux, uy] = [-Math.sin(a), Math.cos(a)];
    const outer = radius - 0.45;
    const d = fromPiece(dx, dy, ux * outer, uy * outer, ux * (outer - lens.markLengthMm), uy * (outer - lens.markLengthMm));
    lift(colour, lens.markContrast * bell(d, lens.markWidthMm / 2));
  }
}

/** What lies on the eye and is no lens: bubbles, specks, reflexes of the lamp. */
function addClutter(scene: Scene, colour: Rgb, x: number, y: number): void {
  for (const b of scene.bubbles)
    lift(colour, 0.28 * bell(Math.hypot(x - b.x, y - b.y) - b.size, 0.06) - 0.1 * bell(Math.hypot(x - b.x, y - b.y), b.size * 0.6));
  for (const s of scene.specks) {
    const [hx, hy] = [(Math.cos(s.angle) * s.size) / 2, (Math.sin(s.angle) * s.size) / 2];
    lift(colour, -0.18 * bell(fromPiece(x, y, s.x - hx, s.y - hy, s.x + hx, s.y + hy), 0.07));
  }
  for (const f of scene.reflexes) blend(colour, [1, 1, 0.98], smooth(f.size * 1.15, f.size * 0.8, Math.max(Math.abs(x - f.x) * 1.6, Math.abs(y - f.y))));
}

/** How far the lids cover a place, 0 to 1, and where they stand there. */
function lidsAt(scene: Scene, x: number, y: number): { readonly upper: number; readonly lower: number; readonly covered: number } {
  const bow = Math.max(0, 1 - (x / FISSURE) ** 2);
  const upper = -scene.upperLidMm * bow;
  const lower = scene.lowerLidMm * bow * 0.98;
  return { upper, lower, covered: Math.max(smooth(upper + 0.12, upper - 0.12, y), smooth(lower - 0.12, lower + 0.12, y)) };
}

/** Lids and lashes over everything. */
function addLids(scene: Scene, colour: Rgb, x: number, y: number, { upper, lower, covered }: ReturnType<typeof lidsAt>): void {
  if (covered > 0) blend(colour, SKIN, covered);
  lift(colour, -0.12 * bell(y - upper, 0.5) * (1 - covered) + 0.05 * Math.max(bell(y - upper, 0.25), bell(y - lower, 0.3)) * covered);
  if (y < upper - 1 || y > upper + 4) return;
  for (const lash of scene.lashes) {
    const at = -scene.upperLidMm * Math.max(0, 1 - (lash.at / FISSURE) ** 2);
    const d = fromPiece(x, y, lash.at, at - 0.2, lash.at + lash.leans * lash.length, at + lash.length * 0.55);
    if (d < 0.4) blend(colour, [0.1, 0.08, 0.07], 0.85 * bell(d, 0.05));
  }
}

/** A soft blur of a standard deviation in pixels, by a kernel along rows, then columns. */
function defocus(plane: Float32Array, width: number, height: number, sd: number): Float32Array {
  const reach = Math.max(1, Math.ceil(sd * 3));
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, i) => bell(i - reach, sd));
  const total = kernel.reduce((a, b) => a + b, 0);
  const run = (from: Float32Array, along: number, across: number, step: number, next: number): Float32Array => {
    const to = new Float32Array(from.length);
    for (let j = 0; j < across; j++)
      for (let i = 0; i < along; i++) {
        let sum = 0;
        for (let k = -reach; k <= reach; k++) sum += (kernel[k + reach] ?? 0) * (from[j * next + Math.min(along - 1, Math.max(0, i + k)) * step] ?? 0);
        to[j * next + i * step] = sum / total;
      }
    return to;
  };
  return run(run(plane, width, height, 1, width), height, width, width, 1);
}
/** The picture drawn out along one way, as by a hand or an eye that moved. */
function smear(plane: Float32Array, width: number, height: number, px: number, angle: number): Float32Array {
  const steps = Math.ceil(px);
  if (steps < 1) return plane;
  const out = new Float32Array(plane.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let s = 0; s <= steps; s++) {
        const t = (s / steps - 0.5) * px;
        const xs = Math.min(width - 1, Math.max(0, Math.round(x + t * Math.cos(angle))));
        const ys = Math.min(height - 1, Math.max(0, Math.round(y + t * Math.sin(angle))));
        sum += plane[ys * width + xs] ?? 0;
      }
      out[y * width + x] = sum / (steps + 1);
    }
  return out;
}

/** The colour of the eye at a place of the picture, before the camera's own faults. */
function colourAt(scene: Scene, px: number, py: number): Rgb {
  const [cx, cy] = scene.centre;
  const [sx, sy] = [(px - cx) / scene.scale, (py - cy) / scene.scale];
  const [c, s] = [Math.cos(scene.roll * RAD), Math.sin(scene.roll * RAD)];
  // The picture is turned clockwise: a place of it is turned back to find the eye.
  const x = (sx * c + sy * s) * (scene.mirrored ? -1 : 1);
  const y = -sx * s + sy * c;
  const lids = lidsAt(scene, x, y);
  const colour: Rgb = [...SKIN];
  if (lids.covered < 1) {
    const r = Math.hypot(x, y);
    const angle = Math.atan2(y, x);
    const limbus = smooth(scene.hvidMm / 2 - scene.limbusMm / 2, scene.hvidMm / 2 + scene.limbusMm / 2, r);
    blend(colour, limbus < 1 ? iris(scene, r, angle) : sclera(scene, x, y, r, angle), 1);
    if (limbus > 0 && limbus < 1) blend(colour, sclera(scene, x, y, r, angle), limbus);
    addLens(scene, colour, x, y);
    addClutter(scene, colour, x, y);
  }
  addLids(scene, colour, x, y, lids);
  // Exposed for the side that has more light.
  const shade = (EXPOSURE / (1 + scene.shade * 0.5)) * (1 + scene.shade * ((Math.cos(scene.shadeAngle) * sx + Math.sin(scene.shadeAngle) * sy) / 10));
  return [colour[0] * shade, colour[1] * shade, colour[2] * shade];
}

/** The picture that the camera takes of a scene; the same scene gives the same picture, byte for byte. */
export function photograph(scene: Scene): Photo {
  const { width, height } = scene;
  const planes = [new Float32Array(width * height), new Float32Array(width * height), new Float32Array(width * height)] as const;
  const [red, green, blue] = planes;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const colour = colourAt(scene, x, y);
      const at = y * width + x;
      red[at] = colour[0];
      green[at] = colour[1];
      blue[at] = colour[2];
    }
  const chance = chanceFrom(scene.seed ^ 0x5eed);
  // The sum of four is near enough to a bell curve for a sensor's noise.
  const grain = (): number => (chance.between(-1, 1) + chance.between(-1, 1) + chance.between(-1, 1) + chance.between(-1, 1)) * 0.87;
  const rgb = new Uint8ClampedArray(width * height * 3);
  planes.forEach((plane, i) => {
    const seen = smear(defocus(plane, width, height, scene.defocusPx), width, height, scene.motionPx, scene.motionAngle);
    for (let p = 0; p < seen.length; p++) rgb[p * 3 + i] = 255 * ((seen[p] ?? 0) + scene.noise * grain());
  });
  return { width, height, rgb };
}
