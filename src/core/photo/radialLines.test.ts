import { describe, expect, it } from 'vitest';
import { COUNT, radialLines } from './radialLines';

/** A ring of white about a lens, a tenth of a millimetre a column, with bands of another brightness. */
const COLUMNS = 20;
const LENS = { x: 0, y: 0, r: 71 };
function read(bands: readonly { from: number; to: number; value: number }[], hidden = new Uint8Array(COUNT * COLUMNS)) {
  const of = new Float32Array(COUNT * COLUMNS).fill(0.7);
  for (const { from, to, value } of bands) of.fill(value, from * COLUMNS, (to + 1) * COLUMNS);
  return radialLines({ ring: { rows: COUNT, columns: COLUMNS, from: 58, step: 1, of }, lens: LENS, grain: 'fine', hidden }, [0.5, 0.75]);
}

describe('radial lines of a ring', () => {
  it('a dark band is a dark line by as much as it is darker, and a light one a light line', () => {
    expect(read([{ from: 399, to: 401, value: 0.5 }]).dark[400]).toBeCloseTo(0.2, 5);
    expect(read([{ from: 399, to: 401, value: 0.9 }]).light[400]).toBeCloseTo(0.2, 5);
  });
  it('what lies between two light walls is no dark line: a bubble', () => {
    const { dark } = read([
      { from: 392, to: 396, value: 0.95 },
      { from: 404, to: 408, value: 0.95 },
    ]);
    expect(dark[400]).toBe(0);
  });
  it('an edge, lighter on one side only, is neither', () => {
    const { dark, light } = read([{ from: 400, to: 700, value: 0.9 }]);
    expect(Math.max(0, dark[400] ?? 0, light[400] ?? 0)).toBe(0);
  });
  it('what a lash lies over says nothing', () => {
    const hidden = new Uint8Array(COUNT * COLUMNS).fill(1, 399 * COLUMNS, 402 * COLUMNS);
    const { dark, seen } = read([{ from: 399, to: 401, value: 0.1 }], hidden);
    expect([dark[400], seen[400], seen[200]]).toEqual([0, 0, 1]);
  });
});
