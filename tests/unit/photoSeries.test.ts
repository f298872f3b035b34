import { describe, expect, it } from 'vitest';
import type { TurnOfPhoto } from '../../src/core';
import { barOf, liesOf, othersOf, placedOn, rollOf, turnOf, type Placed, type SaidOfPhotos } from '../../src/features/visit/steps/onEye/photo/usePhotoSeries';
import { placedBy, placeOf, TOOLS } from '../../src/features/visit/steps/onEye/photo/PhotoProtractor';
import type { Lens } from '../../src/features/visit/steps/onEye/model';

const SHOT = { id: 'p', width: 800, height: 600 } as const;
const lens = (markLayout: Lens['markLayout'], markSpacing: number | null = null) => ({ markLayout, markSpacing }) as Lens;
const SAID: SaidOfPhotos = { nose: 'right', top: 'up', gaze: 'ahead', lid: 'free' };
const FOUND: TurnOfPhoto = { ok: true, rotationLeft: 12, limbus: { x: 400, y: 300, r: 190 }, lens: { x: 402, y: 298, r: 230 }, stands: 9 };
const BY_HAND: Placed = { lens: { x: 380, y: 310, r: 220 }, at: 5, hour: 'six', canthi: null };

describe('what is said of a burst of pictures', () => {
  it('nothing is read before all four are said; a nose on the wrong side, and another gaze, are never read', () => {
    expect(barOf('right', SAID)).toBeNull();
    for (const missing of ['nose', 'top', 'gaze', 'lid'] as const) expect(barOf('right', { ...SAID, [missing]: null })).toBe('unsaid');
    expect(barOf('left', SAID)).toBe('mirrored');
    expect(barOf('right', { ...SAID, gaze: 'elsewhere' })).toBe('gaze');
    // Even before the rest is said.
    expect(barOf('left', { ...SAID, gaze: null, lid: null })).toBe('mirrored');
    expect(liesOf('right', { ...SAID, nose: 'left', top: 'down' })).toBe('upsideDown');
    expect(liesOf('right', { ...SAID, top: null })).toBeNull();
  });
});

describe('what lies on a picture', () => {
  it('is what the program found, until somebody places a mark; what was placed by hand stays', () => {
    expect(turnOf(placedOn(SHOT, lens('six'), null, FOUND), lens('six'))).toBeCloseTo(12, 9);
    expect(placedOn(SHOT, lens('six'), BY_HAND, FOUND)).toBe(BY_HAND);
    expect(turnOf(BY_HAND, lens('six'))).toBeCloseTo(5, 9);
    // Canthi alone do not push the program's reading aside.
    const tilted = placedOn(
      SHOT,
      lens('six'),
      {
        ...BY_HAND,
        at: null,
        canthi: [
          { x: 0, y: 300 },
          { x: 800, y: 370 },
        ],
      },
      FOUND,
    );
    expect(turnOf(tilted, lens('six'))).toBeCloseTo(12, 9);
    expect(rollOf(tilted)).toBeCloseTo(5, 0);
  });
  it('is a circle without an arm where nothing was found, about the lens where at least that was', () => {
    const nothing = placedOn(SHOT, lens('six'), null, null);
    expect(nothing).toMatchObject({ at: null, lens: { x: 400, y: 300 } });
    expect(turnOf(nothing, lens('six'))).toBeNull();
    const unclear: TurnOfPhoto = { ok: false, why: 'unclear', limbus: FOUND.limbus, lens: FOUND.lens };
    expect(placedOn(SHOT, lens('six'), null, unclear)).toMatchObject({ at: null, lens: FOUND.lens });
  });
  it('shows where the lens’s other marks then are, and of several marks asks which', () => {
    const three = placedOn(SHOT, lens('fiveSixSeven', 20), null, FOUND);
    expect(three.hour).toBe('six');
    expect(othersOf(three, lens('fiveSixSeven', 20)).map(Math.round)).toEqual([-8, 32]);
    const unsaid = { ...BY_HAND, hour: null };
    expect(turnOf(unsaid, lens('fiveSixSeven', 20))).toBeNull();
    expect(othersOf(unsaid, lens('fiveSixSeven', 20))).toEqual([]);
    expect(placedOn(SHOT, lens('threeNine'), null, FOUND).hour).toBe('nine');
    expect(turnOf(placedOn(SHOT, lens('threeNine'), null, FOUND), lens('threeNine'))).toBeCloseTo(12, 9);
  });
  it('each tool places what it names, and finds it again where it was placed', () => {
    for (const tool of TOOLS) {
      const to = tool === 'edge' ? { x: 500, y: 310 } : { x: 390, y: 450 };
      const after = placedBy(tool, BY_HAND, to, SHOT);
      const back = placeOf(tool, after, SHOT);
      if (tool === 'mark') expect(Math.atan2(back.x - 380, back.y - 310)).toBeCloseTo(Math.atan2(10, 140), 6);
      else expect(back).toMatchObject(to);
    }
    // A lens cannot be pressed to nothing.
    expect(placedBy('edge', BY_HAND, { x: 380, y: 310 }, SHOT).lens.r).toBe(8);
  });
});
