import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addWanted,
  aimsOf,
  BEFORE_MONOVISION,
  dominanceOf,
  NEAR_TASK_IDS,
  NEAR_WAYS,
  nearFindingProblem,
  nearState,
  nearWays,
  wayWouldChange,
  WAY_RULES,
  type NearState,
  type WayFacts,
} from '../index';

const NEAR: NearState = { ...nearState([]), coverTest: 'straight', oldSquint: 'no', stereo: 40 };
const facts = (over: Partial<WayFacts> = {}, near: Partial<NearState> = {}): WayFacts => ({
  near: { ...NEAR, ...near },
  add: 1.5,
  cylinder: { right: 0.25, left: 0.25 },
  pupilRoomMm: 4,
  pupilDimMm: 5.5,
  flies: false,
  drivesForLiving: false,
  onlyGoodEye: false,
  weakEye: null,
  surgery: false,
  dry: false,
  ...over,
});
const way = (f: WayFacts) => nearWays(f).recommended.way;
const anyFacts: fc.Arbitrary<WayFacts> = fc
  .record({
    add: fc.option(fc.integer({ min: 1, max: 16 }).map((q) => q / 4)),
    cylinder: fc.record({ right: fc.option(fc.double({ min: 0, max: 3, noNaN: true })), left: fc.option(fc.double({ min: 0, max: 3, noNaN: true })) }),
    pupilRoomMm: fc.option(fc.integer({ min: 2, max: 7 })),
    pupilDimMm: fc.option(fc.integer({ min: 2, max: 8 })),
    flies: fc.boolean(),
    drivesForLiving: fc.boolean(),
    onlyGoodEye: fc.boolean(),
    weakEye: fc.constantFrom('right' as const, 'left' as const, null),
    surgery: fc.boolean(),
    dry: fc.boolean(),
    coverTest: fc.constantFrom('straight' as const, 'phoria' as const, 'tropia' as const, null),
    oldSquint: fc.constantFrom('no' as const, 'squint' as const, 'prism' as const, null),
    stereo: fc.option(fc.integer({ min: 0, max: 1000 })),
    monovisionBefore: fc.constantFrom('never' as const, 'liked' as const, 'disliked' as const, null),
    tasks: fc.subarray(NEAR_TASK_IDS).map((ids) => ids.map((task) => ({ task, cm: task === 'road' ? 600 : task === 'screen' ? 63 : 38 }))),
  })
  .map(({ coverTest, oldSquint, stereo, monovisionBefore, tasks, ...rest }) => facts(rest, { coverTest, oldSquint, stereo, monovisionBefore, tasks }));

describe('how near is served (common practice)', () => {
  it('little cylinder: multifocals; 0.75 D and more: toric ones; in one eye only: a toric and its spherical fellow', () => {
    expect(way(facts())).toBe('multifocal');
    expect(way(facts({ cylinder: { right: 1.25, left: 0.75 } }))).toBe('toricMultifocal');
    expect(way(facts({ cylinder: { right: 1.25, left: 0.25 } }))).toBe('toricOneEye');
  });
  it('whoever wore monovision and liked it keeps it', () => expect(way(facts({ add: 2 }, { monovisionBefore: 'liked' }))).toBe('monovision'));
  it('an only good eye gets its best far sight, and readers', () => {
    const advice = nearWays(facts({ onlyGoodEye: true }));
    expect(advice.recommended.way).toBe('readers');
    expect(advice.barred.find((b) => b.way === 'monovision')?.rules).toContain('onlyGoodEye');
  });
  it('a weak eye cannot take its turn', () => expect(way(facts({ weakEye: 'left' }))).toBe('readers'));
  it.each([
    ['who drives for a living (each eye 20/40: from memory)', facts({ drivesForLiving: true }, { monovisionBefore: 'liked' })],
    ['pilots', facts({ flies: true }, { monovisionBefore: 'liked' })],
    ['an old squint', facts({}, { oldSquint: 'squint', monovisionBefore: 'liked' })],
    ['prism', facts({}, { oldSquint: 'prism', monovisionBefore: 'liked' })],
    ['a squint seen today', facts({}, { coverTest: 'tropia', monovisionBefore: 'liked' })],
    ['an only good eye', facts({ onlyGoodEye: true }, { monovisionBefore: 'liked' })],
  ])('%s: no monovision, whatever speaks for it', (_who, of) => expect(nearWays(of).barred.map((b) => b.way)).toContain('monovision'));
  it('before the eyes are set apart cover test, history of squint and stereo are asked for', () => {
    const advice = nearWays(facts({}, { ...nearState([]), monovisionBefore: 'liked' }));
    expect(advice.recommended).toMatchObject({ way: 'monovision', needs: [...BEFORE_MONOVISION] });
  });
  it('over +1.75 monovision is no second choice; up to +1.50 it is partial first', () => {
    expect(nearWays(facts({ add: 2.25 }, { tasks: [{ task: 'phone', cm: 35 }] })).second?.way).not.toBe('monovision');
    expect(nearWays(facts({ add: 1.25 })).second?.way).toBe('partialMonovision');
  });
  it('always one way, whatever is known; a barred one is never offered; reasons are of rules that hold', () => {
    fc.assert(
      fc.property(anyFacts, (of) => {
        const advice = nearWays(of);
        const offered = [advice.recommended, ...(advice.second ? [advice.second] : []), ...advice.others];
        expect([...offered.map((c) => c.way), ...advice.barred.map((b) => b.way)].sort()).toEqual([...NEAR_WAYS].sort());
        for (const choice of offered) for (const r of choice.reasons) expect(WAY_RULES.find((rule) => rule.id === r.rule)?.holds(of)).toBe(true);
        for (const { to } of wayWouldChange(of)) expect(to).not.toBe(advice.recommended.way);
      }),
    );
  });
  it('every rule holds for somebody, and names its source', () => {
    const met = new Set(fc.sample(anyFacts, { numRuns: 3000, seed: 7 }).flatMap((of) => WAY_RULES.filter((r) => r.holds(of)).map((r) => r.id)));
    expect([...met].sort()).toEqual(WAY_RULES.map((r) => r.id).sort());
    for (const r of WAY_RULES) expect(r.source.text.length).toBeGreaterThan(0);
  });
});

