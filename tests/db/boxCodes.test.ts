import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { checkDigit } from '../../src/core';
import { openWorld, signPair, type World } from './support';

let world: World;
let orderId: string;
let nth = 0;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());
beforeEach(async () => {
  nth += 1;
  const visitId = await world.visit(nth, { right: '-2.00', left: '-2.25' });
  const prescriptionId = await signPair(world, visitId);
  const order = { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks: 2, leftPacks: 2 };
  orderId = (await world.must('placeOrder', order)).orderId ?? '';
});

/** A number as makers give them, with its check digit. */
const gtin = (item: number): string => {
  const digits = `0629104${String(item).padStart(6, '0')}`;
  return `${digits}${checkDigit(digits)}`;
};
const [RIGHT, LEFT] = [gtin(200), gtin(225)];
const box = (codes: readonly { gtin: string; serial: string | null }[], lot = 'A1') => ({
  packs: Math.max(1, codes.length),
  lot,
  expiresOn: '1 Mar 2029',
  codes,
});
const code = (of: string, serial: string | null = null) => ({ gtin: of, serial });
const receive = (right: object | null, left: object | null, change: object = {}) =>
  world.do('recordReceipt', { orderId, right, left, ...change }, world.callers.coordinator);
const named = async (of: string) =>
  (await world.must('readBox', { orderId, gtin: of }, world.callers.coordinator)) as unknown as {
    lens: { sphereD: number } | null;
    eyes: string[];
    others: { number: number; wearerName: string }[];
  };
const fault = (eye: string, codeOf: string) => ({ error: { kind: 'invalid', fields: [{ path: [eye, 'codes'], code: codeOf }] } });

describe('codes of boxes', () => {
  it('are unknown until a box was read beside its order; then they name its eye by themselves', async () => {
    expect(await named(RIGHT)).toEqual({ lens: null, eyes: [], others: [] });
    expect(await receive(box([code(RIGHT, '1'), code(RIGHT, '2')]), box([code(LEFT, '1')]))).toMatchObject({ ok: true });
    expect(await named(RIGHT)).toMatchObject({ lens: { sphereD: -2 }, eyes: ['right'] });
    expect(await named(LEFT)).toMatchObject({ lens: { sphereD: -2.25 }, eyes: ['left'] });
    expect(await world.db.owner`select count(*)::int as n from package_code`).toEqual([{ n: 2 }]);
  });
  it('swapped boxes are refused in words, and nothing of the receipt is kept', async () => {
    expect(await receive(box([code(LEFT)]), box([code(RIGHT)]))).toMatchObject(fault('right', 'boxOfOtherEye'));
    expect(await receive(null, box([code(RIGHT)]))).toMatchObject({
      error: { fields: [{ code: 'boxOfOtherEye', data: { power: '−2.00', family: 'Turnstone 30' } }] },
    });
    expect(await world.db.owner`select 1 from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`).toEqual([]);
  });
  it('one code cannot mean both eyes of different powers, also where nobody had met it', async () => {
    const fresh = gtin(900 + nth);
    expect(await receive(box([code(fresh)]), box([code(fresh)]))).toMatchObject(fault('left', 'boxOfOtherEye'));
    expect(await named(fresh)).toMatchObject({ lens: null });
  });
  it('a box with a number of its own comes once', async () => {
    expect(await receive(box([code(RIGHT, '7'), code(RIGHT, '7')]), null)).toMatchObject(fault('right', 'boxScannedTwice'));
    expect(await receive(box([code(RIGHT, '1')]), null)).toMatchObject(fault('right', 'boxCameBefore'));
    expect(await receive(box([code(RIGHT, '7')]), null)).toMatchObject({ ok: true });
    // Boxes without one are told apart by their lot alone.
    expect(await receive(box([code(RIGHT)], 'A2'), null)).toMatchObject({ ok: true });
  });
  it('a box of somebody else says who waits for it', async () => {
    // An order of one eye alone: the other eye's box is not its own.
    const visitId = await world.visit(8, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    const order = { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 };
    orderId = (await world.must('placeOrder', order)).orderId ?? '';
    const found = await named(LEFT);
    expect(found).toMatchObject({ lens: { sphereD: -2.25 }, eyes: [] });
    // The oldest first, three at the most.
    expect(found.others.map((o) => o.number)).toEqual([1, 2, 3]);
    expect(found.others.every((o) => o.wearerName !== '')).toBe(true);
    expect(await receive(box([code(LEFT)]), null)).toMatchObject(fault('right', 'boxOfOtherLens'));
  });
  it('learned wrong, it is learned again with why; what was learned before stays', async () => {
    expect(await receive(null, box([code(RIGHT)]), { relearnReason: 'boxes were exchanged at the first delivery' })).toMatchObject({ ok: true });
    expect(await named(RIGHT)).toMatchObject({ lens: { sphereD: -2.25 }, eyes: ['left'] });
    expect(await world.db.owner`select reason from package_code where gtin = ${RIGHT} order by sequence`).toEqual([
      { reason: null },
      { reason: 'boxes were exchanged at the first delivery' },
    ]);
    await expect(world.db.app`delete from package_code`).rejects.toThrow(/permission denied/);
  });
  it('a wrong check digit is refused where it stands', async () => {
    expect(await receive(box([code(`${RIGHT.slice(0, 13)}${(Number(RIGHT[13]) + 1) % 10}`)]), null)).toMatchObject({
      error: { fields: [{ path: ['right', 'codes', '0', 'gtin'], code: 'gtinWrong' }] },
    });
  });
});
