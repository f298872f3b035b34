import 'server-only';
import { careTopicsFor, chains, dayIn, EYES, lessonGate, nextMove, taughtOf, type Attempt, type Eye, type LessonSoFar, type Taught } from '../core';
import { listFacts, listOnEyeExtras } from '../db/facts';
import { listLenses } from '../db/lenses';
import { insertLesson, insertSignOff, listLessons, type LessonRow } from '../db/lessons';
import { listVisits, type VisitRow } from '../db/visits';
import { findWearer } from '../db/wearers';
import { invalid, notFound, ok, ruleBroken, type Result } from '../lib/outcome';
import { attemptForm, signOffForm, startLessonForm, topicForm } from '../schema/teachForms';
import type { OnEyeFact } from '../core';
import { takeVisit } from './change';
import { readHealthFile } from './healthRecord';
import { defineService, type Context } from './define';
import { ageOn } from '../core';
import type { AttemptFact, TopicFact } from './visitRecord';

/** A minor is taught with a guardian named. Common practice; local codes set the age. */
const ADULT_AGE = 18;

/** Everything taught to a wearer so far: counts and topics carry over to another day. */
async function soFar(context: Context, wearerId: string, eyes: readonly Eye[], sinceLessons: readonly LessonRow[]): Promise<LessonSoFar> {
  const { tx, caller, practice, today } = context;
  const visits = (await listVisits(tx, caller.practiceId, wearerId)).map((v) => v.id);
  const open = new Set(sinceLessons.map((l) => l.id));
  const attempts = chains(await listFacts<AttemptFact>(tx, 'lesson_attempt', caller.practiceId, visits))
    .map((c) => c.current)
    .filter((a): a is AttemptFact => a !== null && open.has(a.lessonId));
  const topics = chains(await listFacts<TopicFact>(tx, 'lesson_topic', caller.practiceId, visits))
    .map((c) => c.current)
    .filter((t): t is TopicFact => t !== null && open.has(t.lessonId));
  return {
    attempts: attempts.map((a): Attempt => ({
      eye: a.eye,
      move: a.move,
      worked: a.worked,
      unaided: a.unaided,
      today: dayIn(a.observedAt, practice.timeZone) === today,
    })),
    topicsSaidBack: topics.map((t) => t.topic),
    eyes,
  };
}

/** What of the wearer decides what is taught in a visit. */
async function taughtIn(context: Context, visit: VisitRow): Promise<Taught> {
  const { answers, decisions } = await readHealthFile(context, visit);
  return taughtOf(decisions.findLast((d) => d.visitId === visit.id)?.chosen.wear ?? null, answers);
}

/** Lessons since the last sign-off: what was signed off once does not count for the next wearer or the next need. */
const unsigned = (lessons: readonly LessonRow[]): LessonRow[] => {
  const lastSigned = lessons.findLastIndex((l) => l.signOffId !== null);
  return lessons.slice(lastSigned + 1);
};

export const startLesson = defineService({
  name: 'startLesson',
  right: 'clinicalWrite',
  input: startLessonForm,
  about: (_form, out: { lessonId: string; visitId: string; version: number }) => ({ subjectKind: 'lesson', subjectId: out.lessonId }),
  run: async (context, form) => {
    const { tx, caller, now, today } = context;
    const taken = await takeVisit(context, form.visitId, form.version);
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const wearer = await findWearer(tx, caller.practiceId, visit.wearerId);
    if (!wearer) return notFound('wearer');
    if (ageOn(wearer.birthDate, today) < ADULT_AGE && wearer.guardian === null) return ruleBroken('guardianNeeded');
    const lessons = await listLessons(tx, caller.practiceId, visit.wearerId);
    const running = lessons.at(-1);
    if (running && running.signOffId === null && running.visitId === visit.id) return ruleBroken('lessonRunning');
    const worn = chains(await listFacts<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, [visit.id]))
      .map((c) => c.current)
      .filter((f): f is OnEyeFact => f !== null);
    const extras = await listOnEyeExtras(tx, caller.practiceId, [visit.id]);
    const onNow = EYES.filter((eye) => worn.some((f) => f.eye === eye && !extras.find((e) => e.lensOnEyeId === f.rootId)?.takenOffAt));
    const earlierEyes = running?.eyes ?? [];
    const eyes = EYES.filter((eye) => worn.some((f) => f.eye === eye) || earlierEyes.includes(eye));
    if (eyes.length === 0) return ruleBroken('noLensToTeach');
    const lensIds = worn.flatMap((f) => (f.lensId ? [f.lensId] : []));
    const lenses = await listLenses(tx, caller.practiceId, lensIds);
    const singleUse = lenses.length > 0 ? lenses.every((l) => l.modality === 'daily') : (running?.singleUse ?? false);
    const id = context.newId();
    await insertLesson(tx, {
      id,
      practiceId: caller.practiceId,
      visitId: visit.id,
      visitVersion: taken.value.version,
      wearerId: visit.wearerId,
      eyes,
      onAtStart: onNow,
      singleUse,
      handler: form.handler,
      startedAt: now,
      startedBy: caller.personId,
    });
    return ok({ lessonId: id, visitId: visit.id, version: taken.value.version });
  },
});

