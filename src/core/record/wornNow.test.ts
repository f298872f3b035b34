import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { chains, lastsUntil, wornChain, wornDoubts, type WornDoubtsOf } from '..';
import type { WearerFile } from './wearerFile';
import { provenance } from './wornNow';

const meta = (id: string, at: string) => ({
  id,
  rootId: id,
  correctsId: null,
  voided: false,
  eye: 'right' as const,
  visitId: 'v',
  observedAt: at,
  recordedAt: at,
  recordedBy: 'p',
  recordedByName: 'P',
  reason: null,
});
const file = (change: Partial<WearerFile>): WearerFile =>
  ({
    onEye: chains([
      {
        ...meta('t', '2026-11-01T00:00:00Z'),
        lensId: 'tried',
        description: null,
        source: 'trial' as const,
        trialNumber: 1,
        trialStockId: 's',
        diagnosticLensId: null,
        lot: 'A',
        expiresOn: null,
        putOnAt: '2026-11-01T00:00:00Z',
      },
    ]),
    prescriptions: [],
    handOvers: [],
    broughtAlong: [],
    sellerVerified: [],
    wornAnswers: [],
    orders: [],
    lessons: [],
    attempts: [],
    topics: [],
    visits: [],
    lenses: {},
    ...change,
  }) as unknown as WearerFile;
const order = {
  id: 'o',
  number: 1,
  prescriptionId: 'p',
  placedAt: '2026-11-02T00:00:00Z',
  lines: [{ eye: 'right', lensId: 'ordered' }],
  receipts: [],
  events: [],
};

describe('what counts as worn now', () => {
  it('a lens that was only tried is never copied as the current lens', () => {
    const { nodes, worn } = provenance(file({}), 'right');
    expect(nodes.tried?.lensId).toBe('tried');
    expect(worn).toBeNull();
  });
  it('what a seller had verified stands before an older list, and after what was ordered or handed over here (common practice)', () => {
    const sellerVerified = [{ eye: 'right' as const, lensId: 'verified', at: '2026-11-10T00:00:00Z' }];
    const broughtAlong = [{ eye: 'right' as const, lensId: 'list', asOf: '2024-01-01', recordedAt: '2025-01-01T00:00:00Z' }];
    expect(provenance(file({ sellerVerified, broughtAlong }), 'right').worn).toMatchObject({ kind: 'sellerVerified', lensId: 'verified' });
    const later = [{ ...broughtAlong[0], recordedAt: '2026-12-01T00:00:00Z' }] as WearerFile['broughtAlong'];
    expect(provenance(file({ sellerVerified, broughtAlong: later }), 'right').worn?.lensId).toBe('list');
    expect(provenance(file({ sellerVerified, orders: [order] as unknown as WearerFile['orders'] }), 'right').worn?.kind).toBe('ordered');
    expect(provenance(file({ sellerVerified }), 'left').worn).toBeNull();
  });
  it('a lens that was only prescribed is not either', () => {
    const prescriptions = [
      { number: 1, issuedAt: '2026-11-02T00:00:00Z', eyes: [{ eye: 'right', lensId: 'prescribed' }] },
    ] as unknown as WearerFile['prescriptions'];
    expect(provenance(file({ prescriptions }), 'right').worn).toBeNull();
  });
  it('without a hand-over the last order decides, unless it was refused', () => {
    const orders = [order] as unknown as WearerFile['orders'];
    expect(provenance(file({ orders }), 'right').worn?.lensId).toBe('ordered');
    expect(provenance(file({ orders: [{ ...order, events: [{ state: 'refused' }] }] as unknown as WearerFile['orders'] }), 'right').worn).toBeNull();
  });
  it('a parcel sent straight to the wearer counts once they say that it came, later than any hand-over', () => {
    const handOvers = chains([{ ...meta('h', '2026-11-03T00:00:00Z'), lensId: 'handed' }]) as unknown as WearerFile['handOvers'];
    const of = (...events: object[]) => ({ handOvers, orders: [{ ...order, deliverTo: 'wearer', events }] as unknown as WearerFile['orders'] });
    expect(provenance(file(of({ state: 'delivered', at: '2026-11-09T00:00:00Z' })), 'right').worn?.lensId).toBe('handed');
    expect(provenance(file(of({ state: 'arrived', at: '2026-11-09T00:00:00Z' })), 'right').worn?.lensId).toBe('ordered');
    expect(provenance(file(of({ state: 'arrived', at: '2026-11-02T00:00:00Z' })), 'right').worn?.lensId).toBe('handed');
  });
  it('the latest hand-over decides over any order, each eye for itself', () => {
    const handOvers = chains([{ ...meta('h', '2026-11-03T00:00:00Z'), lensId: 'handed' }]) as unknown as WearerFile['handOvers'];
    const orders = [order] as unknown as WearerFile['orders'];
    expect(provenance(file({ handOvers, orders }), 'right').worn?.lensId).toBe('handed');
    expect(provenance(file({ handOvers, orders }), 'left').worn).toBeNull();
  });
  it('orders of the other eye alone are passed by: each eye is followed back to its own', () => {
    const of = (number: number, eye: string, lensId: string) => ({ ...order, id: `o${number}`, number, lines: [{ eye, lensId }] });
    const orders = [of(9, 'left', 'l9'), of(8, 'left', 'l8'), of(3, 'right', 'r3')] as unknown as WearerFile['orders'];
    expect(provenance(file({ orders }), 'right').worn).toMatchObject({ lensId: 'r3', number: 3 });
    expect(provenance(file({ orders }), 'left').worn).toMatchObject({ lensId: 'l9', number: 9 });
  });
  it('a lens bought elsewhere counts where it was named later, and no longer once lenses are handed over here', () => {
    const said = (at: string, lensId: string | null) =>
      chains([{ ...meta('a', at), answer: 'boughtElsewhere' as const, lensId, lensOnEyeId: 'x' }]) as unknown as WearerFile['wornAnswers'];
    const handOvers = chains([{ ...meta('h', '2026-11-03T00:00:00Z'), lensId: 'handed' }]) as unknown as WearerFile['handOvers'];
    expect(provenance(file({ handOvers, wornAnswers: said('2026-11-04T00:00:00Z', 'bought') }), 'right').worn?.lensId).toBe('bought');
    expect(provenance(file({ handOvers, wornAnswers: said('2026-11-02T00:00:00Z', 'bought') }), 'right').worn?.lensId).toBe('handed');
    // Nobody knows what it is: what is on record stays, and is asked about.
    expect(provenance(file({ handOvers, wornAnswers: said('2026-11-04T00:00:00Z', null) }), 'right').worn?.lensId).toBe('handed');
  });
  it('whatever is tried or prescribed, what is worn stays', () => {
    const handOvers = chains([{ ...meta('h', '2020-01-01T00:00:00Z'), lensId: 'handed' }]) as unknown as WearerFile['handOvers'];
    const moment = fc.integer({ min: 0, max: 4000 }).map((day) => new Date(Date.UTC(2020, 0, 2 + day)).toISOString());
    const trial = fc
      .record({ at: moment, lens: fc.string() })
      .map(({ at, lens }, i = 0) => ({ ...meta(`t${at}${i}`, at), lensId: lens, source: 'trial' as const, putOnAt: at }));
    const signed = fc.record({ at: moment, lens: fc.string() }).map(({ at, lens }) => ({ number: 1, issuedAt: at, eyes: [{ eye: 'right', lensId: lens }] }));
    fc.assert(
      fc.property(fc.array(trial), fc.array(signed), (trials, prescriptions) => {
        const all = file({ handOvers, onEye: chains(trials) as never, prescriptions: prescriptions as never });
        expect(provenance(all, 'right').worn?.lensId).toBe('handed');
      }),
    );
  });
});

