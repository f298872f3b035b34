import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  careDates,
  caredFor,
  careFindings,
  careWarning,
  chains,
  daysBetween,
  keptIn,
  proposeCare,
  soakOver,
  type AftercareAnswerFact,
  type CareBearing,
  type CareProduct,
  type CareSystem,
  type CareSystemFact,
  type FactChain,
  type LensRow,
  type OnEyeFact,
} from '../index';

const product = (system: CareSystem, change: Partial<CareProduct> = {}): CareProduct => ({
  ...{ productId: 'p', system, name: 'Tidewash', maker: 'Marram Optical', ownLabel: false, soakMinutes: 360, storeDays: 30, discardDays: 90 },
  ...{ catalystDays: null, includesCase: true, ended: false, ...change },
});
const faults = (p: CareProduct, effect?: 'irritates' | 'avoid'): readonly string[] =>
  careFindings(p, ['hydrogel'], effect ? [{ productId: 'p', material: 'Hydrogel', effect, source: 'its maker' }] : []).map((f) => `${f.gravity} ${f.fault}`);

describe('which care system (common practice: multipurpose to start; peroxide for sensitivity, allergy, deposits)', () => {
  const bearing: CareBearing = { answers: {}, troubles: [], deposits: false };
  it.each<readonly [string, CareBearing, CareSystem, string]>([
    ['nothing known', bearing, 'multipurpose', 'first'],
    ['a solution was not borne', { ...bearing, answers: { allergy: { value: ['solution'], note: null } } }, 'peroxide', 'allergy'],
    ['eyes that itch by themselves', { ...bearing, answers: { allergy: { value: ['eyes'], note: null } } }, 'peroxide', 'sensitivity'],
    ['stinging said at aftercare', { ...bearing, troubles: ['sting'] }, 'peroxide', 'sensitivity'],
    ['deposits seen', { ...bearing, deposits: true }, 'peroxide', 'deposits'],
    ['deposits were why lenses changed', { ...bearing, answers: { whyChange: { value: ['deposits'], note: null } } }, 'peroxide', 'deposits'],
    ['hay fever alone', { ...bearing, answers: { allergy: { value: ['season'], note: null } } }, 'multipurpose', 'first'],
  ])('%s', (_name, of, system, reason) => {
    expect(proposeCare(of)).toMatchObject({ system, reason });
  });
});

describe('what speaks against a product', () => {
  it.each([
    ['a disinfecting one', product('multipurpose'), []],
    ['made for rigid lenses', product('rigid', { soakMinutes: null }), ['absolute rigidOnSoft']],
    ['saline', product('saline', { soakMinutes: null }), ['absolute disinfectsNothing']],
    ['drops', product('drops', { soakMinutes: null }), ['absolute disinfectsNothing']],
    ['a soak that nobody looked up', product('multipurpose', { soakMinutes: null }), ['absolute figuresUnknown']],
    ['days after opening that nobody looked up', product('peroxide', { discardDays: null }), ['absolute figuresUnknown']],
    ['peroxide without its own case', product('peroxide', { includesCase: false }), ['stop noOwnCase']],
    ['multipurpose without a case: any clean one does', product('multipurpose', { includesCase: false }), []],
    ['a shop’s own label', product('multipurpose', { ownLabel: true }), ['watch ownLabel']],
    ['no longer sold', product('multipurpose', { ended: true }), ['stop ended']],
  ] as const)('%s', (_name, p, expected) => expect(faults(p)).toEqual(expected));
  it('a pair that irritates is said, one to be avoided stops; materials are one whatever their letters', () => {
    expect(faults(product('multipurpose'), 'irritates')).toEqual(['watch pairIrritates']);
    expect(faults(product('multipurpose'), 'avoid')).toEqual(['stop pairAvoid']);
  });
});

