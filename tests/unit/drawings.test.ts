import { describe, expect, it } from 'vitest';
import { contrast } from '../support/contrast';
import { INK, SKIN_TONES, TONES, type DrawingWords, type KitOptions } from '../../src/ui/drawing/ink';
import type { SceneOptions } from '../../src/ui/drawing/drawn';
import { drawScene, SCENE_NAMES, type SceneName } from '../../src/ui/drawing/scene';

const words: DrawingWords = { right: 'R', left: 'L', soap: 'soap', basket: 'basket', disc: 'disc', call: ['call', 'now'] };
const draw = (name: SceneName, options: Partial<SceneOptions> = {}): string => drawScene(name, { words, prefix: 'a-', describes: 'x', ...options });
const numbers = (svg: string): readonly number[] => (svg.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
const SIDES = ['right', 'left'] as const;

describe.each(SCENE_NAMES)('%s', (name) => {
  const drawn = draw(name);
  it('is whole: nothing that is no number, every name it points to is in it, and it is closed', () => {
    expect(drawn).not.toMatch(/NaN|undefined|Infinity|null/);
    expect(numbers(drawn).every(Number.isFinite)).toBe(true);
    const named = [...drawn.matchAll(/id="([^"]+)"/g)].map((m) => m[1]);
    expect(new Set(named).size).toBe(named.length);
    for (const [, to] of drawn.matchAll(/url\(#([^)]+)\)/g)) expect(named).toContain(to);
    expect(drawn.match(/<g[ >]/g)?.length ?? 0).toBe(drawn.match(/<\/g>/g)?.length ?? 0);
    expect(drawn).toMatch(/^<svg[\s\S]*<\/svg>$/);
  });
  it('is the same each time, for every hand, eye and view; and carries no style that a policy would drop', () => {
    for (const hand of SIDES)
      for (const eye of SIDES)
        for (const view of ['facing', 'mirror'] as const) {
          const options: Partial<KitOptions> = { hand, eye, view };
          expect(draw(name, options)).toBe(draw(name, options));
          expect(draw(name, options)).not.toMatch(/style=|<script|javascript:/);
        }
  });
  it('never flips its words', () => {
    // A mirrored group may hold words only where it is the mark of the lens that is inside out.
    for (const hand of SIDES)
      for (const eye of SIDES) {
        let depth: boolean[] = [];
        for (const tag of draw(name, { hand, eye }).match(/<g[^>]*>|<\/g>|<text[^>]*>[^<]*/g) ?? []) {
          if (tag === '</g>') depth = depth.slice(0, -1);
          else if (tag.startsWith('<g')) depth = [...depth, tag.includes('scale(-1')];
          else if (!tag.endsWith('R7E')) expect(depth.filter(Boolean).length % 2, tag).toBe(0);
        }
      }
  });
});

describe('mirroring', () => {
  it('in a mirror the wearer’s right is drawn as a left face to face', () => {
    const mirrored = draw('lensReady', { hand: 'right', eye: 'right', view: 'mirror' });
    expect(mirrored).toBe(draw('lensReady', { hand: 'left', eye: 'left', view: 'facing' }));
  });
  it('hand and eye turn over by themselves: four different pictures', () => {
    const four = SIDES.flatMap((hand) => SIDES.map((eye) => draw('slideDown', { hand, eye })));
    expect(new Set(four).size).toBe(4);
  });
  it('looking to the left is to the wearer’s left: right in the picture face to face, left in a mirror', () => {
    expect(draw('settleLeft', { view: 'facing' })).not.toBe(draw('settleRight', { view: 'facing' }));
    // Both hand and eye turned over: the mirror image of looking left, with either eye, is drawn as looking right face to face.
    expect(draw('settleLeft', { hand: 'left', eye: 'left', view: 'mirror' })).toBe(draw('settleRight', { hand: 'right', eye: 'right', view: 'facing' }));
  });
});

describe('ink on skin', () => {
  it.each(SKIN_TONES)('tone %i: lines inside a hand are seen at 3:1 or more (WCAG 2.2, 1.4.11)', (tone) => {
    const { skin, line } = TONES[tone];
    expect(contrast(line ?? INK, skin)).toBeGreaterThanOrEqual(3);
  });
});

it('words from outside are words, not marks', () => {
  const wild = draw('theTable', { words: { ...words, soap: '<b>"&' }, describes: '"><script>' });
  expect(wild).not.toMatch(/<b>|<script/);
  expect(wild).toContain('&lt;b&gt;');
});
