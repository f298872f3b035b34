import { describe, expect, it } from 'vitest';
import { findTurn, type MarkLayout } from '../../src/core';
import { photograph } from '../../src/standins/camera/draw';
import { CAMERA_RANGES } from '../../src/standins/camera/ranges';
import { sceneOf, type Scene } from '../../src/standins/camera/scene';
import { drawnEye } from '../support/drawnEye';

/** A still, clear picture of an eye, and what is read of it. */
function read(layout: MarkLayout, seed: number, over: Partial<Scene> = {}, lens: Partial<Scene['lens']> = {}) {
  const drawn = sceneOf(CAMERA_RANGES.easy, layout, seed);
  const scene: Scene = { ...drawn, mirrored: false, ...over, lens: { ...drawn.lens, layout, ...lens } };
  return { scene, found: findTurn(photograph(scene), { eye: scene.eye, layout, spacing: scene.lens.spacing, roll: scene.roll }) };
}

// Each draws pictures pixel by pixel: a loaded machine takes its time.
describe('the turn of a lens from a picture (of the simulated camera, which shares nothing with what reads it)', { timeout: 120_000 }, () => {
  it.each([
    ['six', 41],
    ['threeNine', 42],
    ['twelve', 43],
    ['fiveSixSeven', 44],
  ] as const)('marks at %s are read to within a degree', (layout, seed) => {
    const { scene, found } = read(layout, seed);
    expect(found).toMatchObject({ ok: true });
    if (found.ok) expect(Math.abs(found.rotationLeft - scene.lens.rotationLeft)).toBeLessThan(1);
  });
  it('a lens that sits turned by a known angle is read turned by it, within half a degree', () => {
    const at = (rotationLeft: number): number => {
      const { found } = read('six', 45, {}, { rotationLeft });
      if (!found.ok) throw new Error(found.why);
      return found.rotationLeft;
    };
    expect(Math.abs(at(12) - at(-6) - 18)).toBeLessThan(0.5);
  });
  it('the same picture larger is read the same; its circles lie in its own pixels', () => {
    const drawn = sceneOf(CAMERA_RANGES.easy, 'six', 45);
    const scene: Scene = { ...drawn, mirrored: false, lens: { ...drawn.lens, layout: 'six' } };
    const small = photograph(scene);
    const large = { width: small.width * 2, height: small.height * 2, rgb: new Uint8ClampedArray(small.rgb.length * 4) };
    for (let y = 0; y < large.height; y++)
      for (let x = 0; x < large.width; x++)
        for (let c = 0; c < 3; c++) large.rgb[(y * large.width + x) * 3 + c] = small.rgb[((y >> 1) * small.width + (x >> 1)) * 3 + c] ?? 0;
    const asked = { eye: scene.eye, layout: 'six', spacing: 30, roll: scene.roll } as const;
    const [one, other] = [findTurn(small, asked), findTurn(large, asked)];
    if (!one.ok || !other.ok) throw new Error('not read');
    expect(Math.abs(other.rotationLeft - one.rotationLeft)).toBeLessThan(0.1);
    expect(other.lens.r / one.lens.r).toBeCloseTo(2, 1);
    expect(Math.abs(one.lens.r / scene.scale - scene.lens.mm / 2)).toBeLessThan(0.1);
  });
  it('one of three marks is not the one at 6; one of two is not a pair', () => {
    for (const asked of ['fiveSixSeven', 'threeNine'] as const) {
      const { scene } = read('six', 45);
      expect(
        findTurn(photograph({ ...scene, lens: { ...scene.lens, layout: 'six' } }), { eye: scene.eye, layout: asked, spacing: 30, roll: scene.roll }).ok,
      ).toBe(false);
    }
  });
  it('nothing is said of a lens without a mark, of a picture turned round, or of no eye', () => {
    const bare = read('six', 46, {}, { layout: 'none' });
    expect(findTurn(photograph(bare.scene), { eye: bare.scene.eye, layout: 'six', spacing: 30, roll: bare.scene.roll }).ok).toBe(false);
    expect(read('six', 47, { mirrored: true }).found).toMatchObject({ ok: false, why: 'mirrored' });
    const plain = { width: 320, height: 240, rgb: new Uint8ClampedArray(320 * 240 * 3).fill(150) };
    expect(findTurn(plain, { eye: 'right', layout: 'six', spacing: 30, roll: 0 })).toMatchObject({ ok: false, why: 'noEye' });
  });
});

describe('the turn of a lens from a picture drawn by another hand', { timeout: 120_000 }, () => {
  const sizes = [
    [640, 480],
    [1280, 960],
    [1920, 1080],
  ] as const;
  const layouts = ['six', 'threeNine', 'twelve', 'fiveSixSeven'] as const;
  it.each(
    layouts.flatMap((layout, i) =>
      (['dark', 'light'] as const).map((mark, k) => ({
        layout,
        mark,
        eye: i % 2 ? ('left' as const) : ('right' as const),
        size: sizes[(i + k) % 3] ?? sizes[0],
      })),
    ),
  )('a $mark mark, $layout, is read to within half a degree', async ({ layout, mark, eye, size: [width, height] }) => {
    for (const [rotationLeft, roll] of [
      [-18, 2],
      [7, -3],
    ] as const) {
      const picture = await drawnEye({ layout, eye, rotationLeft, roll, iris: mark === 'dark' ? '#5b7d8f' : '#4c331d', mark, width, height });
      const found = findTurn(picture, { eye, layout, spacing: 30, roll });
      if (!found.ok) throw new Error(`${found.why} at ${rotationLeft}`);
      expect(Math.abs(found.rotationLeft - rotationLeft)).toBeLessThan(0.5);
    }
  });
  it('a picture turned by a known angle is read turned by it, within half a degree', async () => {
    const asked = { eye: 'right', layout: 'six', spacing: 30, roll: 0 } as const;
    for (const roll of [-9, -4.5, 0, 4.5, 9]) {
      const picture = await drawnEye({ ...asked, rotationLeft: 6, roll, iris: '#6f8a5a', mark: 'dark', width: 1280, height: 960 });
      const found = findTurn(picture, asked);
      if (!found.ok) throw new Error(`${found.why} at ${roll}`);
      expect(Math.abs(found.rotationLeft - 6 - roll)).toBeLessThan(0.5);
    }
  });
  it('and nothing is said of it where the lens carries no mark, or the other eye was asked for', async () => {
    const bare = await drawnEye({ layout: 'none', eye: 'right', rotationLeft: 0, roll: 0, iris: '#5b7d8f', mark: 'dark', width: 1280, height: 960 });
    for (const layout of layouts) expect(findTurn(bare, { eye: 'right', layout, spacing: 30, roll: 0 }).ok).toBe(false);
    const drawn = await drawnEye({ layout: 'six', eye: 'right', rotationLeft: 0, roll: 0, iris: '#5b7d8f', mark: 'dark', width: 1280, height: 960 });
    expect(findTurn(drawn, { eye: 'left', layout: 'six', spacing: 30, roll: 0 })).toMatchObject({ ok: false, why: 'mirrored' });
  });
});
