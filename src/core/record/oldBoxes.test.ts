import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/dates';
import { oldBoxes, type OldBoxesFile } from './oldBoxes';
import type { Prescription } from './prescription';

const TODAY = '2026-11-24';
const lens = (sphereD: number) => ({
  familyCode: 'curlew',
  modality: 'monthly',
  sphereD,
  cylinderD: 0,
  axisDeg: 180,
  addBand: null,
  baseCurveMm: 8.6,
  diameterMm: 14.2,
});
const PRESCRIPTION = { purpose: 'everyday', daysPerWeek: 7, eyes: [{ eye: 'right', lensId: 'new', raw: null }] } as unknown as Prescription;
const order = (change: object = {}) => ({
  id: 'o',
  number: 3,
  kind: 'supply',
  prescriptionId: 'p-old',
  deliverTo: 'practice',
  lines: [{ id: 'line', eye: 'right', lensId: 'old', packs: 4, packSize: 3 }],
  receipts: [],
  events: [{ state: 'acknowledged', dueOn: null }],
  claims: [],
  ...change,
});
const given = (on: string, lensCount: number, lensId = 'old', orderLineId: string | null = 'line') => {
  const row = { eye: 'right', lensId, orderLineId, handedOn: on, openedOn: null, lensCount };
  return { rootId: on, rows: [row], current: row };
};
const received = (packs: number, handedOver: boolean) => ({ id: `r${packs}`, orderLineId: 'line', packs, handedOver });
const file = (orders: object[], handOvers: object[] = []) =>
  ({
    orders,
    handOvers,
    losses: [],
    lenses: { old: lens(-2), new: lens(-2.25), older: lens(-1.75) },
    prescriptions: [
      { id: 'p-old', purpose: 'everyday' },
      { id: 'p-sport', purpose: 'sport' },
    ],
  }) as unknown as OldBoxesFile;
const found = (orders: object[], handOvers: object[] = []) => oldBoxes(file(orders, handOvers), PRESCRIPTION, TODAY).map((b) => [b.at, b.packs]);

/** Common practice: after a changed prescription unopened boxes are exchanged, old powers not worn. */
describe('boxes of a power that was changed', () => {
  it('those still to come, those that lie here, and those unopened at the wearer’s by the label’s count', () => {
    expect(found([order()])).toEqual([['coming', 4]]);
    expect(found([order({ receipts: [received(3, false)] })])).toEqual([
      ['here', 3],
      ['coming', 1],
    ]);
    // Four boxes of three monthlies, 100 days ago: the second box is open, two are not.
    expect(found([order({ receipts: [received(4, true)] })], [given(addDays(TODAY, -100), 12)])).toEqual([['withWearer', 2]]);
  });
  it('none is opened any more once the new power went home', () => {
    const handed = [given(addDays(TODAY, -100), 12), given(addDays(TODAY, -95), 6, 'new', 'another')];
    expect(found([order({ receipts: [received(4, true)] })], handed)).toEqual([['withWearer', 3]]);
  });
  it('the boxes that came last are the ones not opened', () => {
    const second = order({
      id: 'o2',
      number: 4,
      lines: [{ id: 'line2', eye: 'right', lensId: 'old', packs: 1, packSize: 3 }],
      receipts: [{ ...received(1, true), orderLineId: 'line2' }],
    });
    const handed = [given(addDays(TODAY, -100), 3), given(addDays(TODAY, -50), 3, 'old', 'line2')];
    const boxes = oldBoxes(file([second, order({ lines: [{ ...order().lines[0], packs: 1 }], receipts: [received(1, true)] })], handed), PRESCRIPTION, TODAY);
    // The first was opened 100 days ago and ended ten days ago; the second is open since.
    expect(boxes).toEqual([]);
    expect(
      oldBoxes(
        file([second, order({ lines: [{ ...order().lines[0], packs: 1 }], receipts: [received(1, true)] })], [given(addDays(TODAY, -50), 3), handed[1] ?? {}]),
        PRESCRIPTION,
        TODAY,
      ).map((b) => [b.orderNumber, b.packs]),
    ).toEqual([[4, 1]]);
  });
  it('not those of another purpose, of the power that holds, cancelled before anything came, or asked to be exchanged', () => {
    expect(found([order({ prescriptionId: 'p-sport' })])).toEqual([]);
    expect(found([order({ lines: [{ id: 'line', eye: 'right', lensId: 'new', packs: 4, packSize: 3 }] })])).toEqual([]);
    expect(found([order({ events: [{ state: 'cancelled', dueOn: null }] })])).toEqual([]);
    const claims = (step: string | null) => [{ orderLineId: 'line', kind: 'exchange', packs: 2, step }];
    const all = { receipts: [received(4, false)] };
    expect(found([order({ ...all, claims: claims(null) })])).toEqual([['here', 2]]);
    expect(found([order({ ...all, claims: claims('withdrawn') })])).toEqual([['here', 4]]);
    const home = [given(addDays(TODAY, -10), 12)];
    expect(found([order({ receipts: [received(4, true)], claims: claims('credited') })], home)).toEqual([['withWearer', 1]]);
  });
  it('an eye that has no lens any more wears none of them', () => {
    expect(oldBoxes(file([order()]), { ...PRESCRIPTION, eyes: [] }, TODAY)).toMatchObject([{ at: 'coming', packs: 4, eye: 'right' }]);
  });
});
