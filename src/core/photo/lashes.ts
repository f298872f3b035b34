import { type Circle, type Polar } from './plane';

/** Darker than this share of the white about it, and joined to what lies beyond the lens's edge: a lash. A mark ends before the edge. Our own. */
const DARK = 0.74;
/** Where the white begins, as a share of the limbus's radius: over the iris a lash is not told from what lies under it. */
const WHITE_FROM = 1.03;
/** The rim: so far to both sides of the lens's edge, mm. Beyond it nothing belongs to the lens. */
const RIM = 0.3;
/** How much to both sides of a lash is hidden with it: its blurred flank, rows. */
const FLANK = 3;
/** Where a lash runs in over the iris, this much to both sides is hidden further in, degrees. */
const INWARDS = 3;
/** How far to both sides the white is looked for, degrees, and by what steps. */
const ABOUT = { reach: 12, step: 2 } as const;

/** Places of a flat ring that a lash lies over: 1; or that lie further in, where it may run on: 2; else 0. */
export type Hidden = Uint8Array;

/** Whether all of these places are hidden. */
export const hiddenAt = (hidden: Hidden, at: number, other = at): boolean => hidden[at] !== 0 && hidden[other] !== 0;

/** How white it is about each direction of the rim: the upper quarter of what lies to both sides, so that no lash counts. */
function whiteAbout({ rows, columns, of }: Polar, rim: number): Float32Array {
  const mean = Float32Array.from({ length: rows }, (_, i) => {
    let sum = 0;
    for (let j = rim; j < columns; j++) sum += of[i * columns + j] ?? 0;
    return sum / (columns - rim);
  });
  const [reach, step] = [Math.round((ABOUT.reach / 360) * rows), Math.round((ABOUT.step / 360) * rows)];
  return mean.map((_, i) => {
    const about: number[] = [];
    for (let k = -reach; k <= reach; k += step) about.push(mean[(i + k + rows) % rows] ?? 0);
    return about.sort((a, b) => a - b)[Math.floor(about.length * 0.75)] ?? 0;
  });
}

/** The first column that lies on the white, by direction. */
function whiteFrom({ rows, from, step }: Polar, lens: Circle, limbus: Circle): Int32Array {
  const [ox, oy, r] = [lens.x - limbus.x, lens.y - limbus.y, limbus.r * WHITE_FROM];
  return Int32Array.from({ length: rows }, (_, i) => {
    const a = (i * 2 * Math.PI) / rows;
    const [ux, uy] = [-Math.sin(a), Math.cos(a)];
    const beside = ox * uy - oy * ux;
    const away = -(ox * ux + oy * uy) + Math.sqrt(Math.max(0, r * r - beside * beside));
    return Math.max(0, Math.ceil((away - from) / step));
  });
}

/** Everything dark that hangs together with something beyond a column. */
function joined({ rows, columns }: Polar, beyond: number, dark: (row: number, column: number) => boolean): Uint8Array {
  const found = new Uint8Array(rows * columns);
  const open: number[] = [];
  const take = (row: number, column: number): void => {
    const at = row * columns + column;
    if (found[at] === 1 || !dark(row, column)) return;
    found[at] = 1;
    open.push(at);
  };
  for (let i = 0; i < rows; i++) for (let j = beyond; j < columns; j++) take(i, j);
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    const [i, j] = [Math.floor(at / columns), at % columns];
    // A lash that lies aslant is cut into steps by the rows: one is leapt over.
    for (let di = -2; di <= 2; di++) for (let dj = -1; dj <= 1; dj++) if (j + dj >= 0 && j + dj < columns) take((i + di + rows) % rows, j + dj);
  }
  return found;
}

/**
 * Where lashes lie over the ring of marks, with their blurred flanks, and where one may run on over the iris.
 * @param ring laid out about the lens, beyond its edge as well @param mm pixels of a millimetre
 */
export function hiddenByLashes(ring: Polar, lens: Circle, limbus: Circle, mm: number): Hidden {
  const { rows, columns, from, step, of } = ring;
  const column = (inwards: number): number => Math.round((lens.r - inwards * mm - from) / step);
  const white = whiteAbout(ring, column(RIM));
  const first = whiteFrom(ring, lens, limbus);
  const lash = joined(ring, column(-RIM), (i, j) => j >= (first[i] ?? 0) && (of[i * columns + j] ?? 0) < DARK * (white[i] ?? 0));
  const hidden = new Uint8Array(rows * columns);
  const inwards = Math.round((INWARDS / 360) * rows);
  for (let at = 0; at < lash.length; at++) {
    if (lash[at] !== 1) continue;
    const [i, j] = [Math.floor(at / columns), at % columns];
    const row = (by: number): number => (i + by + rows) % rows;
    for (let di = -FLANK; di <= FLANK; di++) for (let jj = Math.max(0, j - 1); jj <= Math.min(columns - 1, j + 1); jj++) hidden[row(di) * columns + jj] = 1;
    if (j > (first[i] ?? 0) + 1) continue;
    for (let di = -inwards; di <= inwards; di++) for (let jj = 0; jj <= (first[row(di)] ?? 0); jj++) hidden[row(di) * columns + jj] ||= 2;
  }
  return hidden;
}

/** How much of each direction a lash lies over: 1 where anywhere, else 0. */
export const lashedRows = ({ rows, columns }: Polar, hidden: Hidden): Uint8Array =>
  Uint8Array.from({ length: rows }, (_, i) => (hidden.subarray(i * columns, (i + 1) * columns).includes(1) ? 1 : 0));
