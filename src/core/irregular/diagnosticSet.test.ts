import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_SET_LENSES, DEMO_SETS } from '../../../demo/diagnosticSets';
import {
  isMade,
  mayGoOn,
  nextOfSet,
  proposeOfSet,
  readinessOf,
  readSetTable,
  startOfSet,
  upGazeCurve,
  writeSetTable,
  type DiagnosticLensPast,
  type IrregularCornea,
} from '../index';

const at = (...list: readonly (readonly [number, number])[]) => list.map(([baseCurve, diameter]) => ({ baseCurve, diameter }));
const LADDER = at([7.6, 14.5], [8, 14.5], [8.4, 14.5], [8.8, 14.5]);
const cornea = (over: Partial<IrregularCornea> = {}): IrregularCornea => ({ kind: null, stage: null, hvidMm: null, ...over });
const TABLE = readSetTable('prolate stage<=2 hvid<=11.8 8.4/14.5 | prolate 8.0/14.5 | oblate 8.8/14.5') ?? [];

describe('the lens of a set to begin with (common practice)', () => {
  it.each([
    ['a mild cone of a usual cornea', cornea({ kind: 'prolate', stage: 2, hvidMm: 11.6 }), 8.4, 'table'],
    ['a cone of a wide cornea', cornea({ kind: 'prolate', stage: 2, hvidMm: 12.2 }), 8, 'table'],
    ['a cone that nobody staged', cornea({ kind: 'prolate' }), 8, 'table'],
    ['after surgery', cornea({ kind: 'oblate' }), 8.8, 'table'],
    ['of no kind that the table names: the middle lens', cornea(), 8, 'middle'],
  ] as const)('%s', (_name, of, curve, by) => expect(startOfSet(LADDER, TABLE, of)).toMatchObject({ curve: { baseCurve: curve }, by }));
  it('a line of the table whose lens is not in the set is passed over; a set without lenses has no start', () => {
    expect(startOfSet(LADDER.slice(1, 2), TABLE, cornea({ kind: 'oblate' }))).toMatchObject({ curve: { baseCurve: 8 }, by: 'middle' });
    expect(startOfSet([], TABLE, cornea())).toBeNull();
  });
  it('of an even number of lenses the steeper of the two middle ones', () => expect(startOfSet(LADDER, [], cornea())?.curve.baseCurve).toBe(8));
});

describe('the next lens of the same set (common practice)', () => {
  const from = { baseCurve: 8.4, diameter: 14.5 };
  it('too much movement: steeper; too little: flatter; by the set’s step', () => {
    expect(nextOfSet(LADDER, from, 'loose')?.baseCurve).toBe(8);
    expect(nextOfSet(LADDER, from, 'tight')?.baseCurve).toBe(8.8);
  });
  it('the set ends: nothing', () => {
    expect(nextOfSet(LADDER, LADDER[0]!, 'loose')).toBeNull();
    expect(nextOfSet(LADDER, LADDER[3]!, 'tight')).toBeNull();
    expect(nextOfSet(at([8, 14.2]), from, 'loose')).toBeNull();
  });
  it('there and back again, through every set', () => {
    for (const lens of LADDER) {
      const next = nextOfSet(LADDER, lens, 'loose');
      if (next) expect(nextOfSet(LADDER, next, 'tight')).toEqual(lens);
    }
  });
  it('a mark that wanders in up gaze: 0.1 to 0.2 mm steeper, the smaller step where it is made', () => {
    expect(upGazeCurve(at([8.4, 14.5], [8.3, 14.5], [8.2, 14.5], [8.1, 14.5]), from)?.baseCurve).toBe(8.3);
    expect(upGazeCurve(at([8.4, 14.5], [8.2, 14.5]), from)?.baseCurve).toBe(8.2);
    expect(upGazeCurve(at([8.4, 14.5], [8.1, 14.5], [8.3, 14.2]), from)).toBeNull();
  });
});

describe('what is proposed of a set', () => {
  const propose = (tried: Parameters<typeof proposeOfSet>[4], of = cornea({ kind: 'oblate' })) => proposeOfSet('heron', LADDER, TABLE, of, tried);
  const on = (fit: 'loose' | 'fits' | 'tight' | null, setCode = 'heron') => ({ ...LADDER[2]!, setCode, fit });
  it('its start while nothing of it was tried; then the next by how it fitted; nothing beside one that fits or was not judged', () => {
    expect(propose(null)).toMatchObject({ lens: { baseCurve: 8.8 }, why: 'table' });
    expect(propose(on('loose'))).toMatchObject({ lens: { baseCurve: 8 }, why: 'steeper' });
    expect(propose(on('tight'))).toMatchObject({ lens: { baseCurve: 8.8 }, why: 'flatter' });
    expect([propose(on('fits')), propose(on(null)), propose({ ...LADDER[0]!, setCode: 'heron', fit: 'loose' })]).toEqual([null, null, null]);
  });
  it('numbers of another set say nothing: its lens that was loose moves nothing here', () =>
    expect(propose(on('loose', 'bittern'))).toMatchObject({ lens: { baseCurve: 8.8 }, why: 'table' }));
});