/** A hand-over of an order's line for an eye. */
const given = (eye: 'right' | 'left', on: string, change: object = {}) => ({
  ...meta(`h${eye}${on}`, `${on}T10:00:00Z`),
  eye,
  lensId: `lens-${eye}`,
  orderLineId: `line-${eye}`,
  lot: 'A1',
  expiresOn: '2030-01-01',
  openedOn: null,
  handedOn: on,
  lensCount: 6,
  ...change,
});
const placed = (number: number, change: object = {}) => ({
  ...order,
  id: `o${number}`,
  number,
  prescriptionId: 'p1',
  placedAt: '2026-01-05T10:00:00Z',
  lines: (['right', 'left'] as const).map((eye) => ({ id: `line-${eye}`, eye, lensId: `lens-${eye}` })),
  ...change,
});
const prescription = {
  id: 'p1',
  number: 65,
  purpose: 'everyday',
  issuedAt: '2026-01-04T10:00:00Z',
  eyes: (['right', 'left'] as const).map((eye) => ({ eye, lensId: `lens-${eye}`, triedLensOnEyeId: 't' })),
};
const asked = (change: Partial<WearerFile>, today = '2026-02-01'): WornDoubtsOf => ({
  file: file({ orders: [placed(87)], prescriptions: [prescription], ...change } as unknown as Partial<WearerFile>),
  losses: [],
  lensOf: () => ({ modality: 'monthly' }),
  daysPerWeek: 7,
  today,
  timeZone: 'America/St_Johns',
  visitId: 'now',
});
const both = (change: object = {}) => chains([given('right', '2026-01-10', change), given('left', '2026-01-10', change)]) as unknown as WearerFile['handOvers'];

describe('the chain of one eye', () => {
  it('goes from what was handed over to the order, the prescription and the trial that it rests on', () => {
    const chain = wornChain(asked({ handOvers: both() }).file, 'right');
    expect(chain.map((l) => [l.kind, l.lensId, l.number])).toEqual([
      ['handedOver', 'lens-right', 87],
      ['ordered', 'lens-right', 87],
      ['prescribed', 'lens-right', 65],
      ['tried', 'tried', 1],
    ]);
  });
  it('is empty where nothing is known, and one link for a trial that went home', () => {
    expect(wornChain(file({}), 'right')).toEqual([]);
    expect(wornChain(asked({ handOvers: both({ orderLineId: null }) }).file, 'left').map((l) => l.kind)).toEqual(['handedOver']);
  });
});

