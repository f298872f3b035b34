/** Bounds of a share at 95 %. Source: Wilson 1927. */
export function boundsOfShare(hits: number, of: number): readonly [number, number] {
  const z = 1.96;
  const p = hits / of;
  const middle = p + z ** 2 / (2 * of);
  const half = z * Math.sqrt((p * (1 - p)) / of + z ** 2 / (4 * of ** 2));
  const scale = 1 + z ** 2 / of;
  return [(middle - half) / scale, (middle + half) / scale];
}