describe('a start table in one cell', () => {
  it('is read and written without loss', () => {
    expect(readSetTable(writeSetTable(TABLE))).toEqual(TABLE);
    for (const set of DEMO_SETS) expect(readSetTable(writeSetTable(set.setTable ?? []))).toEqual(set.setTable);
  });
  it.each(['cone 8.4/14.5', 'prolate 8.4', 'prolate stage<=5 8.4/14.5', 'prolate stage<=2 hvid<=x 8.4/14.5', '8.4/14.5'])('%s cannot be read', (text) =>
    expect(readSetTable(text)).toBeNull(),
  );
});

describe('the sets of the demo', () => {
  it.each(DEMO_SETS.map((s) => [s.name, s] as const))(
    '%s: every line of its table begins with a lens that lies in it, every lens is made, stabilised',
    (_name, set) => {
      const lenses = DEMO_SET_LENSES.filter(([code]) => code === set.code);
      const curves = lenses.map(([, , , baseCurve, diameter]) => ({ baseCurve, diameter }));
      for (const row of set.setTable ?? []) {
        const of = cornea({ kind: row.kind, stage: row.stageUpTo, hvidMm: row.hvidUpTo });
        expect(startOfSet(curves, set.setTable ?? [], of)).toMatchObject({ by: 'table', row });
      }
      for (const [, , sphere, baseCurve, diameter] of lenses)
        expect(isMade({ sphere, cylinder: 0, axis: 180, add: null, baseCurve, diameter }, set)).toBe(true);
      expect([set.irregular, set.reusableTrial, set.stabilisation !== null]).toEqual([true, true, true]);
    },
  );
});

const hour = (n: number): string => new Date(Date.UTC(2026, 10, 24, n)).toISOString();
const past = (over: Partial<DiagnosticLensPast>): DiagnosticLensPast => ({ uses: [], disinfections: [], endedAt: null, ...over });

describe('how a lens of a set stands', () => {
  const used = { onAt: hour(9), offAt: hour(10) };
  it.each([
    ['never on an eye', past({}), 'new'],
    ['on one', past({ uses: [{ onAt: hour(9), offAt: null }] }), 'onEye'],
    ['taken off', past({ uses: [used] }), 'used'],
    ['disinfected before it was last on: that counts for nothing', past({ uses: [used], disinfections: [{ beganAt: hour(7), endsAt: hour(8) }] }), 'used'],
    ['in its solution', past({ uses: [used], disinfections: [{ beganAt: hour(10), endsAt: hour(13) }] }), 'soaking'],
    ['its time is over', past({ uses: [used], disinfections: [{ beganAt: hour(10), endsAt: hour(12) }] }), 'ready'],
    [
      'begun again: the newest counts',
      past({
        uses: [used],
        disinfections: [
          { beganAt: hour(10), endsAt: hour(11) },
          { beganAt: hour(11), endsAt: hour(14) },
        ],
      }),
      'soaking',
    ],
    ['out of its set', past({ uses: [used], endedAt: hour(11) }), 'ended'],
  ] as const)('%s', (_name, of, state) => expect(readinessOf(of, hour(12)).state).toBe(state));
  it('never may go on between a use and the end of a disinfection begun after it, whatever else happened', () => {
    const moment = fc.integer({ min: 0, max: 40 });
    fc.assert(
      fc.property(fc.array(fc.tuple(moment, fc.integer({ min: 1, max: 6 })), { maxLength: 6 }), moment, moment, (soaks, off, now) => {
        const disinfections = soaks.sort(([a], [b]) => a - b).map(([begin, long]) => ({ beganAt: hour(begin), endsAt: hour(begin + long) }));
        const state = readinessOf(past({ uses: [{ onAt: hour(-1), offAt: hour(off) }], disinfections }), hour(now));
        if (mayGoOn(state)) expect(soaks.some(([begin, long]) => begin >= off && begin + long <= now)).toBe(true);
      }),
    );
  });
});
