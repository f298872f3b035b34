import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { beforeAll, describe, expect, it } from 'vitest';
import { bagCode, readBagCode } from '../../core';
import { dataMatrixSvg } from './dataMatrix';

const receiptId = '2f1c9a60-6f43-4f0e-9f6c-0a6f3f6f2b11';

beforeAll(async () => {
  const wasm = readFileSync(createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm'));
  await prepareZXingModule({
    overrides: { wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.byteLength) },
    fireImmediately: true,
  });
});

/** The modules of an SVG of unit paths, painted into pixels: drawn here by its own numbers, read by an independent decoder. */
function pixelsOf(svg: string): { readonly data: Uint8ClampedArray; readonly width: number; readonly height: number } {
  const [, w, h] = /viewBox="0 0 (\d+) (\d+)"/.exec(svg) ?? [];
  const [width, height] = [Number(w), Number(h)];
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  const paths = [...svg.matchAll(/ d="([^"]+)"/g)].map((m) => m[1] ?? '');
  // Even-odd filling of closed polygons with upright edges.
  const edges: { readonly x: number; readonly from: number; readonly to: number }[] = [];
  for (const path of paths)
    for (const ring of path.split('Z').filter((r) => r.trim() !== '')) {
      const points = [...ring.matchAll(/[ML]\s*(-?[\d.]+)[ ,](-?[\d.]+)/g)].map((m) => ({ x: Number(m[1]), y: Number(m[2]) }));
      points.forEach((a, i) => {
        const b = points[(i + 1) % points.length];
        if (b && a.x === b.x && a.y !== b.y) edges.push({ x: a.x, from: Math.min(a.y, b.y), to: Math.max(a.y, b.y) });
      });
    }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const crossed = edges.filter((e) => e.x <= x + 0.5 && e.from <= y + 0.5 && y + 0.5 < e.to).length;
      if (crossed % 2 === 1) data.set([0, 0, 0, 255], (y * width + x) * 4);
    }
  return { data, width, height };
}

describe('the label of a bag', () => {
  it('is read back by an independent decoder, each eye as its own', async () => {
    for (const eye of ['right', 'left'] as const) {
      const { data, width, height } = pixelsOf(dataMatrixSvg(bagCode({ receiptId, eye })));
      const found = await readBarcodes({ data, width, height, colorSpace: 'srgb' } as ImageData, { formats: ['DataMatrix'], textMode: 'Plain' });
      expect(found.map((f) => f.text)).toEqual([bagCode({ receiptId, eye })]);
      expect(readBagCode(found[0]?.text ?? '')).toEqual({ receiptId, eye });
    }
  });
  it('holds nobody’s name, and nothing else is taken for one', () => {
    expect(bagCode({ receiptId, eye: 'left' })).toBe(`KFB1/${receiptId}/L`);
    for (const text of ['', 'KFB1/x/R', `KFB1/${receiptId}/X`, `KFB2/${receiptId}/R`, '(01)06291041500213']) expect(readBagCode(text)).toBeNull();
  });
});
