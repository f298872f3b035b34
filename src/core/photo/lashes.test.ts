import { describe, expect, it } from 'vitest';
import { hiddenByLashes, lashedRows } from './lashes';
import type { Polar } from './plane';

/** A ring of white about a lens, a tenth of a millimetre a column: from 1.3 mm inwards of its edge to 0.6 mm beyond. */
const [ROWS, COLUMNS] = [360, 20];
const LENS = { x: 0, y: 0, r: 71 };
/** Far enough in that the ring lies on the white. */
const LIMBUS = { x: 0, y: 0, r: 50 };
function ringWith(lines: readonly { row: number; fromMm: number; toMm: number; value: number; slant?: number }[]): Polar {
  const of = new Float32Array(ROWS * COLUMNS).fill(0.8);
  for (const { row, fromMm, toMm, value, slant = 0 } of lines)
    for (let j = 0; j < COLUMNS; j++) {
      const inwards = 1.3 - j * 0.1;
      if (inwards >= fromMm && inwards <= toMm) of[((row + Math.round(slant * j) + ROWS) % ROWS) * COLUMNS + j] = value;
    }
  return { rows: ROWS, columns: COLUMNS, from: 58, step: 1, of };
}
const lashed = (ring: Polar): number[] => [...lashedRows(ring, hiddenByLashes(ring, LENS, LIMBUS, 10))].flatMap((is, row) => (is === 1 ? [row] : []));

describe('lashes over the ring of marks', () => {
  it('a dark line that runs in from beyond the edge is a lash, hidden with its flanks', () => {
    expect(lashed(ringWith([{ row: 180, fromMm: -0.6, toMm: 1, value: 0.2 }]))).toEqual([177, 178, 179, 180, 181, 182, 183]);
  });
  it('so is one that lies aslant', () => {
    expect(lashed(ringWith([{ row: 180, fromMm: -0.6, toMm: 1, value: 0.2, slant: 2 }])).length).toBeGreaterThan(30);
  });
  it('a mark ends before the edge, however black it is', () => {
    expect(lashed(ringWith([{ row: 180, fromMm: 0.4, toMm: 1.3, value: 0.1 }]))).toEqual([]);
  });
  it('a vessel runs on as well, but is lighter', () => {
    expect(lashed(ringWith([{ row: 180, fromMm: -0.6, toMm: 1, value: 0.7 }]))).toEqual([]);
  });
  it('a mark beside a lash stays in sight', () => {
    const rows = lashed(
      ringWith([
        { row: 180, fromMm: -0.6, toMm: 1, value: 0.2 },
        { row: 190, fromMm: 0.4, toMm: 1.3, value: 0.5 },
      ]),
    );
    expect(rows).toContain(180);
    expect(rows).not.toContain(190);
  });
});