describe('dominance', () => {
  it.each([
    ['left', 'left', 'left', 'blur'],
    ['left', 'right', 'left', 'blurOverSighting'],
    ['none', 'right', 'right', 'sighting'],
    [null, 'right', 'right', 'sighting'],
    ['none', 'none', null, 'unclear'],
    [null, null, null, 'unknown'],
  ] as const)('blur %s, sighting %s: %s, by %s', (dominanceBlur, dominanceSighting, eye, by) =>
    expect(dominanceOf({ dominanceBlur, dominanceSighting })).toEqual({ eye, by }),
  );
});

describe('what each eye is to see', () => {
  const of = (w: NearState['way'], add: number | null = 2) => aimsOf({ ...NEAR, way: w, dominanceBlur: 'left' }, add);
  it('monovision: the dominant eye far, the other near by the whole addition; partial at most +1.50 (common practice)', () => {
    expect(of('monovision')).toEqual({ left: { sees: 'far', plus: 0 }, right: { sees: 'near', plus: 2 } });
    expect(of('partialMonovision').right).toEqual({ sees: 'near', plus: 1.5 });
    expect(of('partialMonovision', 1).right.plus).toBe(1);
  });
  it('readers: both far; modified: the dominant eye far, the other both; else both see both', () => {
    expect([of('readers').right.sees, of('readers').left.sees]).toEqual(['far', 'far']);
    expect(of('modified')).toEqual({ left: { sees: 'far', plus: 0 }, right: { sees: 'both', plus: 0 } });
    expect(of(null).left.sees).toBe('both');
  });
  it('without an addition no eye is set nearer', () => expect(of('monovision', null).right.plus).toBe(0));
  it('a lens has an addition only where its eye sees both', () => {
    expect(addWanted({ sees: 'both', plus: 0 }, 1.5)).toBe(1.5);
    expect(addWanted({ sees: 'near', plus: 1.5 }, 1.5)).toBeNull();
  });
});

describe('what may be recorded of near sight', () => {
  it.each([
    ['stereo', 1001, 'stereoOutOfRange'],
    ['stereo', -1, 'stereoOutOfRange'],
    ['phone', 19, 'distanceOutOfRange'],
    ['phone', 601, 'distanceOutOfRange'],
    ['phone', 35.5, 'notUnderstood'],
    ['coverTest', 'sideways', 'notUnderstood'],
    ['coverTest', 3, 'notUnderstood'],
    ['phone', 'near', 'notUnderstood'],
    ['way', 'bifocal', 'notUnderstood'],
  ] as const)('%s %s: %s', (sign, value, code) => expect(nearFindingProblem(sign, value)?.code).toBe(code));
  it.each([
    ['stereo', 0],
    ['phone', 0],
    ['phone', 33],
    ['road', 600],
    ['coverTest', 'phoria'],
    ['way', 'readers'],
  ] as const)('%s %s is fine', (sign, value) => expect(nearFindingProblem(sign, value)).toBeNull());
});
