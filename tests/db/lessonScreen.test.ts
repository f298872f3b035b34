import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CODE_LETTERS, CODE_MINUTES, readCode, SCREEN_HOURS } from '../../src/core';
import { SERVICES, type ServiceName } from '../../src/services';
import type { Caller } from '../../src/services/define';
import { enterWithCode } from '../../src/services/lesson/screen';
import { perform } from '../../src/services/perform';
import { resumeLink } from '../../src/services/session/link';
import { fillDrawer } from '../support/drawer';
import { newWearer, openWorld, spec, type World } from './support';

let world: World;
let lessonId = '';
let visitId = '';
beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 50);
  ({ lessonId, visitId } = await begun());
}, 60_000);
afterAll(() => world.db.close());

async function begun(): Promise<{ readonly lessonId: string; readonly visitId: string }> {
  const visit = await world.visit(await newWearer(world), { right: '-2.00', left: null });
  const at = async () => ({ visitId: visit, version: await world.version(visit) });
  await world.must('putOnTrials', { ...(await at()), right: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2), left: null });
  const { lessonId: id = '' } = await world.must('startLesson', { ...(await at()), handler: '' });
  return { lessonId: id, visitId: visit };
}
const code = async (of = lessonId): Promise<string> => String((await world.must('openLessonScreen', { lessonId: of }, world.callers.technician)).code);
let places = 0;
const enter = (typed: string, address = `place ${(places += 1)}`) => enterWithCode(world.deps, typed, address);
const show = { part: 'on', page: 1, eye: 'right', hand: 'left', skinTone: 5, onTechnique: 'twoHanded', offTechnique: 'slideAndPinch', peroxide: false };

describe('a code', () => {
  it('opens once: the link shows this lesson and no other, no name and no power', async () => {
    const entered = await enter(` ${(await code()).toLowerCase().replace(/^(...)/, '$1-')} `);
    if (!entered.ok) throw new Error(JSON.stringify(entered.error));
    expect(entered.value.lessonId).toBe(lessonId);
    const link = await resumeLink(world.deps, entered.value.token);
    if (!link.ok) throw new Error('no link');
    expect(link.value).toMatchObject({ purpose: 'lesson', subjectId: lessonId });
    const read = (of: string) => perform(SERVICES.readLessonScreen as never, world.deps, link.value as Caller, { lessonId: of });
    expect(await read(lessonId)).toEqual({ ok: true, value: { lessonId, show: null, eyes: ['right'], singleUse: false, signedOff: false, answers: [] } });
    const other = await begun();
    expect(await read(other.lessonId)).toMatchObject({ error: { kind: 'notFound' } });
    for (const name of Object.keys(SERVICES) as ServiceName[]) {
      if (name === 'readLessonScreen' || name === 'answerExercise') continue;
      const asked = await perform(SERVICES[name] as never, world.deps, link.value as Caller, { lessonId, visitId });
      expect(asked, name).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
    }
  });
  it('used, run out, replaced and guessed ones are answered alike', async () => {
    const used = await code();
    expect((await enter(used)).ok).toBe(true);
    const refused = { ok: false, error: { kind: 'invalid', fields: [{ path: ['code'], code: 'codeUnknown' }] } };
    expect(await enter(used)).toMatchObject(refused);
    const replaced = await code();
    const late = await code();
    expect(await enter(replaced)).toMatchObject(refused);
    world.move(CODE_MINUTES * 60);
    expect(await enter(late)).toMatchObject(refused);
    expect(await enter('ABCDEF')).toMatchObject(refused);
    expect(await enter('ABC')).toMatchObject({ error: { fields: [{ code: 'codeShape' }] } });
  });
  it('guesses from one place have to wait; a right one clears them', async () => {
    for (let i = 0; i < 4; i++) await enter('ABCDEF', 'a corner');
    expect((await enter(await code(), 'a corner')).ok).toBe(true);
    world.move(1);
    for (let i = 0; i < 5; i++) expect(await enter('ABCDEF', 'a corner')).toMatchObject({ error: { kind: 'invalid' } });
    expect(await enter(await code(), 'a corner')).toMatchObject({ error: { kind: 'throttled' } });
    expect((await enter(await code(), 'another corner')).ok).toBe(true);
  });
  it('two who type it at once: one screen opens', async () => {
    const typed = await code();
    const both = await Promise.all([enter(typed), enter(typed)]);
    expect(both.filter((b) => b.ok)).toHaveLength(1);
  });
  it('the screen closes after its hours', async () => {
    const entered = await enter(await code());
    if (!entered.ok) throw new Error('refused');
    world.move(SCREEN_HOURS * 3600 - 1);
    expect((await resumeLink(world.deps, entered.value.token)).ok).toBe(true);
    world.move(2);
    expect((await resumeLink(world.deps, entered.value.token)).ok).toBe(false);
  });
  it('reads what is typed as it is meant, and nothing else', () =>
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...CODE_LETTERS), { minLength: 6, maxLength: 6 }), (letters) => {
        const plain = letters.join('');
        expect(readCode(` ${plain.slice(0, 3).toLowerCase()}-${plain.slice(3)} `)).toBe(plain);
        expect(readCode(plain.slice(1))).toBeNull();
        expect(readCode(`${plain.slice(0, 5)}0`)).toBeNull();
      }),
    ));
});

