import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  careTopicsFor,
  failedTechniques,
  lessonPlan,
  lessonTime,
  minutesToGo,
  MISSES,
  missesOf,
  OFF_TECHNIQUES,
  offTechnique,
  onTechnique,
  QUIET_MINUTES,
  type ClockTurn,
  type Handling,
  type OffTechnique,
} from '../index';

const hands: Handling = { dexterity: 'good', longNails: false, apertureMm: 10, failed: [] };
const slide = { removal: 'slide' } as const;

describe('techniques (common practice)', () => {
  it('on: both hands first; one where the other cannot, or where both failed', () => {
    expect(onTechnique(hands)).toMatchObject({ technique: 'twoHanded', because: 'first' });
    expect(onTechnique({ ...hands, dexterity: 'oneHand' })).toMatchObject({ technique: 'oneHanded', because: 'oneHand' });
    expect(onTechnique({ ...hands, failed: ['twoHanded'] })).toMatchObject({ technique: 'oneHanded', because: 'nextAfterFailing' });
  });
  it.each<readonly [string, Partial<Handling>, OffTechnique]>([
    ['slide and pinch', {}, 'slideAndPinch'],
    ['long nails roll', { longNails: true }, 'rollOff'],
    ['pinch failed: roll', { failed: ['slideAndPinch'] }, 'rollOff'],
    ['all failed and lids open 11 mm: outer corner', { failed: ['slideAndPinch', 'rollOff'], apertureMm: 11 }, 'outerCorner'],
    ['all failed and lids open less: no outer corner', { failed: ['slideAndPinch', 'rollOff'], apertureMm: 10.5 }, 'slideAndPinch'],
    ['aperture not measured: no outer corner', { failed: ['slideAndPinch', 'rollOff'], apertureMm: null }, 'slideAndPinch'],
  ])('off: %s', (_name, change, technique) => expect(offTechnique({ ...hands, ...change }, slide).technique).toBe(technique));
  it('the pinch on the eye itself is only the school’s that chose it, and never with long nails', () => {
    expect(offTechnique(hands, { removal: 'lowerThird' }).technique).toBe('lowerThird');
    fc.assert(
      fc.property(fc.subarray([...OFF_TECHNIQUES]), fc.option(fc.integer({ min: 6, max: 14 })), fc.boolean(), (failed, apertureMm, school) => {
        const { technique } = offTechnique({ dexterity: 'good', longNails: true, apertureMm, failed }, { removal: school ? 'lowerThird' : 'slide' });
        expect(['rollOff', 'outerCorner']).toContain(technique);
      }),
    );
  });
  it('four failed in a row change the technique, a success in between does not', () => {
    const no = { technique: 'twoHanded', worked: false } as const;
    expect(failedTechniques([no, no, no])).toEqual([]);
    expect(failedTechniques([no, no, no, no])).toEqual(['twoHanded']);
    expect(failedTechniques([no, no, no, { ...no, worked: true }, no])).toEqual([]);
  });
});

describe('misses', () => {
  it('each belongs to a move, and each move has keys enough', () => {
    expect(new Set([...missesOf('on'), ...missesOf('off')])).toEqual(new Set(MISSES));
    for (const move of ['on', 'off'] as const) expect(missesOf(move).length).toBeLessThanOrEqual(9);
  });
});

describe('the plan', () => {
  const topics = careTopicsFor({ singleUse: false, longNails: true });
  it('care first, sign-off last, every topic in one part', () => {
    const { parts } = lessonPlan(topics, 2, hands, slide);
    expect(parts.map((p) => p.part)).toEqual(['care', 'wayOut', 'on', 'moveAndFind', 'off', 'again', 'signOff']);
    expect(parts.flatMap((p) => p.topics).toSorted()).toEqual([...topics].sort());
    expect(parts.find((p) => p.part === 'moveAndFind')?.topics).toEqual(['moveAndFind']);
  });
  it('topics alone: no handling, every topic with the care', () => {
    const { parts } = lessonPlan(['overnightRules', 'stuckLens'], 0, hands, slide);
    expect(parts).toEqual([
      { part: 'care', topics: ['overnightRules', 'stuckLens'] },
      { part: 'signOff', topics: [] },
    ]);
  });
});

describe('the clock (an hour with a lens in the hand or on the eye: common practice)', () => {
  const at = (minute: number): string => new Date(Date.UTC(2026, 10, 24, 10, minute)).toISOString();
  const turns = (...of: readonly (readonly [ClockTurn['turn'], number])[]): ClockTurn[] => of.map(([turn, minute]) => ({ turn, at: at(minute) }));
  it('counts only while it runs', () => {
    expect(lessonTime(turns(['run', 0], ['pause', 10], ['run', 30]), [], at(35))).toEqual({ used: 15, running: true, over: false });
    expect(lessonTime([], [], at(35))).toEqual({ used: 0, running: false, over: false });
  });
  it('an hour is over after an hour', () => {
    const signs = [at(20), at(40), at(55)];
    expect(lessonTime(turns(['run', 0]), signs, at(59))).toMatchObject({ used: 59, over: false });
    expect(lessonTime(turns(['run', 0]), signs, at(60))).toMatchObject({ used: 60, over: true });
  });
  it('a lesson left open overnight used half an hour after the last thing recorded, and does not run', () => {
    expect(lessonTime(turns(['run', 0]), [at(12)], at(18 * 60))).toEqual({ used: 12 + QUIET_MINUTES, running: false, over: false });
  });
  it('never runs backwards, whatever comes', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom<ClockTurn['turn']>('run', 'pause'), fc.integer({ min: 0, max: 300 })), { maxLength: 8 }),
        fc.nat(300),
        fc.nat(60),
        (of, now, more) => {
          const told = turns(...of.toSorted((a, b) => a[1] - b[1])).filter((t) => t.at <= at(now));
          const a = lessonTime(told, [], at(now)).used;
          const b = lessonTime(told, [], at(now + more)).used;
          expect(b).toBeGreaterThanOrEqual(a);
          expect(b - a).toBeLessThanOrEqual(more);
        },
      ),
    ));
  it('the forecast is the pace so far, failures among it', () => {
    expect(minutesToGo(22, 6, 2)).toBe(8);
    expect(minutesToGo(10, 0, 4)).toBeNull();
    expect(minutesToGo(10, 4, 0)).toBe(0);
  });
});
