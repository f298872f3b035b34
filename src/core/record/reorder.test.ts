import { describe, expect, it } from 'vitest';
import { inHandOf, onTheWayTo } from './eyeStock';
import { examinationBooked } from './examination';
import type { Prescription } from './prescription';
import { eyeReorder, offersOf, orderCost, packsOffered, reorderBar, type EyeReorder, type ReorderSource } from './reorder';
import type { WearerFile } from './wearerFile';

const TODAY = '2026-11-24';
const handOver = (on: string, lensId: string, change: object = {}) => {
  const row = {
    rootId: on,
    id: on,
    eye: 'right',
    lensId,
    handedOn: on,
    openedOn: null,
    lensCount: 6,
    orderLineId: null,
    observedAt: `${on}T10:00:00Z`,
    ...change,
  };
  return { rootId: on, rows: [row], current: row };
};
const order = (change: object = {}) => ({
  kind: 'supply',
  prescriptionId: 'p',
  lines: [{ id: 'line', eye: 'right', lensId: 'lens', packs: 3, packSize: 3 }],
  receipts: [],
  events: [{ state: 'acknowledged', dueOn: '2026-12-01' }],
  ...change,
});
const fileOf = (handOvers: object[], orders: object[] = []) =>
  ({ handOvers, orders, losses: [], lenses: { lens: { familyCode: 'curlew', familyName: 'Curlew', modality: 'monthly' } } }) as unknown as WearerFile;
const PRESCRIPTION = { id: 'p', expiresOn: '2027-11-24', daysPerWeek: 7, eyes: [{ eye: 'right', lensId: 'lens', raw: null }] } as unknown as Prescription;

describe('what an eye has', () => {
  it('every hand-over of the lens handed over last; those of an earlier power are not to be worn', () => {
    const of = inHandOf(
      fileOf([handOver('2026-01-10', 'old'), handOver('2026-05-01', 'lens', { openedOn: '2026-05-03' }), handOver('2026-09-01', 'lens')]),
      'right',
    );
    expect(of.map((d) => [d.on, d.openedOn, d.lenses])).toEqual([
      ['2026-05-01', '2026-05-03', 6],
      ['2026-09-01', null, 6],
    ]);
    expect(inHandOf(fileOf([handOver('2026-01-10', 'old')]), 'left')).toEqual([]);
  });
  it('boxes are as large as the line that they came from', () => {
    expect(inHandOf(fileOf([handOver('2026-05-01', 'lens', { orderLineId: 'line' })], [order()]), 'right')[0]?.packSize).toBe(3);
  });
  it('what lies here can be fetched today, what was promised comes that day, what is late or unanswered as an order of today would', () => {
    const on = (change: object) => onTheWayTo(fileOf([], [order(change)]), PRESCRIPTION, 'right', TODAY, '2026-11-29').map((d) => [d.on, d.lenses]);
    expect(on({})).toEqual([['2026-12-01', 9]]);
    expect(on({ receipts: [{ orderLineId: 'line', packs: 1, handedOver: false }] })).toEqual([
      [TODAY, 3],
      ['2026-12-01', 6],
    ]);
    expect(on({ receipts: [{ orderLineId: 'line', packs: 3, handedOver: true }] })).toEqual([]);
    expect(on({ events: [{ state: 'acknowledged', dueOn: '2026-11-01' }] })).toEqual([['2026-11-29', 9]]);
    expect(on({ events: [] })).toEqual([['2026-11-29', 9]]);
    expect(on({ events: [{ state: 'refused', dueOn: null }] })).toEqual([]);
    expect(on({ kind: 'trial' })).toEqual([]);
    // Cancelled: what came before lies here, nothing more comes.
    expect(on({ events: [{ state: 'cancelled', dueOn: null }], receipts: [{ orderLineId: 'line', packs: 1, handedOver: false }] })).toEqual([[TODAY, 3]]);
    expect(on({ lines: [{ id: 'line', eye: 'right', lensId: 'another', packs: 3, packSize: 3 }] })).toEqual([]);
  });
});

describe('a parcel sent straight to the wearer', () => {
  const straight = (...states: string[]) =>
    onTheWayTo(
      fileOf([], [order({ deliverTo: 'wearer', events: states.map((state, i) => ({ state, at: `2026-11-2${i}T15:00:00Z`, dueOn: null })) })]),
      PRESCRIPTION,
      'right',
      TODAY,
      '2026-11-29',
    );
  it('is on its way until the wearer says that it came, whatever the carrier says', () => {
    expect(straight('acknowledged', 'shipped', 'delivered')).toMatchObject([{ state: 'onTheWay' }]);
    expect(straight('acknowledged', 'delivered', 'arrived')).toMatchObject([{ state: 'inHand', on: '2026-11-22', lenses: 9 }]);
    expect(straight('acknowledged', 'arrived', 'notArrived')).toMatchObject([{ state: 'onTheWay' }]);
  });
});

