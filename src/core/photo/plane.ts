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

/** Is a place inside the picture? */
export const isInside = ({ width, height }: Plane, x: number, y: number): boolean => x >= 0 && y >= 0 && x <= width - 1 && y <= height - 1;

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

/** The middle of some numbers; 0 of none. @example median([3, 1, 2]) → 2 */
export function median(values: readonly number[] | Float32Array): number {
  const sorted = Float32Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? 0;
}
