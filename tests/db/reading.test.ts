import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CARE_TOPICS, EYES, STEP_SLICES, VISIT_PAGES, type Eye, type VisitPage } from '../../src/core';
import { withAnswer } from '../../src/features/visit/shell/visitData';
import { COMMANDS, type CommandName } from '../../src/services';
import type { Context } from '../../src/services/define';
import { performWith } from '../../src/services/perform';
import type { SessionContext } from '../../src/services/sessionContext';
import { readChanged, type VisitPart } from '../../src/services/visit/slices';
import { blinksAt, openWorld, SENTENCES, spec, type World } from './support';

/** Reading a visit by parts: what a command answers is what reading it again would give, and what is condensed loses nothing that counts. */
let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 180_000);
afterAll(() => world.db.close());

type Parts = Readonly<Record<VisitPage, VisitPart>>;
async function readAll(visitId: string): Promise<Parts> {
  const parts: Partial<Record<VisitPage, VisitPart>> = {};
  for (const page of VISIT_PAGES) {
    const read = (await world.must('readVisit', { visitId, page })) as unknown as { readonly session: SessionContext; readonly part: VisitPart };
    parts[page] = read.part;
  }
  return parts as Parts;
}
const version = (parts: Parts): number => parts.history.head.visit.version;

/** Does a command, and looks on every page whether what it answers is all that it changed. */
async function checked(visitId: string, name: CommandName, input: object): Promise<Record<string, string & number>> {
  const before = await readAll(visitId);
  const answers: Partial<Record<VisitPage, VisitPart | null>> = {};
  const extra = async (context: Context): Promise<void> => {
    for (const page of VISIT_PAGES) answers[page] = await readChanged(context, page);
  };
  const done = await performWith(COMMANDS[name] as never, world.deps, world.callers.prescriber, { visitId, version: version(before), ...input }, { extra });
  if (!done.ok) throw new Error(`${name}: ${JSON.stringify(done.error)}`);
  const after = await readAll(visitId);
  for (const page of VISIT_PAGES) {
    const answer = answers[page];
    if (!answer) throw new Error(`${name} answers nothing`);
    expect(JSON.parse(JSON.stringify(withAnswer({ ...before[page], page }, answer))), `${name} on ${page}`).toEqual(
      JSON.parse(JSON.stringify({ ...after[page], page })),
    );
  }
  return done.value.output as Record<string, string & number>;
}

