import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  changedPair,
  EYES,
  forecastFor,
  isSamePair,
  MOST_CHANGES,
  nextChange,
  USUAL_RULE,
  type LensPair,
  type NextInput,
  type PairReading,
  type PairWearer,
  type TaskDemand,
} from '../index';

const FAR: TaskDemand = { vergence: 0, light: 'dim', needs: 0.1 };
const PHONE: TaskDemand = { vergence: 2.5, light: 'room', needs: 0.25 };
const POWERS = { low: 1, medium: 1.75, high: 2.25 } as const;
const eye = { need: -2, halfCylinder: 0, halfCylinderToric: 0, best: 0, decentredMm: 0 };
const wearer: PairWearer = {
  eyes: { right: eye, left: eye },
  pupilRoomMm: 4,
  pupilDimMm: 5.5,
  comfortable: 0.5,
  nearOf: (add) => ({ design: 'centreNear', power: POWERS[add as keyof typeof POWERS] ?? 0 }),
};
const pair = (right: Partial<LensPair['right']> = {}, left: Partial<LensPair['left']> = {}): LensPair => {
  const lens = { sphere: -2, add: 'low' as const, toric: false };
  return { right: { ...lens, ...right }, left: { ...lens, ...left } };
};
const { both } = forecastFor(wearer);
/** What somebody would read who is just as the forecast says, with what they say of it. */
const reading = (of: LensPair, far: number, near: number, held: PairReading['held'] = []): PairReading => ({
  pair: of,
  tasks: [
    { demand: FAR, acuity: both(of, FAR), satisfaction: far },
    { demand: PHONE, acuity: both(of, PHONE), satisfaction: near },
  ],
  held,
});
const input = (worn: readonly PairReading[], over: Partial<NextInput> = {}): NextInput => ({
  wearer,
  choices: { adds: ['low', 'medium', 'high'], makes: () => true, toric: [] },
  rule: USUAL_RULE,
  dominant: 'right',
  worn,
  ...over,
});

describe('the next single change', () => {
  it('nothing was judged: nothing is said', () => expect(nextChange(input([]))).toBeNull());
  it('whoever is satisfied keeps the pair', () => expect(nextChange(input([reading(pair(), 9, 9)]))?.verdict).toBe('keep'));
  it('near weak: the eye that is not dominant, more plus there (common practice)', () => {
    const next = nextChange(input([reading(pair(), 9, 3)]));
    expect(next?.verdict).toBe('change');
    if (next?.verdict !== 'change') return;
    const { change, ruled } = next.proposed;
    expect(ruled).not.toBeNull();
    expect('eye' in change && change.eye).toBe('left');
    expect(change.kind === 'sphere' ? change.by > 0 : change.kind === 'add' && change.to === 'medium').toBe(true);
  });
  it('far weak: plus taken off the dominant eye, or its lower addition (common practice)', () => {
    const next = nextChange(input([reading(pair({ sphere: -1.5, add: 'medium' }, { sphere: -1.5, add: 'medium' }), 2, 9)]));
    expect(next?.verdict).toBe('change');
    if (next?.verdict !== 'change') return;
    const { change } = next.proposed;
    expect('eye' in change && change.eye).toBe('right');
    expect(change.kind === 'sphere' ? change.by < 0 : change.kind === 'add' && change.to === 'low').toBe(true);
  });
  it('says what it gains and what it costs at every distance', () => {
    const next = nextChange(input([reading(pair(), 9, 3)]));
    if (next?.verdict !== 'change') throw new Error('no change');
    expect(next.proposed.tasks.map((t) => t.demand)).toEqual([FAR, PHONE]);
    expect(next.proposed.tasks[1]!.then).toBeLessThan(next.proposed.tasks[1]!.now);
    expect(next.proposed.tasks[0]!.then).toBeGreaterThanOrEqual(next.proposed.tasks[0]!.now - 1e-9);
  });
  it('what a held quarter made better goes before what it made worse', () => {
    const held = (['right', 'left'] as const).flatMap((e) =>
      ([0.25, -0.25] as const).map((by) => ({ eye: e, by, demand: PHONE, answer: e === 'right' && by > 0 ? ('better' as const) : ('worse' as const) })),
    );
    const next = nextChange(input([reading(pair(), 9, 5, held)]));
    if (next?.verdict !== 'change') throw new Error('no change');
    const of = (e: 'right' | 'left') => [next.proposed, ...next.others].find((o) => o.change.kind === 'sphere' && o.change.eye === e && o.change.by > 0)!.gain;
    expect(of('right')).toBeGreaterThan(of('left'));
  });
  it('nothing that is not made is proposed', () => {
    const next = nextChange(input([reading(pair(), 9, 3)], { choices: { adds: ['low'], makes: () => false, toric: [] } }));
    expect(next?.verdict).toBe('stop');
  });
  it('cylinder that a toric of the same design takes away is the change where far is weak by it (common practice)', () => {
    const blurred = { ...eye, halfCylinder: 0.625, halfCylinderToric: 0.1 };
    const cylinder = { ...wearer, eyes: { right: blurred, left: eye } };
    const seen = forecastFor(cylinder).both;
    const tasks = [FAR, PHONE].map((demand, i) => ({ demand, acuity: seen(pair(), demand) + 0.1, satisfaction: [3, 6][i]! }));
    const asked = (toric: readonly ('right' | 'left')[]) =>
      nextChange(
        input([{ pair: pair(), tasks, held: [] }], {
          wearer: cylinder,
          rule: { farWeak: [], nearWeak: [] },
          choices: { adds: ['low'], makes: () => false, toric },
        }),
      );
    const next = asked(['right']);
    if (next?.verdict !== 'change') throw new Error('no change');
    expect(next.proposed.change).toEqual({ kind: 'toric', eye: 'right' });
    expect(next.proposed.pair.right.toric).toBe(true);
    expect(next.proposed.tasks[0]!.then).toBeLessThan(next.proposed.tasks[0]!.now);
    // Not made, or on already: nothing else is left.
    expect(asked([])?.verdict).toBe('stop');
    // Where there is no cylinder to take away it wins nothing.
    const round = nextChange(input([reading(pair(), 3, 6)], { choices: { adds: ['low'], makes: () => false, toric: ['right'] } }));
    const gain = (round?.verdict === 'change' ? [round.proposed, ...round.others] : (round?.others ?? [])).find((o) => o.change.kind === 'toric')!.gain;
    expect(gain).toBeLessThan(next.proposed.gain / 4);
  });
  it('always one change at a time, never a pair that was worn, and an end after three', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 10 }), fc.integer({ min: 0, max: 10 })), { minLength: 6, maxLength: 6 }), (said) => {
        const worn: PairReading[] = [];
        let now = pair();
        for (const [far, near] of said) {
          worn.push(reading(now, far, near));
          const next = nextChange(input(worn));
          if (next?.verdict !== 'change') return;
          expect(worn.length).toBeLessThanOrEqual(MOST_CHANGES);
          expect(changedPair(now, next.proposed.change)).toEqual(next.proposed.pair);
          expect(worn.some((w) => isSamePair(w.pair, next.proposed.pair))).toBe(false);
          if (next.proposed.change.kind !== 'swap')
            expect(EYES.filter((e) => JSON.stringify(now[e]) !== JSON.stringify(next.proposed.pair[e]))).toHaveLength(1);
          now = next.proposed.pair;
        }
        throw new Error('no end');
      }),
      { numRuns: 25 },
    );
  });
});