describe('clocks of care', () => {
  it.each([
    // tz database: clocks go forward on 8 March 2026 and back on 1 November in New York, on 29 March and 25 October in London.
    ['America/New_York', '2026-03-08T04:10:00.000Z', '06:10'],
    ['America/New_York', '2026-11-01T03:10:00.000Z', '04:10'],
    ['Europe/London', '2026-03-28T23:10:00.000Z', '06:10'],
    ['Europe/London', '2026-10-24T22:10:00.000Z', '04:10'],
    ['America/New_York', '2026-11-25T04:10:00.000Z', '05:10'],
  ])('six hours from 23:10 in %s', (timeZone, from, wall) => {
    const over = soakOver(from, { soakMinutes: 360 }) ?? '';
    const clock = (at: string): string => new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit' }).format(new Date(at));
    expect(clock(from)).toBe('23:10');
    expect(clock(over)).toBe(wall);
  });
  it('a soak that nobody looked up is over at no time', () => expect(soakOver('2026-03-08T04:10:00.000Z', { soakMinutes: null })).toBeNull());
  it('the day of opening is day 1', () => {
    expect(careDates('2026-01-01', product('multipurpose', { discardDays: 30 }), 3)).toEqual({
      bottle: '2026-01-30',
      catalyst: null,
      ordinaryCase: '2026-03-31',
    });
    expect(careDates('2028-02-29', product('peroxide', { discardDays: 60, catalystDays: 60 }), 3)).toEqual({
      bottle: '2028-04-28',
      catalyst: '2028-04-28',
      ordinaryCase: null,
    });
  });
  it('a bottle is used for as many days as its label says, whatever the month', () =>
    fc.assert(
      fc.property(fc.date({ min: new Date('2024-01-01'), max: new Date('2032-12-31'), noInvalidDate: true }), fc.integer({ min: 1, max: 730 }), (day, days) => {
        const opened = day.toISOString().slice(0, 10);
        const { bottle } = careDates(opened, product('multipurpose', { discardDays: days }), 1);
        expect(daysBetween(opened, bottle ?? '') + 1).toBe(days);
      }),
    ));
});

describe('what lenses are kept in, wherever both meet', () => {
  const fact = (id: string, recordedAt: string) => ({
    ...{ id, rootId: id, visitId: 'v', visitVersion: 1, recordedBy: 'p', recordedByName: 'Teo Brannock', correctsId: null, reason: null, voided: false },
    ...{ observedAt: recordedAt, recordedAt, eye: null },
  });
  const prescribed = (at: string) =>
    chains<CareSystemFact>([
      {
        ...fact('c', at),
        ...{ productId: 'p', careProductId: 'q', productName: 'Tidewash', chosenFor: 'first', note: null, overridden: [], overrideNote: null },
      },
    ]);
  const said = (what: string, at: string) => chains<AftercareAnswerFact>([{ ...fact('a', at), question: 'solutionUsed', said: [what] }]);
  it('is what was said or prescribed last', () => {
    expect(keptIn([], [])).toBeNull();
    expect(keptIn(prescribed('2026-01-01T10:00:00Z'), [])).toBe('p');
    expect(keptIn(prescribed('2026-01-01T10:00:00Z'), said('water', '2026-02-01T10:00:00Z'))).toBe('water');
    expect(keptIn(prescribed('2026-03-01T10:00:00Z'), said('water', '2026-02-01T10:00:00Z'))).toBe('p');
  });
  it.each([
    ['water', 'disinfectsNothing'],
    ['saline', 'disinfectsNothing'],
    ['shopsOwn', 'ownLabel'],
  ])('%s is said: %s', (what, fault) => expect(careWarning(what, [], ['hydrogel'], [])?.findings.map((f) => f.fault)).toEqual([fault]));
  it('a pair that irritates is said of the product; nothing known, nothing kept or nothing wrong says nothing', () => {
    const pair = { productId: 'p', material: 'hydrogel', effect: 'irritates', source: 's' } as const;
    expect(careWarning('p', [product('multipurpose')], ['hydrogel'], [pair])).toMatchObject({ name: 'Tidewash', findings: [{ fault: 'pairIrritates' }] });
    expect(careWarning('p', [product('multipurpose')], [], [pair])).toBeNull();
    expect(careWarning(null, [product('multipurpose')], ['hydrogel'], [pair])).toBeNull();
    expect(careWarning('p', [product('multipurpose', { soakMinutes: null })], ['hydrogel'], [])).toBeNull();
    expect(careWarning('notSure', [], ['hydrogel'], [])).toBeNull();
  });
});

describe('the lenses that a care system is for', () => {
  const row = (id: string, modality: 'daily' | 'monthly') => ({ id, modality, familyCode: id }) as LensRow;
  const on = (lensId: string) => [{ rootId: 'r', rows: [], current: { lensId } }] as unknown as readonly FactChain<OnEyeFact>[];
  const families = [
    { code: 'a', material: 'hydrogel' },
    { code: 'b', material: 'silicone hydrogel' },
  ];
  const of = { lenses: { a: row('a', 'monthly'), b: row('b', 'daily') }, families, prescriptions: [] };
  it('are those that are kept; single-use ones are kept nowhere; no lens known is not the same as none kept', () => {
    expect(caredFor({ ...of, onEye: on('a') })).toEqual({ materials: ['hydrogel'], reusable: true });
    expect(caredFor({ ...of, onEye: on('b') })).toEqual({ materials: [], reusable: false });
    expect(caredFor({ ...of, onEye: [] })).toEqual({ materials: [], reusable: null });
  });
});
