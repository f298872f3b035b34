import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { careTopicsFor, topicsAgain, type Eye } from '../../src/core';
import type { ServiceName } from '../../src/services';
import { fillDrawer } from '../support/drawer';
import { finishLesson, newWearer, openWorld, spec, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 50);
}, 60_000);
afterAll(() => world.db.close());

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
const topics = careTopicsFor({ singleUse: false });

/** A visit with a monthly lens on the right eye, and its lesson begun. */
async function begun(family = 'turnstone-30', curve = 8.4, diameter = 14.2) {
  const record = await newWearer(world);
  const visitId = await world.visit(record, { right: '-2.00', left: null });
  await world.must('putOnTrials', { ...(await at(visitId)), right: await spec(world, family, -2, 0, 180, curve, diameter), left: null });
  const { lessonId = '' } = await world.must('startLesson', { ...(await at(visitId)), handler: '' });
  const does = async (name: ServiceName, input: object, caller = world.callers.technician) =>
    world.do(name, { ...(await at(visitId)), lessonId, ...input }, caller);
  const tries = (move: 'on' | 'off', input: object = {}) => does('recordAttempt', { eye: 'right', move, worked: true, miss: null, ...input });
  return { record, visitId, lessonId, does, tries };
}
type Begun = Awaited<ReturnType<typeof begun>>;
const moves = async (of: Begun): Promise<void> => {
  for (const move of ['off', 'on', 'off', 'on'] as const) expect((await of.tries(move)).ok).toBe(true);
};
const say = async (of: Begun): Promise<void> => {
  for (const topic of topics) expect((await of.does('recordTopic', { topic })).ok).toBe(true);
};
const lensOn = async (visitId: string, eye: Eye = 'right') => (await world.record(visitId)).facts.onEye.find((c) => c.current?.eye === eye)?.rootId ?? '';