describe('what a command answers', () => {
  it('is what reading every page again gives, from the history to the order', async () => {
    const visitId = String((await world.must('openVisit', { wearerId: await world.wearerId(1), kind: 'firstFit' })).visitId);
    const answers = [
      { question: 'danger', value: ['none'], note: null },
      { question: 'goals', value: ['sport'], note: null },
    ];
    await checked(visitId, 'recordHistory', { answers });
    const clear = ['lidMargin', 'bulbarRedness', 'limbalRedness', 'papillae', 'staining'].map((sign) => ({ sign, value: 0 }));
    await checked(visitId, 'recordFindings', { right: clear, left: clear });
    await checked(visitId, 'recordRefraction', { right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165', vertexMm: 12 });
    await checked(visitId, 'decideKind', { modality: 'monthly', wear: 'day', reason: 'handles boxes better than blisters' });
    const right = await spec(world, 'plover-30-toric', -3, -1.75, 20);
    const left = await spec(world, 'plover-30-toric', -4.25, -1.25, 170);
    const on = await checked(visitId, 'putOnTrials', { right, left });
    const [onRight, onLeft] = (on.facts as unknown as { id: string }[]).map((f) => f.id);
    world.move(1200);
    const reading = (lensOnEyeId: string | undefined, over: string) => ({ lensOnEyeId, fit: 'fits', blinks: blinksAt(0), overRefraction: over, vertexMm: 12 });
    const read = await checked(visitId, 'recordOnEye', { right: reading(onRight, '0.00 0.00 x 180'), left: reading(onLeft, '0.00 0.00 x 180'), both: null });
    await checked(visitId, 'undo', { facts: (read.facts as unknown as { id: string; kind: string }[]).slice(-1) });
    await checked(visitId, 'chooseLens', { lensOnEyeId: onRight, why: 'the only one tried' });
    await checked(visitId, 'swapEyes', { kind: 'refraction', reason: 'typed the wrong way round' });
    await checked(visitId, 'swapEyes', { kind: 'refraction', reason: 'they were right' });
    const signed = await checked(visitId, 'sign', {
      password: 'plain-sight',
      right: { mode: 'final', lens: right, triedLensOnEyeId: onRight },
      left: { mode: 'final', lens: left, triedLensOnEyeId: onLeft },
      expiresOn: '2027-11-20',
      daysPerWeek: 6,
      waitNote: 'cannot come back before the voyage',
      overrides: SENTENCES,
    });
    const { lessonId } = await checked(visitId, 'startLesson', {});
    await checked(visitId, 'recordAttempt', { lessonId, eye: 'right', move: 'off', worked: true, unaided: true, miss: null });
    await checked(visitId, 'recordTopic', { lessonId, topic: CARE_TOPICS[0] });
    const box = (lensOnEyeId: string | undefined) => ({ lensOnEyeId, lot: 'K1', expiresOn: '2028-01-01' });
    await checked(visitId, 'handOver', { right: box(onRight), left: box(onLeft), experienceNote: 'has worn lenses for years' });
    await checked(visitId, 'placeOrder', { requestKey: crypto.randomUUID(), prescriptionId: signed.prescriptionId, rightPacks: 1, leftPacks: 1 });
    await checked(visitId, 'takeOff', { lensOnEyeIds: [onRight] });
    await checked(visitId, 'putBack', { lensOnEyeId: onRight, reason: 'the other eye was meant' });
    await checked(visitId, 'recordFindings', {
      right: [
        { sign: 'pain', value: 3 },
        { sign: 'bulbarRedness', value: 3 },
      ],
      left: [],
    });
    const stopped = (await readAll(visitId)).eyeHealth;
    expect(stopped.head.stops.length).toBeGreaterThan(0);
    const [stop] = stopped.slices.health?.health.stops ?? [];
    await checked(visitId, 'openReferral', { stopId: stop?.id });
    await checked(visitId, 'closeVisit', {});
  });
  it('has no more than the page works with', async () => {
    const visitId = await world.visit(2);
    for (const page of VISIT_PAGES) {
      const { part } = (await world.must('readVisit', { visitId, page })) as unknown as { readonly part: VisitPart };
      expect(Object.keys(part.slices).sort(), page).toEqual([...STEP_SLICES[page]].sort());
    }
  });
});

describe('what is read of earlier visits', () => {
  const SIGNS_SEEN = ['staining', 'papillae', 'bulbarRedness', 'lidMargin'] as const;
  interface Seen {
    readonly visitId: string;
    readonly eye: Eye;
    readonly sign: string;
    readonly value: number;
  }
  it('is the newest, the lowest and the last points: the same that going through every row gives', async () => {
    const wearerId = await world.wearerId(4);
    const seen: Seen[] = [];
    const said: { readonly question: string; readonly value: string }[] = [];
    let seed = 7;
    const next = (below: number): number => {
      seed = (seed * 48271) % 2147483647;
      return seed % below;
    };
    for (let i = 0; i < 16; i++) {
      const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
      if (i === 0 || next(2) === 0) {
        const answer = { question: 'dryness', value: ['none', 'evening', 'severe'][next(3)] ?? 'none', note: null };
        const done = await world.do('recordHistory', { visitId, version: 1, answers: [answer] });
        if (done.ok) said.push({ question: 'dryness', value: answer.value });
      }
      const grades = (eye: Eye) => SIGNS_SEEN.filter(() => next(3) > 0).map((sign) => ({ eye, visitId, sign, value: next(5) / 2 }));
      const both = { right: grades('right'), left: grades('left') };
      const asForm = (all: readonly Seen[]) => all.map(({ sign, value: grade }) => ({ sign, value: grade }));
      const recorded = await world.must('recordFindings', {
        visitId,
        version: await world.version(visitId),
        right: asForm(both.right),
        left: asForm(both.left),
      });
      seen.push(...both.right, ...both.left);
      // Now and then a grade is corrected, or taken back.
      const facts = recorded.facts as unknown as { id: string }[];
      const [first] = [...both.right, ...both.left];
      if (i % 5 === 4 && first && facts[0]) {
        const taken = i % 2 === 0;
        await world.must('correct', {
          visitId,
          version: await world.version(visitId),
          kind: 'finding',
          factId: facts[0].id,
          reason: 'the other sign was meant',
          value: taken ? null : { as: 'sign', value: 1.5 },
        });
        const place = seen.indexOf(first);
        if (taken) seen.splice(place, 1);
        else seen[place] = { ...first, value: 1.5 };
      }
      world.move(86_400);
      await world.must('closeVisit', { visitId, version: await world.version(visitId) });
    }
    const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
    const record = await world.record(visitId);
    const past = record.health.findings.flatMap((c) => (c.current ? [c.current] : []));
    for (const eye of EYES)
      for (const sign of SIGNS_SEEN) {
        const all = seen.filter((s) => s.eye === eye && s.sign === sign);
        expect(
          past.filter((f) => f.eye === eye && f.sign === sign).map((f) => f.numberValue),
          `${eye} ${sign}`,
        ).toEqual(all.slice(-1).map((s) => s.value));
        expect(record.health.lowest[eye][sign]).toBe(all.length === 0 ? undefined : Math.min(...all.map((s) => s.value)));
        expect((record.trend[eye][sign] ?? []).map((p) => p.value)).toEqual(all.slice(-12).map((s) => s.value));
      }
    expect(record.health.answers.filter((a) => a.question === 'dryness').map((a) => a.value)).toEqual(said.slice(-1).map((s) => s.value));
  });
  it('an earlier visit, looked at again, knows nothing of what came after it', async () => {
    const wearerId = await world.wearerId(5);
    const first = String((await world.must('openVisit', { wearerId, kind: 'longFollowUp' })).visitId);
    await world.must('recordFindings', { visitId: first, version: 1, right: [{ sign: 'papillae', value: 1 }], left: [] });
    await world.must('closeVisit', { visitId: first, version: 2 });
    world.move(86_400);
    const second = String((await world.must('openVisit', { wearerId, kind: 'longFollowUp' })).visitId);
    await world.must('recordFindings', { visitId: second, version: 1, right: [{ sign: 'papillae', value: 3 }], left: [] });
    expect((await world.record(first)).health.lowest.right).toEqual({});
    expect((await world.record(second)).health.lowest.right.papillae).toBe(1);
  });
});

describe('the visits of a wearer', () => {
  it('come by pages of twenty, each once, newest first', async () => {
    const wearerId = await world.wearerId(6);
    for (let i = 0; i < 23; i++) {
      world.move(60);
      const { visitId = '' } = await world.must('openVisit', { wearerId, kind: 'longFollowUp' });
      await world.must('closeVisit', { visitId, version: 1 });
    }
    interface Page {
      readonly visits: readonly { readonly id: string; readonly openedAt: string }[];
      readonly moreVisits: boolean;
    }
    const first = (await world.must('readWearer', { wearerId })) as unknown as Page;
    const last = first.visits.at(-1);
    const second = (await world.must('readWearer', { wearerId, after: { openedAt: last?.openedAt, id: last?.id } })) as unknown as Page;
    expect([first.visits.length, first.moreVisits, second.moreVisits]).toEqual([20, true, false]);
    const all = [...first.visits, ...second.visits];
    const rows = await world.db.owner<{ id: string }[]>`select id from visit where wearer_id = ${wearerId} order by opened_at desc, id desc`;
    expect(all.map((v) => v.id)).toEqual(rows.map((r) => r.id));
  });
});
