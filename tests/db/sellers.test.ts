import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { answerOne } from '../../src/jobs/answerSellers';
import { takeRequests } from '../../src/jobs/takeRequests';
import { sentRequests } from '../../src/schema/sentRequest';
import { sellerServer, type SellerDocument, type SellerFault } from '../../src/standins/seller/server';
import { crashAtEvery } from '../support/crash';
import { openWorld, signPair, type World } from './support';

let world: World;
let seller: Server;
let url: string;
let wearerId: string;
beforeAll(async () => {
  world = await openWorld();
  await signPair(world, await world.visit(1, { right: '-2.00', left: '-2.25' }));
  wearerId = await world.wearerId(1);
}, 60_000);
beforeEach(async () => {
  seller = sellerServer();
  await new Promise<void>((resolve) => seller.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(seller.address() as AddressInfo).port}`;
});
afterAll(() => world.db.close());

let number = 0;
const asks = async (change: Partial<SellerDocument> = {}): Promise<string> => {
  number += 1;
  const id = `Q-${number}`;
  const lens = { power: '-2.00', lensName: 'Turnstone 30', baseCurveMm: 8.4, diameterMm: 14.2, boxes: 2 };
  const document: SellerDocument = {
    ...{ id, seller: { name: 'Quayside Lenses', contact: 'fax 0555 0199' }, wearer: { name: 'Somebody', address: '3 Ropewalk' }, askedOn: '2026-11-23' },
    ...{ right: lens, left: { ...lens, power: '-2.25' } },
    ...change,
  };
  await fetch(new URL('/requests', url), { method: 'POST', body: JSON.stringify(document) });
  return id;
};
const fault = (kind: SellerFault) => fetch(new URL('/fault', url), { method: 'PUT', body: JSON.stringify({ fault: kind }) });
const deps = () => ({ sql: world.db.app, clock: world.deps.clock, sellerUrl: url, timeoutMs: 1500 });
const kept = (ref: string) =>
  world.db.owner<{ id: string; arrived: string; earliestAt: string | null; recordedBy: string | null }[]>`
    select id, arrived, earliest_at, recorded_by from request where outside_ref = ${ref}`;
const told = async () =>
  (
    (await (await fetch(new URL('/answers', url))).json()) as {
      answers: { id: string; body: { request: string; answer: string; corrected: object[] }; seen: number }[];
    }
  ).answers;
/** A person finds whose it is, and answers. */
async function answered(ref: string, answer = 'correct'): Promise<string> {
  const [row] = await kept(ref);
  await world.must('matchRequest', { requestId: row?.id, wearerId });
  await world.must('answerRequest', { requestId: row?.id, seen: 0, answer, reason: answer === 'correct' ? '' : 'another power is prescribed' });
  const [made] = await world.db.owner<{ id: string }[]>`select id from request_answer where request_id = ${row?.id ?? ''}`;
  return made?.id ?? '';
}

describe('what a seller’s own system asks', () => {
  it('is kept once, with its deadline, however often it is handed out; one line stands on Today, and nobody of the practice made it', async () => {
    const ref = await asks();
    const read = await takeRequests(deps(), 0);
    expect(read).toBe(1);
    await takeRequests(deps(), 0);
    expect(await kept(ref)).toMatchObject([{ arrived: 'sent', recordedBy: null }]);
    expect((await kept(ref))[0]?.earliestAt).not.toBeNull();
    const tasks = await world.db.owner<
      { by: string | null }[]
    >`select e.by from task t join task_event e on e.task_id = t.id where t.because = 'request' and t.done_at is null`;
    expect(tasks).toEqual([{ by: null }]);
    const shown = (await world.must('readRequests', {})) as unknown as {
      requests: { arrived: string; wearerId: string | null; compared: { because: string } }[];
    };
    expect(shown.requests.find((r) => r.arrived === 'sent')).toMatchObject({ wearerId: null, compared: { because: 'noWearer' } });
    expect(await takeRequests(deps(), read)).toBe(1);
  });
  it('while it is away, or says nonsense, nothing is lost and nothing half kept', async () => {
    const ref = await asks();
    await fault('down');
    expect(await takeRequests(deps(), 0)).toBe(0);
    await fault('nonsense');
    expect(await takeRequests(deps(), 0)).toBe(0);
    await fault('none');
    expect(await takeRequests(deps(), 0)).toBe(1);
    expect(await kept(ref)).toHaveLength(1);
    seller.closeAllConnections();
    seller.close();
    expect(await takeRequests(deps(), 1)).toBe(1);
  });
  it('one that cannot be read is passed over, and those beside it are kept', async () => {
    await asks({ right: { power: 'strong', lensName: '', baseCurveMm: null, diameterMm: null, boxes: 1 } });
    const good = await asks();
    expect(await takeRequests(deps(), 0)).toBe(2);
    expect(await kept(good)).toHaveLength(1);
    expect(await kept(`Q-${number - 1}`)).toEqual([]);
  });
  it.each([
    ['no JSON', 'lenses', null],
    ['no page', '{"requests":{}}', null],
    ['a name far too long', JSON.stringify({ requests: [{ id: 'x', seller: { name: 'n'.repeat(500) }, wearer: {} }], next: 1 }), 0],
    ['a curve of no eye', JSON.stringify({ requests: [{ id: 'x', seller: {}, wearer: {}, right: { power: '-1', baseCurveMm: 86 } }], next: 1 }), 0],
    ['a bare request', JSON.stringify({ requests: [{ id: 'x', seller: {}, wearer: {} }], next: 1 }), 1],
  ])('%s', (_name, body, count) => {
    expect(sentRequests(body)?.requests.length ?? null).toBe(count);
  });
});

describe('what was answered to it', () => {
  it('is brought once under its own identity; a corrected one names the lenses', async () => {
    const ref = await asks({ right: { power: '-2.50', lensName: 'Turnstone 30', baseCurveMm: 8.4, diameterMm: 14.2, boxes: 2 } });
    await takeRequests(deps(), 0);
    expect(await answerOne(deps())).toBe(false);
    const id = await answered(ref, 'corrected');
    await fault('lostAnswer');
    expect(await answerOne(deps())).toBe(true);
    world.move(10);
    expect(await answerOne(deps())).toBe(true);
    expect(await answerOne(deps())).toBe(false);
    const mine = (await told()).filter((a) => a.id === id);
    expect(mine).toMatchObject([{ seen: 2, body: { request: ref, answer: 'corrected' } }]);
    expect(mine[0]?.body.corrected).toMatchObject([
      { eye: 'right', sphereD: -2, familyName: 'Turnstone 30' },
      { eye: 'left', sphereD: -2.25 },
    ]);
  });
  it('what was typed in from paper is told by a person, and by nobody else', async () => {
    const { requestId } = await world.must('recordRequest', {
      ...{
        sellerName: 'On Paper',
        sellerContact: '0555 0199',
        wearerId,
        wearerName: 'S',
        receivedOn: '2026-11-24',
        receivedTime: '9:30',
        right: null,
        left: null,
      },
    });
    await world.must('answerRequest', { requestId, seen: 0, answer: 'invalid', reason: 'asks for nothing' });
    expect(await world.db.owner`select 1 from request_dispatch d join request_answer a on a.id = d.answer_id where a.request_id = ${requestId ?? ''}`).toEqual(
      [],
    );
  });
  it('killed at every step, it is brought once and stored once', { timeout: 180_000 }, async () => {
    const steps = await crashAtEvery({
      job: 'answerSellers',
      databaseUrl: world.db.appUrl,
      owner: world.db.owner,
      outsideUrl: url,
      prepare: async () => {
        const ref = await asks();
        await takeRequests(deps(), 0);
        return answered(ref);
      },
      now: () => world.deps.clock.now(),
      recover: async () => {
        world.move(400);
        while (await answerOne(deps()));
      },
      check: async (id, diedAt) => {
        expect(
          (await told()).filter((a) => a.id === id),
          `died at ${diedAt}`,
        ).toHaveLength(1);
        const [row] = await world.db.owner<{ outcome: string | null }[]>`select outcome from request_dispatch where answer_id = ${id}`;
        expect(row?.outcome, `died at ${diedAt}`).toBe('taken');
      },
    });
    expect(steps).toBeGreaterThan(7);
  });
});

describe('copies for whoever acts for a wearer', () => {
  interface Copy {
    readonly id: string;
    readonly dueAt: string | null;
    readonly how: string | null;
    readonly inForce: readonly { readonly id: string }[];
  }
  const AGENT = { agentName: 'Quayside Lenses', agentContact: 'fax 0555 0199', receivedOn: '2026-11-24', receivedTime: '9:30' };
  const ask = (change: object = {}) => world.do('recordCopyRequest', { wearerId, ...AGENT, ...change }, world.callers.coordinator);
  const shown = async (): Promise<readonly Copy[]> => ((await world.must('readRequests', {})) as unknown as { copies: readonly Copy[] }).copies;
  it('40 of the hours that count run from when it came; under the US rules 9 to 17 on working days (16 CFR 315, from memory)', async () => {
    const [last] = await world.db.owner<{ id: string }[]>`select id from practice_setting where key = 'ruleProfile' order by set_at desc limit 1`;
    await world.must('changeSetting', { key: 'ruleProfile', value: 'us', lastChangeId: last?.id ?? null }, world.callers.admin);
    world.move(1);
    expect(await ask()).toMatchObject({ ok: true });
    const [copy] = await shown();
    // Tuesday 9:30: 7.5 h; Wednesday 8; Thursday is Thanksgiving; Friday 8; the seller may count Saturday's hours; Monday on.
    const due = new Date(copy?.dueAt ?? '').getTime();
    expect(due).toBeGreaterThan(Date.parse('2026-11-30T14:00:00Z'));
    expect(due).toBeLessThanOrEqual(Date.parse('2026-12-02T22:00:00Z'));
  });
  it('one to come, no agent, a day where the address belongs are refused at their fields', async () => {
    expect(await ask({ receivedOn: '2031-01-01' })).toMatchObject({ error: { fields: [{ path: ['receivedTime'], code: 'receivedInFuture' }] } });
    expect(await ask({ agentName: ' ' })).toMatchObject({ error: { fields: [{ path: ['agentName'], code: 'agentRequired' }] } });
    expect(await ask({ agentContact: '24 Nov 2026' })).toMatchObject({ error: { fields: [{ path: ['agentContact'], code: 'contactIsADay' }] } });
  });
  it('a person says which prescription was sent, or why none; once, and only one of this wearer', async () => {
    const copy = (await shown()).find((c) => c.how === null);
    const end = (form: object) => world.do('endCopyRequest', { copyRequestId: copy?.id, ...form }, world.callers.coordinator);
    expect(await end({ how: 'sent' })).toMatchObject({ error: { fields: [{ code: 'whichPrescription' }] } });
    expect(await end({ how: 'refused' })).toMatchObject({ error: { fields: [{ code: 'refusedWhy' }] } });
    const other = await signPair(world, await world.visit(2, { right: '-2.00', left: '-2.25' }));
    expect(await end({ how: 'sent', prescriptionId: other })).toMatchObject({ error: { kind: 'notFound' } });
    expect(await end({ how: 'sent', prescriptionId: copy?.inForce[0]?.id })).toMatchObject({ ok: true });
    expect(await end({ how: 'refused', reason: 'after all' })).toMatchObject({ error: { kind: 'conflict' } });
    expect((await shown()).find((c) => c.id === copy?.id)).toMatchObject({ how: 'sent' });
  });
});
