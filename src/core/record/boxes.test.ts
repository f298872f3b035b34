import { describe, expect, it } from 'vitest';
import { boxesOf } from './boxes';
import type { Order, OrderReceiptRow } from './order';

const line = (eye: 'right' | 'left', packs: number): Order['lines'][number] => ({
  id: `l-${eye}`,
  eye,
  mode: 'final',
  lensId: 'x',
  raw: null,
  packs,
  packSize: 6,
  packPriceMinor: 100,
  aim: null,
});
const receipt = (id: string, eye: 'right' | 'left', packs: number, handedOver = false): OrderReceiptRow => ({
  id,
  orderLineId: `l-${eye}`,
  lensId: 'x',
  lot: 'A1',
  expiresOn: '2029-03-01',
  packs,
  receivedAt: '2026-11-24T10:00:00Z',
  receivedByName: 'P',
  handedOver,
});

describe('how far the boxes of an eye have come', () => {
  it('an eye that was not ordered for has none', () => {
    expect(boxesOf({ lines: [line('right', 2)], receipts: [] }, 'left')).toBeNull();
  });
  it('nothing came yet', () => {
    expect(boxesOf({ lines: [line('right', 2)], receipts: [] }, 'right')).toEqual({ ordered: 2, received: 0, here: [], handedOver: 0 });
  });
  it('in parts: what lies here, and what went home; the other eye’s boxes are not counted', () => {
    const order = { lines: [line('right', 3), line('left', 1)], receipts: [receipt('a', 'right', 1, true), receipt('b', 'right', 2), receipt('c', 'left', 1)] };
    const right = boxesOf(order, 'right');
    expect(right).toMatchObject({ ordered: 3, received: 3, handedOver: 1 });
    expect(right?.here.map((r) => r.id)).toEqual(['b']);
  });
});
