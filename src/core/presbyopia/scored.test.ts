import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changedPair, type LensPair, type PairChange } from './pair';
import { forecastFigures, readChange, readOutlook, scoreOf } from './scored';
import { writtenChange, writtenOutlook } from './written';

const pair: LensPair = { right: { sphere: -2, add: 'low', toric: false }, left: { sphere: -2.25, add: 'low', toric: false } };
const eye = fc.constantFrom('right' as const, 'left' as const);
const changes: fc.Arbitrary<PairChange> = fc.oneof(
  fc.record({ kind: fc.constant('sphere' as const), eye, by: fc.constantFrom(0.25, -0.25) }),
  fc.record({ kind: fc.constant('add' as const), eye, to: fc.constantFrom('low' as const, 'high' as const, '+1.50' as const, 'CD +2.00' as const, null) }),
  fc.constant({ kind: 'swap' as const }),
  fc.record({ kind: fc.constant('toric' as const), eye }),
);

describe('what was kept reads back', () => {
  it('every change', () => {
    fc.assert(
      fc.property(changes, (change) => {
        expect(readChange(writtenChange(change))).toEqual(change);
      }),
    );
  });
  it('every outlook, to a hundredth', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: -0.3, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 10, noNaN: true }),
        (vergence, then, satisfactionThen) => {
          const read = readOutlook(writtenOutlook({ demand: { vergence, light: 'room', needs: 0.2 }, now: 0.4, then, satisfactionThen, linesShort: 0 }));
          expect(read?.vergence).toBeCloseTo(vergence, 1);
          expect(read?.then).toBeCloseTo(then, 1);
          expect(read?.satisfaction).toBeCloseTo(satisfactionThen, 0);
        },
      ),
    );
  });
  it.each(['', 'sphere', 'sphere left', 'sphere middle +0.25', 'add left much', 'turn left'])('“%s” is no change', (text) => {
    expect(readChange(text)).toBeNull();
  });
  it.each(['', '2.50', '2.50 x 0.20 8.0'])('“%s” is no outlook', (text) => {
    expect(readOutlook(text)).toBeNull();
  });
});

describe('a forecast is scored by what followed', () => {
  const change: PairChange = { kind: 'sphere', eye: 'left', by: 0.25 };
  const kept = { change: writtenChange(change), foretold: ['0.00 0.00 0.06 8.0', '2.50 0.40 0.20 8.0'] };
  const after = changedPair(pair, change);
  it('task by task, through the pair that the change makes', () => {
    const scores = scoreOf(kept, pair, after, [{ vergence: 2.5, acuity: 0.3, satisfaction: 6 }]);
    expect(scores).toMatchObject([{ foretold: { vergence: 2.5, then: 0.2 }, read: { acuity: 0.3 } }]);
  });
  it('through another pair nothing is scored', () => {
    expect(scoreOf(kept, pair, pair, [{ vergence: 2.5, acuity: 0.3, satisfaction: 6 }])).toEqual([]);
    expect(scoreOf({ ...kept, change: 'nonsense' }, pair, after, [{ vergence: 2.5, acuity: 0.3, satisfaction: 6 }])).toEqual([]);
  });
  it('figures count what was foretold to a line and to two points, and say when it was too hopeful', () => {
    const score = (then: number, acuity: number | null, foretold: number, said: number) => ({
      foretold: { vergence: 2.5, now: 0.5, then, satisfaction: foretold },
      read: { vergence: 2.5, acuity, satisfaction: said },
    });
    expect(forecastFigures([score(0.2, 0.3, 8, 6), score(0.2, 0.4, 8, 5), score(0.1, null, 9, 9), score(0.1, 0.1, 9, 9)])).toEqual({
      tasks: 4,
      read: 3,
      withinLine: 2,
      tooHopefulLines: expect.closeTo(1, 6) as number,
      satisfactionWithin: 3,
    });
    expect(forecastFigures([]).tooHopefulLines).toBeNull();
  });
});