describe('an exercise', () => {
  it('is answered by the link of its lesson alone, judged here, appended with who', async () => {
    const entered = await enter(await code());
    if (!entered.ok) throw new Error('refused');
    const link = await resumeLink(world.deps, entered.value.token);
    if (!link.ok) throw new Error('no link');
    const answer = (input: object) => perform(SERVICES.answerExercise as never, world.deps, link.value as Caller, { lessonId, ...input });
    expect(await answer({ scenario: 'dryStuck', choice: 'pull' })).toEqual({ ok: true, value: { right: false } });
    expect(await answer({ scenario: 'dryStuck', choice: 'dropsAndWait' })).toEqual({ ok: true, value: { right: true } });
    expect(await answer({ scenario: 'dryStuck', choice: 'sing' })).toMatchObject({ error: { fields: [{ path: ['choice'] }] } });
    expect(await answer({ scenario: 'nothing', choice: 'pull' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await answer({ lessonId: (await begun()).lessonId, scenario: 'shared', choice: 'never' })).toMatchObject({ error: { kind: 'notFound' } });
    const rows = await world.db.owner`select scenario, was_right, person_id, link_id is not null as linked from lesson_exercise order by sequence`;
    expect(rows).toEqual([
      { scenario: 'dryStuck', wasRight: false, personId: null, linked: true },
      { scenario: 'dryStuck', wasRight: true, personId: null, linked: true },
    ]);
    expect(await world.must('readLessonScreen', { lessonId })).toMatchObject({ answers: [{ right: false }, { right: true }] });
    await expect(world.db.app`update lesson_exercise set was_right = true`).rejects.toThrow(/permission denied/);
  });
});

describe('what is shown', () => {
  it('the newest holds, its version grows only when something else is shown, and whoever listens is told', async () => {
    const heard: string[] = [];
    const listening = await world.db.owner.listen('keenfit_news', (text) => heard.push(text));
    await world.must('showLessonPage', { lessonId, ...show }, world.callers.technician);
    await world.must('showLessonPage', { lessonId, ...show }, world.callers.technician);
    await world.must('showLessonPage', { lessonId, ...show, page: 2 }, world.callers.technician);
    const read = await world.must('readLessonScreen', { lessonId });
    expect(read).toMatchObject({ show: { ...show, page: 2, version: 2 } });
    await expect.poll(() => heard.filter((h) => h.includes('"lesson"')).length).toBe(2);
    await listening.unlisten();
  });
});
