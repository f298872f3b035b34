import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { OrderState } from './order';
import { stageOf, type OrderSums } from './orderStage';
import { dueEye, dueProposal } from './dueLine';
import type { EyeRunway } from './eyeRunway';

const of = (states: readonly OrderState[], change: Partial<OrderSums> = {}): OrderSums => ({
  events: states.map((state) => ({ state })),
  lines: [{ packs: 2 }, { packs: 2 }],
  receipts: [],
  shipped: [],
  ...change,
});
const boxes = (packs: number, handedOver = false) => ({ packs, handedOver });
const shipped = (packs: number) => ({ packs, faults: [] });

describe('where an order stands', () => {
  it.each<[string, OrderSums]>([
    ['placed', of(['placed'])],
    ['backordered', of(['placed', 'backordered'])],
    ['delayed', of(['placed', 'acknowledged', 'delayed'])],
    ['partlyShipped', of(['placed', 'acknowledged', 'shipped'], { shipped: [shipped(1)] })],
    ['shipped', of(['placed', 'acknowledged', 'shipped'], { shipped: [shipped(2), shipped(2)] })],
    ['partlyReceived', of(['placed', 'acknowledged', 'received'], { receipts: [boxes(1)] })],
    ['received', of(['placed', 'acknowledged', 'received', 'shipped'], { receipts: [boxes(2), boxes(2)], shipped: [shipped(4)] })],
    ['handedOver', of(['placed', 'received'], { receipts: [boxes(2, true), boxes(2, true)] })],
    ['handedOver', of(['placed', 'received', 'cancelled'], { receipts: [boxes(1, true)] })],
    ['cancelled', of(['placed', 'received', 'cancelled'], { receipts: [boxes(1)] })],
    ['cancelAsked', of(['placed', 'acknowledged', 'cancelAsked'])],
    ['shipped', of(['placed', 'acknowledged', 'shipped', 'cancelRefused'], { shipped: [shipped(4)] })],
    ['delivered', of(['placed', 'acknowledged', 'shipped', 'delivered'], { shipped: [shipped(4)] })],
  ])('%s', (stage, order) => expect(stageOf(order)).toBe(stage));
  it('does not hang on the order in which despatch and delivery are told', () => {
    const told: readonly OrderState[] = ['shipped', 'received', 'delivered'];
    fc.assert(
      fc.property(fc.shuffledSubarray([...told], { minLength: 3 }), (states) => {
        expect(stageOf(of(['placed', 'acknowledged', ...states], { receipts: [boxes(2), boxes(2)], shipped: [shipped(4)] }))).toBe('received');
      }),
    );
  });
});

const row = (change: Partial<EyeRunway> = {}): EyeRunway => ({
  eye: 'right',
  prescriptionId: 'p',
  lensId: 'l',
  familyName: 'Plover',
  modality: 'monthly',
  pace: null,
  expiresOn: '2027-06-01',
  inHandUntil: '2026-12-10',
  runOut: '2026-12-10',
  paceRunOut: null,
  reorderBy: '2026-11-26',
  dueOn: '2026-11-26',
  laterOn: null,
  onTheWay: 0,
  proposed: 1,
  within: 1,
  ...change,
});
const facts = { stopped: false, alerted: false, examinationOn: null };

describe('what is proposed for somebody whose lenses run low', () => {
  const today = '2026-11-24';
  it('a stop and a danger sign come before any order', () => {
    expect(dueProposal([row()], { ...facts, stopped: true, alerted: true }, today)).toEqual({ kind: 'see', why: 'stopped' });
    expect(dueProposal([row()], { ...facts, alerted: true }, today)).toEqual({ kind: 'see', why: 'alerted' });
  });
  it('expired: the examination; lenses that outlast the prescription: the examination first', () => {
    expect(dueProposal([row({ expiresOn: '2026-11-23' })], facts, today)).toEqual({ kind: 'book', why: 'expired' });
    expect(dueProposal([row({ expiresOn: '2026-12-10' })], facts, today)).toEqual({ kind: 'book', why: 'expiresFirst' });
  });
  it('two months left: the smallest order with the examination booked; once it is booked, a call', () => {
    const short = [row({ within: 0 })];
    expect(dueProposal(short, facts, today)).toEqual({ kind: 'bookAndCall', packs: { right: 1, left: 0 } });
    expect(dueProposal(short, { ...facts, examinationOn: '2026-12-01' }, today)).toEqual({ kind: 'call', packs: { right: 1, left: 0 } });
  });
  it('the eye to be ordered first makes the line', () => {
    expect(dueEye([row(), row({ eye: 'left', reorderBy: '2026-11-20' })])?.eye).toBe('left');
    expect(dueEye([row(), row({ eye: 'left' })])?.eye).toBe('right');
    expect(dueEye([])).toBeNull();
  });
});