async function lessonOf(context: Context, wearerId: string, lessonId: string): Promise<Result<{ lesson: LessonRow; open: LessonRow[] }>> {
  const lessons = await listLessons(context.tx, context.caller.practiceId, wearerId);
  const lesson = lessons.find((l) => l.id === lessonId);
  if (!lesson) return notFound('lesson');
  if (lesson.signOffId !== null) return ruleBroken('lessonSignedOff');
  return ok({ lesson, open: unsigned(lessons) });
}

export const recordAttempt = defineService({
  name: 'recordAttempt',
  right: 'clinicalWrite',
  input: attemptForm,
  about: (form) => ({ subjectKind: 'lesson', subjectId: form.lessonId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, form.move === 'off' ? 'record' : 'lens');
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit.wearerId, form.lessonId);
    if (!found.ok) return found;
    const { lesson } = found.value;
    if (!lesson.eyes.includes(form.eye)) return ruleBroken('eyeNotTaught', { eye: form.eye });
    if (!form.worked && form.miss === null) return invalid('miss', 'missRequired');
    const done = await soFar(context, lesson.wearerId, lesson.eyes, [lesson]);
    const due = nextMove(done.attempts, form.eye, lesson.onAtStart.includes(form.eye));
    if (due !== form.move) return ruleBroken(due === 'on' ? 'noLensOnIt' : 'lensAlreadyOn', { eye: form.eye });
    await taken.value.add('lessonAttempt', form.eye, {
      lessonId: lesson.id,
      move: form.move,
      worked: form.worked,
      unaided: form.unaided,
      miss: form.worked ? null : form.miss,
    });
    return ok(taken.value.done());
  },
});

export const recordTopic = defineService({
  name: 'recordTopic',
  right: 'clinicalWrite',
  input: topicForm,
  about: (form) => ({ subjectKind: 'lesson', subjectId: form.lessonId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit.wearerId, form.lessonId);
    if (!found.ok) return found;
    const topics: readonly string[] = careTopicsFor(found.value.lesson.singleUse, await taughtIn(context, taken.value.visit));
    if (!topics.includes(form.topic)) return invalid('topic', 'topicUnknown');
    await taken.value.add('lessonTopic', null, { lessonId: found.value.lesson.id, topic: form.topic });
    return ok(taken.value.done());
  },
});

export const signOffLesson = defineService({
  name: 'signOffLesson',
  right: 'clinicalWrite',
  input: signOffForm,
  about: (form) => ({ subjectKind: 'lesson', subjectId: form.lessonId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version);
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit.wearerId, form.lessonId);
    if (!found.ok) return found;
    const { lesson, open } = found.value;
    const gate = lessonGate(
      await soFar(context, lesson.wearerId, lesson.eyes, open),
      careTopicsFor(lesson.singleUse, await taughtIn(context, taken.value.visit)),
    );
    if (!gate.open) return ruleBroken('lessonLocked', { missing: gate.missing.length });
    await insertSignOff(tx, {
      id: context.newId(),
      practiceId: caller.practiceId,
      lessonId: lesson.id,
      wearerId: lesson.wearerId,
      signedAt: now,
      signedBy: caller.personId,
      handler: lesson.handler,
      counts: { rightOn: gate.done.right.on, rightOff: gate.done.right.off, leftOn: gate.done.left.on, leftOff: gate.done.left.off },
    });
    return ok(taken.value.done());
  },
});
