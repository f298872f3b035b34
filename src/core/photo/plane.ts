/** One channel of a picture, 0 to 1, row by row from the top. */
export interface Plane {
  readonly width: number;
  readonly height: number;
  readonly of: Float32Array;
}
/** A picture with its red, green and blue. */
export interface ColourPicture {
  readonly width: number;
  readonly height: number;
  /** Red, green and blue of each pixel, 0 to 255. */
  readonly rgb: Uint8ClampedArray | Uint8Array;
}
/** A circle in a picture, pixels. */
export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** A channel of a picture: 0 red, 1 green, 2 blue. */
export function channel({ width, height, rgb }: ColourPicture, which: 0 | 1 | 2): Plane {
  const of = new Float32Array(width * height);
  for (let i = 0; i < of.length; i++) of[i] = (rgb[i * 3 + which] ?? 0) / 255;
  return { width, height, of };
}

/** Brightness between pixels; outside the picture that of its edge. */
export function sampled({ width, height, of }: Plane, x: number, y: number): number {
  const cx = Math.min(width - 1.001, Math.max(0, x));
  const cy = Math.min(height - 1.001, Math.max(0, y));
  const ix = cx | 0;
  const iy = cy | 0;
  const fx = cx - ix;
  const fy = cy - iy;
  const at = iy * width + ix;
  const top = (of[at] ?? 0) * (1 - fx) + (of[at + 1] ?? 0) * fx;
  const bottom = (of[at + width] ?? 0) * (1 - fx) + (of[at + width + 1] ?? 0) * fx;
  return top * (1 - fy) + bottom * fy;
}

/** A picture of half the size, each pixel the mean of four. */
export function halved({ width, height, of }: Plane): Plane {
  const [w, h] = [width >> 1, height >> 1];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const at = 2 * y * width + 2 * x;
      out[y * w + x] = ((of[at] ?? 0) + (of[at + 1] ?? 0) + (of[at + width] ?? 0) + (of[at + width + 1] ?? 0)) / 4;
    }
  return { width: w, height: h, of: out };
}

/** A ring of a picture laid out flat: a row a direction, clockwise from straight down; a column a distance from its centre. */
export interface Polar {
  readonly rows: number;
  readonly columns: number;
  /** Distance of the first column, and between two, pixels. */
  readonly from: number;
  readonly step: number;
  readonly of: Float32Array;
}

/** Lays a ring out flat. @param rows directions, evenly spread @param to distance of the last column at most, pixels */
export function polar(plane: Plane, { x, y }: Circle, rows: number, from: number, to: number, step = 1): Polar {
  const columns = Math.max(1, Math.floor((to - from) / step) + 1);
  const of = new Float32Array(rows * columns);
  for (let i = 0, at = 0; i < rows; i++) {
    const angle = (i * 2 * Math.PI) / rows;
    const [ux, uy] = [-Math.sin(angle), Math.cos(angle)];
    for (let j = 0; j < columns; j++, at++) {
      const r = from + j * step;
      of[at] = sampled(plane, x + r * ux, y + r * uy);
    }
  }
  return { rows, columns, from, step, of };
}

/** The middle of some numbers; 0 of none. @example median([3, 1, 2]) → 2 */
export function median(values: readonly number[] | Float32Array): number {
  const sorted = Float32Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? 0;
}

/** A share of the pixels says how grainy a picture is: every seventh row, every fifth column. */
const EVERY = { row: 7, column: 5 } as const;

/**
 * Standard deviation of a picture's grain, by how little each pixel agrees with its neighbours in the row.
 * @source the middle of absolute deviations times 1.4826 is the SD of a bell curve; 1, −2, 1 adds six variances
 */
export function grainOf({ width, height, of }: Plane): number {
  const found: number[] = [];
  for (let y = 2; y < height - 2; y += EVERY.row)
    for (let x = 2; x < width - 2; x += EVERY.column) {
      const i = y * width + x;
      found.push(Math.abs(2 * (of[i] ?? 0) - (of[i - 1] ?? 0) - (of[i + 1] ?? 0)));
    }
  return (median(found) * 1.4826) / Math.sqrt(6);
}
