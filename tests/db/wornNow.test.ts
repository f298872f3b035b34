import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { provenanceInVisit, wornChain, wornDoubts, type Eye } from '../../src/core';
import { addSeconds } from '../../src/core';
import { momentOf } from '../../src/services/appointment/moments';
import { putOnMoment } from '../../src/services/lensOnEye/putOnMoment';
import { openWorld, SENTENCES, signPair, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const YEAR = 365 * 24 * 3600;
/** A trial put on and handed over to somebody who handles lenses already. */
async function goesHome(visitId: string, lenses: Readonly<Partial<Record<Eye, object>>>): Promise<void> {
  const inHand = { lot: 'T-1', expiresOn: '1 Mar 2032' };
  const put = (eye: Eye) => (lenses[eye] ? { ...lenses[eye], inHand } : null);
  await world.must('putOnTrials', { visitId, version: await world.version(visitId), right: put('right'), left: put('left'), despiteReason: 'known wearer' });
  const on = (await world.record(visitId)).facts.onEye;
  const box = (eye: Eye) => {
    const row = on.findLast((c) => c.current?.eye === eye)?.current;
    return lenses[eye] && row ? { lensOnEyeId: row.rootId, lot: row.lot, expiresOn: row.expiresOn, lensCount: 1 } : null;
  };
  const given = { right: box('right'), left: box('left'), experienceNote: 'wears since 2015' };
  await world.must('handOver', { visitId, version: await world.version(visitId), ...given });
}
const close = async (visitId: string) => world.must('closeVisit', { visitId, version: await world.version(visitId) });
const opened = async (record: number): Promise<string> =>
  (await world.must('openVisit', { wearerId: await world.wearerId(record), kind: 'longFollowUp' })).visitId ?? '';
const wornOf = async (visitId: string, eye: Eye) => {
  const record = await world.record(visitId);
  const worn = record.worn[eye];
  const lens = worn && record.lenses[worn.lensId];
  return worn && { ...worn, sphere: lens?.sphereD, axis: lens?.axisDeg };
};
const answer = async (visitId: string, right: object | null, left: object | null, more: object = {}) =>
  world.do('answerWorn', { visitId, version: await world.version(visitId), right, left, since: { time: '7' }, ...more });
const yes = async (visitId: string, eye: Eye) => ({ answer: 'yes', lensId: (await world.record(visitId)).worn[eye]?.lensId });
const onEye = async (visitId: string, eye: Eye) => (await world.record(visitId)).facts.onEye.findLast((c) => c.current?.eye === eye)?.current;

describe('what was discussed is never what is worn', () => {
  it('three yearly over-refractions through −4.75 that nobody ordered: the fourth visit still starts from −4.75', async () => {
    const first = await world.visit(4, { right: '-5.00', left: '-5.00' });
    const lens = await spec(world, 'turnstone-30', -4.75, 0, 180, 8.4, 14.2);
    await goesHome(first, { right: lens, left: lens });
    await close(first);
    for (const over of ['+0.25', '+0.25', '+0.50']) {
      world.move(YEAR);
      const visitId = await opened(4);
      expect(await wornOf(visitId, 'right')).toMatchObject({ kind: 'handedOver', sphere: -4.75 });
      expect(await answer(visitId, await yes(visitId, 'right'), await yes(visitId, 'left'))).toMatchObject({ ok: true });
      const reading = async (eye: Eye) => ({ lensOnEyeId: (await onEye(visitId, eye))?.rootId, overRefraction: over, vertexMm: 12, plusHalf: 'worse' });
      const read = { right: await reading('right'), left: await reading('left') };
      await world.must('recordOnEye', { visitId, version: await world.version(visitId), ...read });
      await close(visitId);
    }
    world.move(YEAR);
    const visitId = await opened(4);
    await answer(visitId, await yes(visitId, 'right'), null);
    const record = await world.record(visitId);
    expect(record.lenses[(await onEye(visitId, 'right'))?.lensId ?? '']).toMatchObject({ sphereD: -4.75 });
    expect(
      wornDoubts({
        file: provenanceInVisit(record),
        losses: record.losses,
        lensOf: (id) => record.lenses[id],
        daysPerWeek: 7,
        today: record.session.today,
        timeZone: 'UTC',
        visitId,
      }),
    ).toContainEqual(expect.objectContaining({ code: 'usedUp', eyes: ['right', 'left'] }));
    world.move(-4 * YEAR);
  });
  it('signed × 30, trial × 20 worn home, the order received and handed over: the next visit starts from × 30', async () => {
    const visitId = await world.visit(1, { right: '-3.25 -1.75 x 20', left: null });
    await goesHome(visitId, { right: await spec(world, 'plover-30-toric', -3, -1.75, 20) });
    const signing = { password: 'plain-sight', left: null, expiresOn: '2027-11-20', waitNote: 'x y', daysPerWeek: 7, overrides: SENTENCES };
    const right = {
      mode: 'final',
      lens: await spec(world, 'plover-30-toric', -3, -1.75, 30),
      triedLensOnEyeId: (await onEye(visitId, 'right'))?.rootId,
    };
    const { prescriptionId } = await world.must('sign', { visitId, version: await world.version(visitId), ...signing, right });
    const press = { requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 };
    const { orderId } = await world.must('placeOrder', { visitId, version: await world.version(visitId), ...press });
    expect(await wornOf(visitId, 'right')).toMatchObject({ kind: 'handedOver', axis: 20 });
    await world.must('recordReceipt', { orderId, right: { packs: 1, lot: 'P-9', expiresOn: '1 Mar 2029' }, left: null }, world.callers.coordinator);
    const receiptIds = (await world.record(visitId)).orders[0]?.receipts.map((r) => r.id);
    world.move(60);
    await world.must(
      'handOverBoxes',
      { visitId, version: await world.version(visitId), orderId, receiptIds, identityAsked: true, experienceNote: 'wears since 2019' },
      world.callers.coordinator,
    );
    await close(visitId);
    const next = await opened(1);
    expect(await wornOf(next, 'right')).toMatchObject({ kind: 'handedOver', axis: 30, lot: 'P-9' });
    await answer(next, await yes(next, 'right'), null, { how: 'boxSeen' });
    expect(await onEye(next, 'right')).toMatchObject({ source: 'dispensed', lot: 'P-9' });
    const record = await world.record(next);
    expect(wornChain(provenanceInVisit(record), 'right').map((l) => [l.kind, record.lenses[l.lensId]?.axisDeg])).toEqual([
      ['handedOver', 30],
      ['ordered', 30],
      ['prescribed', 30],
      ['tried', 20],
    ]);
    await close(next);
  });
  it('an eye whose last order lies many orders back is followed to it', async () => {
    const visitId = await world.visit(3, { right: '-2.00', left: '-2.25' });
    const prescriptionId = await signPair(world, visitId);
    await world.must('changeSetting', { key: 'pastExpiry', value: 'prescriberNote', lastChangeId: null }, world.callers.admin);
    const order = async (rightPacks: number, leftPacks: number) => {
      const of = { visitId, version: await world.version(visitId), requestKey: randomUUID(), prescriptionId, rightPacks, leftPacks };
      return world.must('placeOrder', { ...of, pastExpiryNote: 'each was lost at sea' });
    };
    await order(1, 0);
    for (let i = 0; i < 8; i++) await order(0, 1);
    await close(visitId);
    const next = await opened(3);
    const [right, left] = [await wornOf(next, 'right'), await wornOf(next, 'left')];
    expect(right).toMatchObject({ kind: 'ordered', sphere: -2 });
    expect(left).toMatchObject({ kind: 'ordered', sphere: -2.25 });
    expect((left?.number ?? 0) - (right?.number ?? 0)).toBe(8);
    // Nobody here has seen its box: it goes on the eye as ordered, without a lot.
    await answer(next, await yes(next, 'right'), null);
    expect(await onEye(next, 'right')).toMatchObject({ source: 'order', lot: null });
    await close(next);
  });
});

describe('other answers than yes', () => {
  let visitId = '';
  const lens = (sphere: number) => spec(world, 'turnstone-30', sphere, 0, 180, 8.4, 14.2);
  beforeAll(async () => {
    const first = await world.visit(2, { right: '-2.00', left: '-2.25' });
    await goesHome(first, { right: await lens(-2), left: await lens(-2.25) });
    await close(first);
    world.move(3600);
    const second = await world.visit(2, { right: '-2.50', left: '-2.75' });
    await goesHome(second, { right: await lens(-2.5), left: await lens(-2.75) });
    await close(second);
    world.move(3600);
    visitId = await opened(2);
  }, 60_000);

  it('an older lens: the one that was chosen, which does not become what counts as worn', async () => {
    const old = (await world.record(visitId)).handOvers.find((c) => c.current?.eye === 'right' && c.current.lensId !== '')?.rootId;
    expect(await answer(visitId, { answer: 'oldPair', handOverId: old }, null)).toMatchObject({ ok: true });
    const record = await world.record(visitId);
    expect(record.lenses[(await onEye(visitId, 'right'))?.lensId ?? '']?.sphereD).toBe(-2);
    expect(await wornOf(visitId, 'right')).toMatchObject({ sphere: -2.5 });
    expect(record.answers.wornNow).toEqual({ code: 'otherWorn', state: 'watch' });
  });
  it('R and L mixed up: each eye has the other’s lens on it, and is read through that', async () => {
    const { right, left } = (await world.record(visitId)).worn;
    await answer(visitId, { answer: 'mixed', lensId: left?.lensId }, { answer: 'mixed', lensId: right?.lensId });
    expect((await onEye(visitId, 'right'))?.lensId).toBe(left?.lensId);
    expect((await onEye(visitId, 'left'))?.lensId).toBe(right?.lensId);
  });
  it('somebody else’s: it is on the eye, nobody knows it, and nothing is read through it', async () => {
    expect(await answer(visitId, { answer: 'someoneElses', description: 'her sister’s' }, null)).toMatchObject({ ok: true });
    const row = await onEye(visitId, 'right');
    expect(row).toMatchObject({ lensId: null, source: 'broughtIn', description: 'her sister’s' });
    const over = { lensOnEyeId: row?.rootId, overRefraction: '+0.25', vertexMm: 12 };
    expect(await world.do('recordOnEye', { visitId, version: await world.version(visitId), right: over, left: null })).toMatchObject({ ok: false });
  });
  it('glasses, or lost: what was on the eye is off, and no time is asked', async () => {
    expect(await answer(visitId, { answer: 'glasses' }, { answer: 'lost' }, { since: null })).toMatchObject({ ok: true });
    const { facts, answers } = await world.record(visitId);
    expect(facts.onEyeExtras.every((e) => e.takenOffAt !== null)).toBe(true);
    expect(answers.wornNow).toEqual({ code: 'noneWorn', state: 'watch' });
  });
  it('bought elsewhere: named, it counts as worn from then on; without a power it is only on the eye', async () => {
    const bought = { answer: 'boughtElsewhere', description: 'from the harbour shop' };
    await answer(visitId, { ...bought, power: '-2.75' }, { ...bought, power: null });
    await close(visitId);
    world.move(3600);
    const next = await opened(2);
    expect(await wornOf(next, 'right')).toMatchObject({ kind: 'boughtElsewhere', sphere: -2.75 });
    expect(await wornOf(next, 'left')).toMatchObject({ kind: 'handedOver', sphere: -2.75 });
    const record = await world.record(next);
    const of = {
      file: provenanceInVisit(record),
      losses: record.losses,
      lensOf: (id: string) => record.lenses[id],
      daysPerWeek: 7,
      today: record.session.today,
      timeZone: 'UTC',
      visitId: next,
    };
    expect(wornDoubts(of).filter((d) => d.code === 'saidOtherwise')).toMatchObject([
      { eye: 'right', answer: 'boughtElsewhere' },
      { eye: 'left', answer: 'boughtElsewhere' },
    ]);
    await answer(next, await yes(next, 'right'), null);
    expect(await onEye(next, 'right')).toMatchObject({ source: 'broughtIn' });
    await close(next);
  });
  it('undone within seconds, lens and answer are taken back; a bad time stays at its field', async () => {
    const next = await opened(2);
    const done = await answer(next, await yes(next, 'right'), null);
    const { facts, version } = (done.ok ? done.value : {}) as unknown as { facts: object[]; version: number };
    await world.must('undo', { visitId: next, version, facts });
    expect(await onEye(next, 'right')).toBeUndefined();
    expect((await world.record(next)).answers.wornNow).toEqual({ code: 'notAsked', state: null });
    for (const [since, code] of [
      [{ time: 'noon' }, 'notATime'],
      [{ time: '' }, 'timeRequired'],
      [null, 'sinceRequired'],
    ])
      expect(await answer(next, await yes(next, 'right'), null, { since })).toMatchObject({ error: { fields: [{ path: ['since', 'time'], code }] } });
    expect(await answer(next, await yes(next, 'right'), null, { since: { time: '7', daysAgo: 40 } })).toMatchObject({
      error: { fields: [{ code: 'daysAgoRange' }] },
    });
    await close(next);
  });
});

describe('when a lens went in', () => {
  const zone = 'America/St_Johns';
  const now = momentOf('2026-11-24', 10 * 60, zone);
  it.each([
    [{ time: 7 * 60, daysAgo: 0 }, momentOf('2026-11-24', 7 * 60, zone)],
    // Later than now: last night.
    [{ time: 22 * 60, daysAgo: 0 }, momentOf('2026-11-23', 22 * 60, zone)],
    [{ time: 10 * 60, daysAgo: 0 }, now],
    [{ time: 22 * 60, daysAgo: 3 }, momentOf('2026-11-21', 22 * 60, zone)],
  ])('%o', (said, at) => expect(putOnMoment(said, now, zone)).toBe(at));
  it('through the night on which clocks go back, hours are counted as they passed', () => {
    // 1 November 2026: at 02:00 the clock shows 01:00 again.
    const morning = momentOf('2026-11-01', 8 * 60, zone);
    expect(addSeconds(putOnMoment({ time: 22 * 60, daysAgo: 1 }, morning, zone), 11 * 3600)).toBe(morning);
  });
});
