import 'server-only';
import type { Eye, LessonPart, OffTechnique, OnTechnique, ScenarioAnswer } from '../core';
import type { Db } from './client';

/** What a lesson shows on the wearer's screen. */
export interface LessonShow {
  readonly part: LessonPart;
  readonly page: number;
  readonly eye: Eye;
  readonly hand: Eye;
  readonly skinTone: number;
  readonly onTechnique: OnTechnique;
  readonly offTechnique: OffTechnique;
  readonly peroxide: boolean;
  readonly version: number;
}

export async function findShow(sql: Db, practiceId: string, lessonId: string): Promise<LessonShow | null> {
  const [row] = await sql<LessonShow[]>`
    select part, page, eye, hand, skin_tone, on_technique, off_technique, peroxide, version from lesson_show
    where practice_id = ${practiceId} and lesson_id = ${lessonId}`;
  return row ?? null;
}

/** What of a lesson itself its screen needs. */
export interface LessonOfScreen {
  readonly eyes: Eye[];
  readonly singleUse: boolean;
  readonly signedOff: boolean;
}
export async function findLessonOfScreen(sql: Db, practiceId: string, lessonId: string): Promise<LessonOfScreen | null> {
  const [row] = await sql<LessonOfScreen[]>`
    select l.eyes, l.single_use, exists (select 1 from lesson_sign_off s where s.practice_id = l.practice_id and s.lesson_id = l.id) as signed_off
    from lesson l where l.practice_id = ${practiceId} and l.id = ${lessonId}`;
  return row ?? null;
}

/** Shows something else; what is shown already is not shown anew. */
export async function saveShow(sql: Db, show: Omit<LessonShow, 'version'> & { practiceId: string; lessonId: string; shownAt: string }): Promise<void> {
  await sql`
    insert into lesson_show ${sql(show)}
    on conflict (lesson_id) do update set part = excluded.part, page = excluded.page, eye = excluded.eye, hand = excluded.hand, skin_tone = excluded.skin_tone,
      on_technique = excluded.on_technique, off_technique = excluded.off_technique, peroxide = excluded.peroxide, shown_at = excluded.shown_at,
      version = lesson_show.version + 1
    where (lesson_show.part, lesson_show.page, lesson_show.eye, lesson_show.hand, lesson_show.skin_tone, lesson_show.on_technique,
        lesson_show.off_technique, lesson_show.peroxide)
      is distinct from (excluded.part, excluded.page, excluded.eye, excluded.hand, excluded.skin_tone, excluded.on_technique,
        excluded.off_technique, excluded.peroxide)`;
}

/** What was answered in the exercises of a lesson, or of all lessons of a visit, oldest first. */
export const listExercises = (sql: Db, practiceId: string, of: { readonly lessonId: string } | { readonly visitId: string }) =>
  sql<(ScenarioAnswer & { readonly lessonId: string })[]>`
    select e.lesson_id, e.scenario, e.was_right as "right" from lesson_exercise e
    where e.practice_id = ${practiceId} and ${
      'lessonId' in of
        ? sql`e.lesson_id = ${of.lessonId}`
        : sql`e.lesson_id in (select l.id from lesson l where l.practice_id = ${practiceId} and l.visit_id = ${of.visitId})`
    }
    order by e.sequence`;

export async function insertExercise(
  sql: Db,
  answer: {
    id: string;
    practiceId: string;
    lessonId: string;
    scenario: string;
    choice: string;
    wasRight: boolean;
    answeredAt: string;
    linkId: string | null;
    personId: string | null;
  },
): Promise<void> {
  await sql`insert into lesson_exercise ${sql(answer)}`;
}

/** A code takes the place of whatever of this lesson was waiting, and of codes that ran out. @returns false where it waits somewhere else */
export async function insertCode(
  sql: Db,
  code: { id: string; practiceId: string; lessonId: string; codeHash: string; openedAt: string; openedBy: string; expiresAt: string },
): Promise<boolean> {
  await sql`
    delete from lesson_code where link_id is null and (expires_at <= ${code.openedAt} or (practice_id = ${code.practiceId} and lesson_id = ${code.lessonId}))`;
  const rows = await sql`insert into lesson_code ${sql(code)} on conflict do nothing returning id`;
  return rows.length === 1;
}

export interface WaitingCode {
  readonly id: string;
  readonly practiceId: string;
  readonly lessonId: string;
  readonly wearerId: string;
  readonly openedBy: string;
}

/** The code that waits, held to the end of the transaction. */
export async function takeCode(sql: Db, codeHash: string, now: string): Promise<WaitingCode | null> {
  const [row] = await sql<WaitingCode[]>`
    select c.id, c.practice_id, c.lesson_id, l.wearer_id, c.opened_by from lesson_code c join lesson l on l.practice_id = c.practice_id and l.id = c.lesson_id
    where c.code_hash = ${codeHash} and c.link_id is null and c.expires_at > ${now} for update of c`;
  return row ?? null;
}

export async function markCodeUsed(sql: Db, code: Pick<WaitingCode, 'id' | 'practiceId'>, linkId: string): Promise<void> {
  await sql`update lesson_code set link_id = ${linkId} where practice_id = ${code.practiceId} and id = ${code.id}`;
}