describe('contradictions, before anything is measured', () => {
  it('a pair of one order, within its time, raises none', () => {
    expect(wornDoubts(asked({ handOvers: both() }))).toEqual([]);
  });
  it('used up: six monthly lenses from 10 January last 180 days', () => {
    // Day 1 is 10 January: day 180 is 8 July 2026.
    expect(lastsUntil(asked({ handOvers: both() }), 'right')).toBe('2026-07-08');
    expect(wornDoubts(asked({ handOvers: both() }, '2026-07-08'))).toEqual([]);
    expect(wornDoubts(asked({ handOvers: both() }, '2026-07-10'))).toEqual([{ code: 'usedUp', eyes: ['right', 'left'], until: '2026-07-08', days: 2 }]);
  });
  it('boxes of the same lens follow one another; another lens does not lengthen them', () => {
    const later = chains([given('right', '2026-01-10'), given('right', '2026-02-01'), given('right', '2026-01-01', { lensId: 'other' })]);
    expect(lastsUntil(asked({ handOvers: [later[2], later[0], later[1]] as never }), 'right')).toBe('2027-01-04');
  });
  it('a later order of another lens that should have been here: perhaps it went straight to the wearer', () => {
    const later = (change: object) => {
      const lines = [{ id: 'x', eye: 'right', lensId: 'new', packs: 1 }];
      return [placed(90, { placedAt: '2026-01-20T10:00:00Z', lines, receipts: [], events: [], ...change }), placed(87)];
    };
    const doubts = (day: string, change: object = {}) => wornDoubts(asked({ handOvers: both(), orders: later(change) as never }, day));
    const doubted = [{ code: 'orderedOther', eye: 'right', number: 90, lensId: 'new' }];
    // Promised for the last of January: until then it is on its way, and what lies here is on nobody's eyes.
    const promised = { events: [{ state: 'acknowledged', dueOn: '2026-01-31' }] };
    expect(doubts('2026-01-31', promised)).toEqual([]);
    expect(doubts('2026-02-01', promised)).toEqual(doubted);
    expect(doubts('2026-02-01', { ...promised, receipts: [{ id: 'r', orderLineId: 'x', packs: 1, handedOver: false }] })).toEqual([]);
    // Nobody answered: two weeks.
    expect(doubts('2026-02-03')).toEqual([]);
    expect(doubts('2026-02-04')).toEqual(doubted);
  });
  it('R and L from different orders, or one of them a trial; nothing is said of an eye without a lens', () => {
    const orders = [
      placed(88, { lines: [{ id: 'line-left', eye: 'left', lensId: 'lens-left' }] }),
      placed(87, { lines: [{ id: 'line-right', eye: 'right', lensId: 'lens-right' }] }),
    ];
    expect(wornDoubts(asked({ handOvers: both(), orders: orders as never }))).toEqual([{ code: 'differentOrders', right: 87, left: 88 }]);
    const trial = chains([given('right', '2026-01-10', { orderLineId: null }), given('left', '2026-01-10')]) as never;
    expect(wornDoubts(asked({ handOvers: trial }))).toEqual([{ code: 'differentOrders', right: null, left: 87 }]);
    const one = chains([given('right', '2026-01-10')]) as never;
    expect(wornDoubts(asked({ handOvers: one, orders: [placed(87, { lines: [{ id: 'line-right', eye: 'right', lensId: 'lens-right' }] })] as never }))).toEqual(
      [],
    );
  });
  it('a monovision pair against a distance pair', () => {
    const orders = [
      placed(88, { prescriptionId: 'p2', lines: [{ id: 'line-left', eye: 'left', lensId: 'lens-left' }] }),
      placed(87, { lines: [{ id: 'line-right', eye: 'right', lensId: 'lens-right' }] }),
    ];
    const prescriptions = [{ ...prescription, id: 'p2', number: 66, purpose: 'distance' }, prescription];
    expect(wornDoubts(asked({ handOvers: both(), orders: orders as never, prescriptions: prescriptions as never }))).toContainEqual({
      code: 'differentPurposes',
      right: 'everyday',
      left: 'distance',
    });
  });
  it('what was said otherwise the last time, until lenses are handed over again; not what is said now', () => {
    const said = (visitId: string, at: string, answer: string) =>
      chains([{ ...meta('a', at), visitId, answer, lensId: null, lensOnEyeId: null }]) as unknown as WearerFile['wornAnswers'];
    const doubts = (wornAnswers: WearerFile['wornAnswers']) => wornDoubts(asked({ handOvers: both(), wornAnswers }));
    expect(doubts(said('before', '2026-01-20T01:00:00Z', 'lost'))).toEqual([{ code: 'saidOtherwise', eye: 'right', answer: 'lost', on: '2026-01-19' }]);
    expect(doubts(said('before', '2026-01-20T01:00:00Z', 'yes'))).toEqual([]);
    expect(doubts(said('before', '2026-01-02T01:00:00Z', 'lost'))).toEqual([]);
    expect(doubts(said('now', '2026-01-20T01:00:00Z', 'lost'))).toEqual([]);
  });
});