describe('a lesson’s lock', () => {
  it('acuity and what is asked again lock it too; a technician cannot pass it, a prescriber can with a sentence that is kept', async () => {
    const of = await begun();
    await moves(of);
    await say(of);
    expect(await of.does('signOffLesson', {})).toMatchObject({ error: { rule: 'lessonLocked', data: { missing: 6 } } });
    expect(await of.does('signOffLesson', { overrideNote: 'all will be well' })).toMatchObject({ error: { rule: 'lessonLocked' } });
    expect(await of.does('signOffLesson', { overrideNote: 'nurse; wore them for years', unbookedReason: 'books at the desk' }, world.asha)).toMatchObject({
      ok: true,
    });
    const [row] = await world.db.owner<{ overridden: string[]; overrideNote: string }[]>`
      select overridden, override_note as "overrideNote" from lesson_sign_off where lesson_id = ${of.lessonId}`;
    expect(row?.overrideNote).toBe('nurse; wore them for years');
    expect(row?.overridden).toEqual(expect.arrayContaining(['care', 'sight right', 'again dangerSigns']));
  });
  it('what was not told yet is not asked again; acuity needs a lens on the eye', async () => {
    const of = await begun();
    expect(await of.does('recordTopicsAgain', { topics: [...topicsAgain(topics)] })).toMatchObject({ error: { rule: 'topicsNotTold', data: { count: 4 } } });
    // Put on by whoever fitted it: nothing is known of the wearer's own hands yet.
    expect(await of.does('recordLessonSight', { eye: 'right', acuity: { logMar: 0, typed: '20/20' } })).toMatchObject({ error: { rule: 'notPutOnYet' } });
    for (const move of ['off', 'on', 'off'] as const) await of.tries(move);
    expect(await of.does('recordLessonSight', { eye: 'right', acuity: { logMar: 0, typed: '20/20' } })).toMatchObject({ error: { rule: 'noLensOnIt' } });
    expect(await of.does('recordLessonSight', { eye: 'left', acuity: { logMar: 0, typed: '20/20' } })).toMatchObject({ error: { rule: 'eyeNotTaught' } });
    expect(await of.does('recordTopic', { topic: 'sing' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await of.does('recordTopic', { topic: 'ownCaseFullHours' })).toMatchObject({ error: { fields: [{ code: 'topicUnknown' }] } });
  });
});

describe('the hour', () => {
  it('runs from the first attempt, rests, and stops putting on when it is over; off is always written down; a prescriber lets it go on', async () => {
    const of = await begun();
    await of.tries('off');
    for (let i = 0; i < 3; i++) {
      world.move(15 * 60);
      await of.does('recordTopic', { topic: topics[i] });
    }
    expect(await of.does('turnLessonClock', { turn: 'run' })).toMatchObject({ error: { rule: 'clockRuns' } });
    expect((await of.tries('on')).ok).toBe(true);
    world.move(16 * 60);
    expect(await of.tries('off')).toMatchObject({ ok: true });
    expect(await of.tries('on')).toMatchObject({ error: { rule: 'hourOver' } });
    expect(await of.does('turnLessonClock', { turn: 'run', note: 'nearly there' })).toMatchObject({ error: { rule: 'hourOver' } });
    expect(await of.does('turnLessonClock', { turn: 'run', note: 'nearly there, not tired' }, world.asha)).toMatchObject({ ok: true });
    expect((await of.tries('on')).ok).toBe(true);
  });
  it('stops for the day with a booking, or why none, once the lens is off; what was reached carries over', async () => {
    const of = await begun();
    expect(await of.does('stopLesson', { unbookedReason: 'rings tomorrow' })).toMatchObject({ error: { rule: 'lensStillOn' } });
    await of.tries('off');
    expect(await of.does('stopLesson', {})).toMatchObject({ error: { fields: [{ path: ['unbookedReason'] }] } });
    expect(await of.does('stopLesson', { unbookedReason: 'rings tomorrow' })).toMatchObject({ ok: true });
    const turns = (await world.record(of.visitId)).lessonTurns.map((c) => c.current?.turn);
    expect(turns).toEqual(['run', 'stop']);
  });
});

describe('how somebody is taught', () => {
  it('each attempt keeps its technique; four misses in a row change it; one that is chosen stays', async () => {
    const of = await begun();
    await of.tries('off');
    for (let i = 0; i < 4; i++) expect((await of.tries('on', { worked: false, miss: 'fingerWet' })).ok).toBe(true);
    expect((await of.tries('on', { worked: false, miss: 'lashes' })).ok).toBe(true);
    await of.does('setLessonWay', { hand: 'left', dexterity: 'tremor', skinTone: 6, onTechnique: 'twoHanded', offTechnique: null });
    await of.tries('on');
    const record = await world.record(of.visitId);
    expect(record.attempts.map((c) => c.current?.technique)).toEqual([
      'slideAndPinch',
      'twoHanded',
      'twoHanded',
      'twoHanded',
      'twoHanded',
      'oneHanded',
      'twoHanded',
    ]);
    expect(record.lessonWays.at(-1)?.current).toMatchObject({ hand: 'left', dexterity: 'tremor', skinTone: 6 });
    await expect(world.db.app`update lesson_way set hand = 'right'`).rejects.toThrow(/permission denied/);
  });
  it('a miss of the other move, a technique that is none and a skin that is none are refused', async () => {
    const of = await begun();
    expect(await of.tries('off', { worked: false, miss: 'sneezed' })).toMatchObject({ error: { kind: 'invalid' } });
    const way = { hand: 'left', dexterity: 'good', skinTone: 8, onTechnique: null, offTechnique: null };
    expect(await of.does('setLessonWay', way)).toMatchObject({ error: { kind: 'invalid' } });
  });
});

describe('a change asks for its topics anew', () => {
  async function signedOff(): Promise<Begun> {
    const of = await begun();
    await moves(of);
    await say(of);
    await finishLesson(world, of.visitId, of.lessonId, ['right']);
    expect(await of.does('signOffLesson', {})).toMatchObject({ error: { fields: [{ code: 'bookOrSayWhy' }] } });
    expect(await of.does('signOffLesson', { unbookedReason: 'books at the desk' })).toMatchObject({ ok: true });
    return of;
  }
  const box = async (visitId: string, more: object = {}) => ({
    ...(await at(visitId)),
    ...{ right: { lensOnEyeId: await lensOn(visitId), lot: 'A1', expiresOn: '2028-01-01' }, left: null, ...more },
  });
  it('another solution: no lenses go home before its topics are said back in a lesson of topics alone', async () => {
    const of = await signedOff();
    const [peroxide] = await world.db.owner<{ productId: string }[]>`select product_id as "productId" from care_product where system = 'peroxide'`;
    await world.must('prescribeCare', { ...(await at(of.visitId)), productId: peroxide?.productId ?? '', chosenFor: 'sensitivity' });
    expect(await world.do('handOver', await box(of.visitId), world.callers.technician)).toMatchObject({ error: { rule: 'topicsOwed', data: { count: 3 } } });
    expect(await world.do('handOver', await box(of.visitId, { experienceNote: 'knows it' }), world.callers.technician)).toMatchObject({
      error: { rule: 'topicsOwed' },
    });
    const { lessonId = '' } = await world.must('startLesson', { ...(await at(of.visitId)), topicsOnly: true });
    const asked = ['rubAndRinse', 'freshSolution', 'ownCaseFullHours'] as const;
    for (const topic of asked) await world.must('recordTopic', { ...(await at(of.visitId)), lessonId, topic });
    await world.must('recordTopicsAgain', { ...(await at(of.visitId)), lessonId, topics: ['ownCaseFullHours'] });
    await world.must('signOffLesson', { ...(await at(of.visitId)), lessonId }, world.callers.technician);
    expect(await world.do('handOver', await box(of.visitId), world.callers.technician)).toMatchObject({ ok: true });
  });
  it('nothing changed: nothing is asked, and no lesson of topics begins', async () => {
    const of = await signedOff();
    expect(await world.do('startLesson', { ...(await at(of.visitId)), topicsOnly: true })).toMatchObject({ error: { rule: 'nothingOwed' } });
    expect(await world.do('handOver', await box(of.visitId))).toMatchObject({ ok: true });
  });
  it('a prescriber says in a sentence why not', async () => {
    const of = await signedOff();
    const [peroxide] = await world.db.owner<{ productId: string }[]>`select product_id as "productId" from care_product where system = 'peroxide'`;
    await world.must('prescribeCare', { ...(await at(of.visitId)), productId: peroxide?.productId ?? '', chosenFor: 'sensitivity' });
    expect(await world.do('handOver', await box(of.visitId, { experienceNote: 'used it for years before' }))).toMatchObject({ ok: true });
    const [row] = await world.db.owner<{ teaching: string; note: string }[]>`
      select teaching, experience_note as note from hand_over where visit_id = ${of.visitId}`;
    expect(row).toEqual({ teaching: 'signedOff', note: 'used it for years before' });
  });
});

describe('what lessons say', () => {
  interface Page {
    readonly minutes: { readonly lessons: number; readonly half: number | null; readonly firstDay: number };
    readonly misses: readonly { readonly miss: string; readonly move: string; readonly count: number }[];
    readonly techniques: readonly { readonly technique: string; readonly attempts: number; readonly worked: number }[];
  }
  const read = async (): Promise<Page> => {
    const done = await world.do('readLessonFigures', {});
    if (!done.ok) throw new Error('not read');
    return done.value as unknown as Page;
  };
  const missed = (page: Page, miss: string): number => page.misses.find((m) => m.miss === miss && m.move === 'off')?.count ?? 0;
  it('counts attempts that stand, by why and by technique; minutes from the first attempt to the last of all days', async () => {
    const before = await read();
    const of = await begun();
    await of.tries('off', { worked: false, miss: 'tooDry' });
    const wrong = (await world.record(of.visitId)).attempts.at(-1);
    await world.must('correct', {
      ...(await at(of.visitId)),
      kind: 'lessonAttempt',
      factId: wrong?.current?.id ?? '',
      reason: 'pressed by mistake',
      value: null,
    });
    await of.tries('off', { worked: false, miss: 'notOnWhite' });
    world.move(20 * 60);
    await moves(of);
    await say(of);
    await finishLesson(world, of.visitId, of.lessonId, ['right']);
    await of.does('signOffLesson', { unbookedReason: 'books at the desk' });
    const after = await read();
    expect(missed(after, 'tooDry')).toBe(missed(before, 'tooDry'));
    expect(missed(after, 'notOnWhite') - missed(before, 'notOnWhite')).toBe(1);
    expect(after.minutes.lessons - before.minutes.lessons).toBe(1);
    const worked = (page: Page): number => page.techniques.find((x) => x.technique === 'slideAndPinch')?.worked ?? 0;
    expect(worked(after) - worked(before)).toBe(2);
  });
});

describe('what a prescriber says of a lesson', () => {
  it('somebody else handles only when a prescriber agreed, and is the one who is taught', async () => {
    const visitId = await world.visit(await newWearer(world), { right: '-2.00', left: null });
    await world.must('putOnTrials', { ...(await at(visitId)), right: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2), left: null });
    const start = async (handler: string, caller = world.callers.technician) => world.do('startLesson', { ...(await at(visitId)), handler }, caller);
    expect(await start('Ada Quillby')).toMatchObject({ error: { rule: 'helperNotAgreed' } });
    const agree = async (input: object, caller = world.asha) =>
      world.do('instructLesson', { ...(await at(visitId)), what: 'helper', text: 'Ada  Quillby', why: 'tremor', ...input }, caller);
    expect(await agree({}, world.callers.technician)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await agree({ why: null })).toMatchObject({ error: { fields: [{ path: ['why'], code: 'helperWhyRequired' }] } });
    expect(await agree({ text: ' ' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await agree({})).toMatchObject({ ok: true });
    expect(await start('Somebody Else')).toMatchObject({ error: { rule: 'helperNotAgreed' } });
    expect(await start('ada quillby')).toMatchObject({ ok: true });
  });
  it('what else is taught stands with the lesson, and holds on another day', async () => {
    const of = await begun();
    expect(await world.do('instructLesson', { ...(await at(of.visitId)), what: 'addition', text: 'drops at noon' })).toMatchObject({ ok: true });
    expect((await world.record(of.visitId)).lessonInstructions.map((c) => c.current?.text)).toEqual(['drops at noon']);
    await world.must('closeVisit', await at(of.visitId));
    const next = await world.visit(of.record, { right: '-2.00', left: null });
    expect((await world.record(next)).lessonInstructions.map((c) => c.current?.text)).toEqual(['drops at noon']);
  });
});

describe('lessons that go on', () => {
  it('stand side by side, oldest first, until they are stopped, signed off or their visit is closed', async () => {
    const names = async () => {
      const read = await world.do('readLessonsNow', {}, world.callers.technician);
      return read.ok
        ? (read.value as unknown as { lessons: { lessonId: string; next: { right: string }; minutes: number; missed: string | null }[] }).lessons
        : [];
    };
    const before = (await names()).length;
    const first = await begun();
    world.move(60);
    const second = await begun();
    await second.tries('off', { worked: false, miss: 'tooDry' });
    const two = (await names()).slice(before);
    expect(two.map((l) => l.lessonId)).toEqual([first.lessonId, second.lessonId]);
    expect(two[1]).toMatchObject({ missed: 'tooDry', next: { right: 'off' } });
    await first.tries('off');
    await first.does('stopLesson', { next: null, unbookedReason: 'calls back' });
    expect((await names()).slice(before).map((l) => l.lessonId)).toEqual([second.lessonId]);
    await second.tries('off');
    await world.must('closeVisit', await at(second.visitId));
    expect(await names()).toHaveLength(before);
  });
});

describe('two who teach in one lesson', () => {
  it('each records; who builds on an older count of the same eye is told first, and nothing counts twice', async () => {
    const of = await begun();
    const version = await world.version(of.visitId);
    const press = (eye: string, caller = world.callers.technician) =>
      world.do('recordAttempt', { visitId: of.visitId, version, lessonId: of.lessonId, eye, move: 'off', worked: true, miss: null }, caller);
    const both = await Promise.all([press('right'), press('right', world.asha)]);
    expect(both.filter((r) => r.ok)).toHaveLength(1);
    expect(both.find((r) => !r.ok)).toMatchObject({ error: { kind: 'conflict' } });
    expect((await world.record(of.visitId)).attempts.filter((c) => c.current?.worked)).toHaveLength(1);
    // A topic beside it is nobody's conflict.
    expect(await world.do('recordTopic', { visitId: of.visitId, version, lessonId: of.lessonId, topic: 'noWater' })).toMatchObject({ ok: true });
  });
});
