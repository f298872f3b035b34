import 'server-only';
import { randomInt } from 'node:crypto';
import { addSeconds, CODE_LENGTH, CODE_LETTERS, CODE_MINUTES, lessonCode, readCode, SCREEN_HOURS, isRight, type ScenarioAnswer } from '../../core';
import type { Tx } from '../../db/client';
import {
  findLessonOfScreen,
  findShow,
  insertCode,
  insertExercise,
  listExercises,
  saveShow,
  takeCode,
  markCodeUsed,
  type LessonOfScreen,
  type LessonShow,
} from '../../db/lessonScreen';
import { insertWearerLink } from '../../db/wearerLink';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { answerExerciseForm, openScreenForm, readScreenForm, showForm } from '../../schema/lessonScreen';
import { hashToken, newToken } from '../../server/token';
import { actorOf, leadsTo } from '../authorise';
import { defineCommand, defineLinkCommand, defineLinkQuery, type Deps } from '../define';
import { tryPassword } from '../session/throttle';

const about = (form: { readonly lessonId: string }) => ({ subjectKind: 'lesson', subjectId: form.lessonId });

/** Gives the code that opens the wearer's screen, once, within ten minutes; an older one of the same lesson opens nothing any more. */
export const openLessonScreen = defineCommand({
  name: 'openLessonScreen',
  right: 'clinicalWrite',
  input: openScreenForm,
  about,
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const lesson = await findLessonOfScreen(tx, caller.practiceId, form.lessonId);
    if (!lesson) return notFound('lesson');
    const expiresAt = addSeconds(now, CODE_MINUTES * 60);
    // Two waiting codes are never alike; that one comes twice in a row is less likely than anything else that goes wrong.
    for (let tries = 0; tries < 3; tries++) {
      const code = lessonCode(Array.from({ length: CODE_LENGTH }, () => randomInt(CODE_LETTERS.length)));
      const made = { id: context.newId(), practiceId: caller.practiceId, lessonId: form.lessonId, openedAt: now, openedBy: caller.personId, expiresAt };
      if (await insertCode(tx, { ...made, codeHash: hashToken(code) })) return ok({ code, expiresAt });
    }
    return notFound('lesson');
  },
});

/** What the teacher shows now; the wearer's screen follows. */
export const showLessonPage = defineCommand({
  name: 'showLessonPage',
  right: 'clinicalWrite',
  input: showForm,
  audited: false,
  about,
  run: async ({ tx, caller, now }, form) => {
    if (!(await findLessonOfScreen(tx, caller.practiceId, form.lessonId))) return notFound('lesson');
    await saveShow(tx, { ...form, practiceId: caller.practiceId, shownAt: now });
    return ok(null);
  },
});

/** What the wearer's screen shows: no name, no powers, no counts. */
export interface LessonScreen extends LessonOfScreen {
  readonly lessonId: string;
  readonly show: LessonShow | null;
  /** Of the exercise, oldest first. */
  readonly answers: readonly ScenarioAnswer[];
}

export const readLessonScreen = defineLinkQuery({
  name: 'readLessonScreen',
  right: 'clinicalRead',
  links: ['lesson'],
  input: readScreenForm,
  audited: false,
  about,
  run: async (context, form): Promise<Result<LessonScreen>> => {
    const { tx, caller } = context;
    if (!leadsTo(caller, form.lessonId)) return notFound('lesson');
    const lesson = await findLessonOfScreen(tx, caller.practiceId, form.lessonId);
    if (!lesson) return notFound('lesson');
    const answers = await listExercises(tx, caller.practiceId, { lessonId: form.lessonId });
    return ok({
      lessonId: form.lessonId,
      show: await findShow(tx, caller.practiceId, form.lessonId),
      ...lesson,
      answers: answers.map(({ scenario, right }) => ({ scenario, right })),
    });
  },
});

/** One answer of *Is it safe?*, given on the wearer's screen. */
export const answerExercise = defineLinkCommand({
  name: 'answerExercise',
  right: 'clinicalWrite',
  links: ['lesson'],
  input: answerExerciseForm,
  about,
  run: async (context, form): Promise<Result<{ readonly right: boolean }>> => {
    const { tx, caller, now } = context;
    if (!leadsTo(caller, form.lessonId)) return notFound('lesson');
    const lesson = await findLessonOfScreen(tx, caller.practiceId, form.lessonId);
    if (!lesson) return notFound('lesson');
    const right = isRight(form.scenario, form.choice);
    if (right === null) return invalid('choice', 'answerUnknown');
    await insertExercise(tx, {
      ...{ id: context.newId(), practiceId: caller.practiceId, lessonId: form.lessonId, scenario: form.scenario, choice: form.choice },
      ...{ wasRight: right, answeredAt: now, ...actorOf(caller) },
    });
    return ok({ right });
  },
});

/** Guesses of one place are counted together, whatever code they try. */
const GUESSES = 'lesson-code';

/**
 * Opens the wearer's screen with a code: once, within its time. A wrong, used or run-out code is answered alike.
 * @returns the token of a link to that lesson alone
 */
export async function enterWithCode(deps: Deps, typed: string, address: string): Promise<Result<{ readonly token: string; readonly lessonId: string }>> {
  const now = await deps.clock.now();
  const may = await tryPassword(deps, GUESSES, address, now);
  if (!may.ok) return may;
  const code = readCode(typed);
  if (code === null) return invalid('code', 'codeShape');
  const token = newToken();
  const opened = await deps.sql.begin((tx: Tx) => openedBy(tx, hashToken(code), token, now));
  if (opened === null) return err({ kind: 'invalid', fields: [{ path: ['code'], code: 'codeUnknown' }] });
  await may.value();
  return ok({ token, lessonId: opened });
}

async function openedBy(tx: Tx, codeHash: string, token: string, now: string): Promise<string | null> {
  const code = await takeCode(tx, codeHash, now);
  if (!code) return null;
  const linkId = crypto.randomUUID();
  await insertWearerLink(tx, {
    id: linkId,
    practiceId: code.practiceId,
    wearerId: code.wearerId,
    purpose: 'lesson',
    subjectId: code.lessonId,
    tokenHash: hashToken(token),
    openedAt: now,
    openedBy: code.openedBy,
    expiresAt: addSeconds(now, SCREEN_HOURS * 3600),
  });
  await markCodeUsed(tx, code, linkId);
  return code.lessonId;
}
