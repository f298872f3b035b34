import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import type { Eye, MarkLayout } from '../../src/core';
import { MinuteRing } from '../../src/ui/MinuteRing';
import { RotationEye } from '../../src/ui/RotationEye';

const draw = (eye: Eye, value: number, layout: MarkLayout = 'six'): string =>
  renderToStaticMarkup(
    <RotationEye
      eye={eye}
      layout={layout}
      value={value}
      onChange={() => undefined}
      label="mark"
      valueText={(turn) => `${turn}`}
      words={{ nose: 'nose', ear: 'ear' }}
    />,
  );
const marks = (markup: string): { x: number; y: number }[] =>
  [...markup.matchAll(/<line x1="[-\d.]+" y1="[-\d.]+" x2="([-\d.]+)" y2="([-\d.]+)" stroke-width="7"/g)].map((m) => ({
    x: Number(m[1]) - 180,
    y: Number(m[2]) - 150,
  }));
const side = (markup: string, word: string): number => Number(new RegExp(`<text x="([-\\d.]+)"[^>]*>${word}<`).exec(markup)?.[1]);

describe('the drawn eye', () => {
  it('the bottom mark goes to the examiner’s left for a positive turn, on both eyes alike', () => {
    for (const eye of ['right', 'left'] as const) {
      expect(marks(draw(eye, 0))[0]?.x).toBeCloseTo(0, 6);
      expect(marks(draw(eye, 10))[0]?.x).toBeLessThan(0);
      expect(marks(draw(eye, -10))[0]?.x).toBeGreaterThan(0);
    }
  });
  it('ten degrees are ten degrees', () => {
    const [m] = marks(draw('right', 10));
    expect((Math.atan2(-(m?.x ?? 0), m?.y ?? 1) * 180) / Math.PI).toBeCloseTo(10, 6);
  });
  it('with marks at 3 and 9, a turn to the left brings the one on the examiner’s right down', () => {
    const still = marks(draw('right', 0, 'threeNine')).find((m) => m.x > 0);
    const turned = marks(draw('right', 10, 'threeNine')).find((m) => m.x > 0);
    expect(turned?.y).toBeGreaterThan(still?.y ?? 0);
  });
  it('a 12 o’clock mark goes to the examiner’s right for the same turn', () => {
    expect(marks(draw('right', 10, 'twelve'))[0]?.x).toBeGreaterThan(0);
    expect(marks(draw('right', 10, 'twelve'))[0]?.y).toBeLessThan(0);
  });
  it('the nose is toward the spine: right of the right eye, left of the left eye', () => {
    expect(side(draw('right', 0), 'nose')).toBeGreaterThan(side(draw('right', 0), 'ear'));
    expect(side(draw('left', 0), 'nose')).toBeLessThan(side(draw('left', 0), 'ear'));
  });
  it('is a slider that says its turn in words', () => {
    expect(draw('right', 10)).toMatch(/role="slider"[^>]*aria-valuemin="-90"[^>]*aria-valuemax="90"[^>]*aria-valuenow="10"[^>]*aria-valuetext="10"/);
  });
});

describe('the sixty-minute ring', () => {
  const strokes = (used: number): number =>
    [
      ...renderToStaticMarkup(
        <MinuteRing used={used} label="m">
          {used}
        </MinuteRing>,
      ).matchAll(/stroke-width="3.4"/g),
    ].length;
  it('has one long dark stroke for each minute used, sixty at most', () => {
    expect([0, 1, 26, 60, 75].map(strokes)).toEqual([0, 1, 26, 60, 60]);
  });
});
