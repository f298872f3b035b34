import 'server-only';
import { EYES, SESSION_MINUTES, type Eye, type Miss, type Move } from '../../core';
import { listRunningLessons } from '../../db/lesson';
import { findVisit } from '../../db/visit';
import { ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { boundsOf } from '../appointment/moments';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { lessonOf } from './state';

/** A lesson that goes on, as whoever teaches several at once needs to see it. */
export interface LessonNow {
  readonly lessonId: string;
  readonly visitId: string;
  /** Of the visit: what a press builds on. */
  readonly version: number;
  readonly wearerName: string;
  readonly birthDate: string;
  readonly handler: string | null;
  readonly startedByName: string;
  readonly eyes: readonly Eye[];
  readonly next: Readonly<Record<Eye, Move>>;
  readonly done: Readonly<Record<Eye, { readonly on: number; readonly off: number }>>;
  readonly topics: { readonly said: number; readonly all: number };
  readonly minutes: number;
  readonly most: number;
  readonly running: boolean;
  readonly hourOver: boolean;
  readonly toGo: number | null;
  /** Why the last attempt failed; null when it worked, or none was made. */
  readonly missed: Miss | null;
  readonly open: boolean;
}
export interface LessonsNow {
  readonly session: SessionContext;
  readonly lessons: readonly LessonNow[];
}

/** Lessons begun today that are neither signed off nor stopped, in the order in which they began. */
export const readLessonsNow = defineQuery({
  name: 'readLessonsNow',
  right: 'clinicalRead',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<LessonsNow>> => {
    const { tx, caller, today, practice } = context;
    const lessons: LessonNow[] = [];
    for (const { id, visitId, wearerName, birthDate } of await listRunningLessons(tx, caller.practiceId, boundsOf(today, practice.timeZone))) {
      const visit = await findVisit(tx, caller.practiceId, visitId);
      const found = visit && (await lessonOf(context, visit, id));
      if (!visit || !found?.ok || found.value.stopped) continue;
      const state = found.value;
      const last = state.attempts.findLast((a) => a.lessonId === id);
      const { lesson, gate, next, time } = state;
      lessons.push({
        ...{ lessonId: id, visitId, version: visit.version, wearerName, birthDate },
        ...{ handler: lesson.handler, startedByName: lesson.startedByName, eyes: EYES.filter((eye) => lesson.eyes.includes(eye)), next, done: gate.done },
        topics: { said: state.mandatory.filter((topic) => state.topics.some((t) => t.topic === topic)).length, all: state.mandatory.length },
        ...{ minutes: time.used, most: SESSION_MINUTES, running: time.running, hourOver: state.hourOver, toGo: state.toGo },
        missed: last && !last.worked ? last.miss : null,
        open: gate.open,
      });
    }
    return ok({ session: sessionContextOf(context), lessons });
  },
});
