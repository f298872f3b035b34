import { describe, expect, it } from 'vitest';
import { photograph, type Photo } from './draw';
import { CAMERA_RANGES, type CameraRangeName } from './ranges';
import { markAngles, sceneOf, type Scene } from './scene';

/** A small still scene, quick to draw. */
const scene = (over: Partial<Scene> = {}, lens: Partial<Scene['lens']> = {}): Scene => {
  const full = sceneOf(CAMERA_RANGES.easy, 'six', 7);
  return {
    ...full,
    ...{ width: 300, height: 300, scale: 18, centre: [150, 140], roll: 0, mirrored: false, vessels: [], lashes: [], reflexes: [], specks: [] },
    ...{ upperLidMm: 9, lowerLidMm: 9, defocusPx: 0.5, motionPx: 0, noise: 0, shade: 0 },
    ...over,
    lens: { ...full.lens, mm: 14, off: [0, 0], rotationLeft: 0, layout: 'six', markContrast: -0.4, markLengthMm: 1, markWidthMm: 0.2, ...lens },
  };
};
const greenAt = ({ width, rgb }: Photo, x: number, y: number): number => rgb[(Math.round(y) * width + Math.round(x)) * 3 + 1] ?? 0;
/** How much darker a place of the ring of marks is than its neighbours, degrees clockwise from straight down as seen in the picture. */
function darkness(photo: Photo, of: Scene, clockwise: number): number {
  const place = (angle: number): number => {
    const a = (angle * Math.PI) / 180;
    const r = (of.lens.mm / 2 - 0.9) * of.scale;
    return greenAt(photo, of.centre[0] - r * Math.sin(a), of.centre[1] + r * Math.cos(a));
  };
  return (place(clockwise - 6) + place(clockwise + 6)) / 2 - place(clockwise);
}

describe('the simulated slit-lamp camera', { timeout: 60_000 }, () => {
  it('the same scene gives the same picture, byte for byte; another seed another', () => {
    const one = photograph(scene({ noise: 0.02 }));
    expect(Buffer.compare(Buffer.from(one.rgb), Buffer.from(photograph(scene({ noise: 0.02 })).rgb))).toBe(0);
    expect(Buffer.compare(Buffer.from(one.rgb), Buffer.from(photograph(scene({ noise: 0.02, seed: 8 })).rgb))).not.toBe(0);
  });
  it.each([
    ['six', 0],
    ['six', 20],
    ['six', -15],
    ['threeNine', 10],
    ['twelve', -25],
    ['fiveSixSeven', 12],
  ] as const)('marks of %s, turned %i° to the examiner’s left, lie where they are said to', (layout, rotationLeft) => {
    const of = scene({}, { layout, rotationLeft, spacing: 30 });
    const photo = photograph(of);
    const angles = markAngles(layout, 30).map((a) => a + rotationLeft);
    // To the examiner's left is to the left of the picture, below.
    for (const angle of angles) expect(darkness(photo, of, angle)).toBeGreaterThan(40);
    expect(Math.abs(darkness(photo, of, 47))).toBeLessThan(25);
  });
  it('a camera that is turned turns everything with it; a mirrored picture turns the other way', () => {
    const rolled = scene({ roll: 10 }, { rotationLeft: 20 });
    expect(darkness(photograph(rolled), rolled, 30)).toBeGreaterThan(40);
    const mirrored = scene({ mirrored: true }, { rotationLeft: 20 });
    expect(darkness(photograph(mirrored), mirrored, -20)).toBeGreaterThan(40);
  });
  it('a lens without a mark shows none; a lid hides what lies under it', () => {
    const bare = scene({}, { layout: 'none' });
    expect(Math.abs(darkness(photograph(bare), bare, 0))).toBeLessThan(25);
    const hidden = scene({ lowerLidMm: 5.5 });
    expect(Math.abs(darkness(photograph(hidden), hidden, 0))).toBeLessThan(25);
  });
  it('the caruncle lies towards the nose: at the right of a right eye as it is faced', () => {
    const redder = (eye: 'right' | 'left'): number => {
      const of = scene({ eye, width: 460, centre: [230, 140] });
      const photo = photograph(of);
      const red = (x: number): number => {
        const at = (Math.round(140 + 0.6 * of.scale) * photo.width + Math.round(x)) * 3;
        return (photo.rgb[at] ?? 0) - (photo.rgb[at + 1] ?? 0);
      };
      return red(230 + 11.2 * of.scale) - red(230 - 11.2 * of.scale);
    };
    expect(redder('right')).toBeGreaterThan(20);
    expect(redder('left')).toBeLessThan(-20);
  });
  it('each range draws within what it says, and the ranges get harder', () => {
    for (const name of Object.keys(CAMERA_RANGES) as CameraRangeName[]) {
      const range = CAMERA_RANGES[name];
      for (let seed = 0; seed < 200; seed++) {
        const of = sceneOf(range, 'six', seed);
        expect(Math.abs(of.roll)).toBeLessThanOrEqual(range.roll[1]);
        expect(Math.abs(of.lens.rotationLeft)).toBeLessThanOrEqual(range.turn[1]);
        expect(Math.hypot(...of.lens.off)).toBeLessThanOrEqual(range.offCentreMm[1] + 1e-9);
        expect(of.specks.length).toBeLessThanOrEqual(range.specks[1]);
      }
    }
    const { easy, usual, hard } = CAMERA_RANGES;
    for (const part of ['noise', 'defocusPx', 'motionPx', 'lashes', 'roll'] as const) {
      expect(easy[part][1]).toBeLessThan(usual[part][1]);
      expect(usual[part][1]).toBeLessThan(hard[part][1]);
    }
    expect(easy.markContrast[0]).toBeGreaterThan(hard.markContrast[1] - 1e-9);
  });
});
