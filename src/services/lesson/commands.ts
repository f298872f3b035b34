import 'server-only';
import { EYES, lessonState, type LessonState, type VisitRow } from '../../core';
import { insertLesson, insertSignOff } from '../../db/lesson';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { attemptForm, signOffForm, startLessonForm, topicForm } from '../../schema/lesson';
import { lensIdsOf, namedLenses } from '../visit/lenses';
import { lockVisit, touching } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand, type Context } from '../define';

/** A minor is taught with a guardian named. Common practice; local codes set the age. */
const ADULT_AGE = 18;

export const startLesson = defineCommand({
  name: 'startLesson',
  right: 'clinicalWrite',
  input: startLessonForm,
  about: (_form, out: { lessonId: string; visitId: string; version: number }) => ({ subjectKind: 'lesson', subjectId: out.lessonId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const reading = readingOf(context, visit);
    const wearer = await reading.wearer();
    if (wearer.age < ADULT_AGE && wearer.guardian === null) return ruleBroken('guardianNeeded');
    const { lessons } = await reading.supply();
    const running = lessons.at(-1);
    if (running && running.signOffId === null && running.visitId === visit.id) return ruleBroken('lessonRunning');
    const facts = await reading.facts();
    const worn = facts.onEye.flatMap((c) => (c.current ? [c.current] : []));
    const extras = facts.onEyeExtras;
    const onNow = EYES.filter((eye) => worn.some((f) => f.eye === eye && !extras.find((e) => e.lensOnEyeId === f.rootId)?.takenOffAt));
    const earlierEyes = running?.eyes ?? [];
    const eyes = EYES.filter((eye) => worn.some((f) => f.eye === eye) || earlierEyes.includes(eye));
    if (eyes.length === 0) return ruleBroken('noLensToTeach');
    const lenses = Object.values((await namedLenses(context, lensIdsOf(facts))).lenses);
    const singleUse = lenses.length > 0 ? lenses.every((l) => l.modality === 'daily') : (running?.singleUse ?? false);
    taken.value.changed('supply');
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

/** A lesson that is not signed off, as it stands. */
async function lessonOf(context: Context, visit: VisitRow, lessonId: string): Promise<Result<LessonState>> {
  const { lessons, attempts, topics } = await readingOf(context, visit).supply();
  const lesson = lessons.find((l) => l.id === lessonId);
  if (!lesson) return notFound('lesson');
  if (lesson.signOffId !== null) return ruleBroken('lessonSignedOff');
  const { answers, decisions } = await readingOf(context, visit).health();
  const wear = decisions.at(-1)?.chosen.wear ?? null;
  return ok(lessonState(lesson, { lessons, attempts, topics, wear, answers }, { today: context.today, timeZone: context.practice.timeZone }));
}

export const recordAttempt = defineCommand({
  name: 'recordAttempt',
  right: 'clinicalWrite',
  input: attemptForm,
  about: (form) => ({ subjectKind: 'lesson', subjectId: form.lessonId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: form.move === 'off' ? 'record' : 'lens', touches: touching(['lessonAttempt'], [form.eye]) });
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit, form.lessonId);
    if (!found.ok) return found;
    const { lesson } = found.value;
    if (!lesson.eyes.includes(form.eye)) return ruleBroken('eyeNotTaught', { eye: form.eye });
    if (!form.worked && form.miss === null) return invalid('miss', 'missRequired');
    const due = found.value.next[form.eye];
    if (due !== form.move) return ruleBroken(due === 'on' ? 'noLensOnIt' : 'lensAlreadyOn', { eye: form.eye });
    taken.value.add('lessonAttempt', form.eye, {
      lessonId: lesson.id,
      move: form.move,
      worked: form.worked,
      unaided: form.unaided,
      miss: form.worked ? null : form.miss,
    });
    return ok(taken.value.done());
  },
});

export const recordTopic = defineCommand({
  name: 'recordTopic',
  right: 'clinicalWrite',
  input: topicForm,
  about: (form) => ({ subjectKind: 'lesson', subjectId: form.lessonId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'lessonTopic' }] });
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit, form.lessonId);
    if (!found.ok) return found;
    if (!found.value.mandatory.includes(form.topic)) return invalid('topic', 'topicUnknown');
    taken.value.add('lessonTopic', null, { lessonId: found.value.lesson.id, topic: form.topic });
    return ok(taken.value.done());
  },
});

export const signOffLesson = defineCommand({
  name: 'signOffLesson',
  right: 'clinicalWrite',
  input: signOffForm,
  about: (form) => ({ subjectKind: 'lesson', subjectId: form.lessonId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit, form.lessonId);
    if (!found.ok) return found;
    const { lesson, gate } = found.value;
    if (!gate.open) return ruleBroken('lessonLocked', { missing: gate.missing.length });
    taken.value.changed('supply');
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