const TRADE = { packSize: 3, packPriceMinor: 5850, rebateMinor: 350, leadDays: 5, lastOrderOn: null };
const source = (file: WearerFile, trade: object = TRADE): ReorderSource => ({ file, trade: { curlew: trade } as never, today: TODAY, marginDays: 7 });
const right = (file: WearerFile, trade?: object): EyeReorder => {
  const of = eyeReorder(source(file, trade), PRESCRIPTION, 'right');
  if (!of) throw new Error('no eye');
  return of;
};

describe('lenses ordered again', () => {
  // Worked by hand: six monthlies from 1 September last to 27 February; each box of three 90 days more: to 28 May, 26 August and
  // 24 November 2027, the very day on which the prescription ends.
  const file = fileOf([handOver('2026-09-01', 'lens')]);
  it('as many boxes as end with the prescription', () => {
    expect(right(file)).toMatchObject({ within: 3, proposed: 3, orderable: true, plan: { inHandUntil: '2027-02-27', runOut: '2027-02-27' } });
    const offers = offersOf({ right: right(file), left: null });
    expect(offers.map((o) => [o.packs, o.eyes.right?.runOut, o.reach])).toEqual([
      [1, '2027-05-28', 'within'],
      [3, '2027-11-24', 'within'],
      [4, '2028-02-22', 'oneOver'],
    ]);
    expect(offers.every((o) => o.eyes.left === null)).toBe(true);
  });
  it('what is on its way is counted first', () => {
    expect(
      right(fileOf([handOver('2026-09-01', 'lens')], [order({ lines: [{ id: 'line', eye: 'right', lensId: 'lens', packs: 2, packSize: 3 }] })])).within,
    ).toBe(1);
  });
  it('numbers of boxes are said once each', () => {
    expect([0, 1, 2, 4, 12].map(packsOffered)).toEqual([[1], [1, 2], [1, 2, 3], [1, 2, 4, 5], [1, 6, 12, 13]]);
  });
  it('two months left: not even one box ends in time, one is proposed all the same', () => {
    const soon = { ...PRESCRIPTION, expiresOn: '2027-01-20' };
    const of = eyeReorder(source(fileOf([])), soon, 'right');
    expect(of).toMatchObject({ within: 0, proposed: 1 });
    expect(offersOf({ right: of, left: of }).map((o) => [o.packs, o.reach])).toEqual([[1, 'oneOver']]);
  });
  it('what it costs: paid at once, back later, and what remains', () => {
    const eyes = { right: right(file), left: right(file) };
    expect(orderCost(eyes, { right: 2, left: 2 })).toEqual({ upFront: 23_400, rebate: 1400, net: 22_000 });
    expect(orderCost(eyes, { right: 1, left: NaN })).toEqual({ upFront: 5850, rebate: 350, net: 5500 });
    expect(orderCost({ ...eyes, left: null }, { right: 1, left: 5 }).upFront).toBe(5850);
  });
  it('says what bars an order', () => {
    const free = { stoppedSince: null, alertSince: null, erasure: null };
    const eyes = { right: right(file), left: null };
    const bar = (change: object, prescription: Prescription | null = PRESCRIPTION, of = eyes) => reorderBar({ ...free, ...change }, prescription, of, TODAY);
    expect(bar({})).toBeNull();
    expect(bar({ stoppedSince: 'x' })).toBe('stopped');
    expect(bar({ alertSince: 'x' })).toBe('alerted');
    expect(bar({ erasure: { erasedAt: 'x', keptUntil: 'y' } })).toBe('erased');
    expect(bar({}, null)).toBe('noPrescription');
    expect(bar({}, { ...PRESCRIPTION, expiresOn: '2026-11-23' })).toBe('expired');
    expect(bar({}, PRESCRIPTION, { right: right(file, { ...TRADE, lastOrderOn: '2026-11-01' }), left: null })).toBe('familyEnded');
  });
  it('an eye that is not prescribed, or whose family is unknown, is not ordered', () => {
    expect(eyeReorder(source(file), PRESCRIPTION, 'left')).toBeNull();
    expect(eyeReorder({ ...source(file), trade: {} }, PRESCRIPTION, 'right')).toBeNull();
  });
});

describe('the examination that is booked', () => {
  const at = (startsAt: string, change: object = {}) => ({ kind: 'fullAnnual', state: 'booked', startsAt, ...change }) as never;
  const of = { today: TODAY, until: null, timeZone: 'America/St_Johns' };
  it('is one after today, in time, at which a prescription may be signed', () => {
    expect(examinationBooked([at('2026-12-10T14:00:00Z')], of)).not.toBeNull();
    expect(examinationBooked([at('2026-12-10T14:00:00Z')], { ...of, until: '2026-12-09' })).toBeNull();
    // Half past two in the night of the 25th by the clock of Greenwich is still today here.
    expect(examinationBooked([at('2026-11-25T02:30:00Z')], of)).toBeNull();
    expect(examinationBooked([at('2026-12-10T14:00:00Z', { kind: 'collection' }), at('2026-12-10T14:00:00Z', { state: 'cancelled' })], of)).toBeNull();
  });
});
