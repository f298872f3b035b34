import 'server-only';
import { carePrescribed, EYES, helperAgreed, type LessonState, type LessonWay } from '../../core';
import { insertLesson, insertSignOff } from '../../db/lesson';
import { invalid, ok, ruleBroken, type Result } from '../../lib/outcome';
import {
  attemptForm,
  lessonInstructionForm,
  lessonSightForm,
  lessonTurnForm,
  lessonWayForm,
  signOffForm,
  startLessonForm,
  stopLessonForm,
  topicForm,
  topicsAgainForm,
} from '../../schema/lesson';
import { bookNext } from '../appointment/bookNext';
import { lensIdsOf, namedLenses } from '../visit/lenses';
import { lockVisit, touching, type LockedVisit, type Locking } from '../visit/lock';
import { readingOf, type VisitReading } from '../visit/reading';
import { defineCommand, type Context } from '../define';
import { owedTopics, taughtNow } from './owed';
import { lessonOf } from './state';

/** A minor is taught with a guardian named. Common practice; local codes set the age. */
const ADULT_AGE = 18;

const about = (form: { readonly lessonId: string }) => ({ subjectKind: 'lesson', subjectId: form.lessonId });

/** Which eyes are taught, and what is on them: those of lenses in this visit, and those of the lesson that goes on. */
async function taughtEyes(context: Context, reading: VisitReading) {
  const facts = await reading.facts();
  const before = (await reading.supply()).lessons.at(-1);
  const goesOn = before?.signOffId === null ? before : undefined;
  const worn = facts.onEye.flatMap((c) => (c.current ? [c.current] : []));
  const off = (rootId: string): boolean => facts.onEyeExtras.some((e) => e.lensOnEyeId === rootId && e.takenOffAt !== null);
  const lenses = Object.values((await namedLenses(context, lensIdsOf(facts))).lenses);
  return {
    onNow: EYES.filter((eye) => worn.some((f) => f.eye === eye && !off(f.rootId))),
    eyes: EYES.filter((eye) => worn.some((f) => f.eye === eye) || goesOn?.eyes.includes(eye)),
    singleUse: lenses.length > 0 ? lenses.every((l) => l.modality === 'daily') : (before?.singleUse ?? false),
  };
}

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
    const { lessons, lessonInstructions } = await reading.supply();
    // Somebody else handles with a prescriber's consent, and is signed off instead of the wearer.
    if (form.handler !== null && !caller.roles.includes('prescriber') && !helperAgreed(lessonInstructions, form.handler)) return ruleBroken('helperNotAgreed');
    const running = lessons.at(-1);
    if (running && running.signOffId === null && running.visitId === visit.id) return ruleBroken('lessonRunning');
    const { onNow, eyes, singleUse } = await taughtEyes(context, reading);
    const owed = form.topicsOnly ? await owedTopics(context, reading, singleUse) : null;
    if (owed?.length === 0) return ruleBroken('nothingOwed');
    if (owed === null && eyes.length === 0) return ruleBroken('noLensToTeach');
    taken.value.changed('supply');
    const id = context.newId();
    await insertLesson(tx, {
      id,
      practiceId: caller.practiceId,
      visitId: visit.id,
      visitVersion: taken.value.version,
      wearerId: visit.wearerId,
      eyes: owed === null ? eyes : [],
      onAtStart: owed === null ? onNow : [],
      singleUse,
      onlyTopics: owed,
      handler: form.handler,
      startedAt: now,
      startedBy: caller.personId,
    });
    return ok({ lessonId: id, visitId: visit.id, version: taken.value.version });
  },
});

/** What a prescriber says of the wearer's lesson, before it or while it goes on. */
export const instructLesson = defineCommand({
  name: 'instructLesson',
  right: 'sign',
  input: lessonInstructionForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'lessonInstruction' }] });
    if (!taken.ok) return taken;
    taken.value.add('lessonInstruction', null, { what: form.what, text: form.text, why: form.why });
    return ok(taken.value.done());
  },
});

/** Takes the visit for a change in one of its lessons that goes on. */
async function takeLesson(
  context: Context,
  form: { readonly visitId: string; readonly version: number; readonly lessonId: string },
  locking: Locking,
): Promise<Result<{ readonly taken: LockedVisit; readonly state: LessonState }>> {
  const taken = await lockVisit(context, form, locking);
  if (!taken.ok) return taken;
  const found = await lessonOf(context, taken.value.visit, form.lessonId);
  return found.ok ? ok({ taken: taken.value, state: found.value }) : found;
}

export const recordAttempt = defineCommand({
  name: 'recordAttempt',
  right: 'clinicalWrite',
  input: attemptForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: form.move === 'off' ? 'record' : 'lens', touches: touching(['lessonAttempt'], [form.eye]) });
    if (!of.ok) return of;
    const { taken, state } = of.value;
    const { lesson } = state;
    if (!lesson.eyes.includes(form.eye)) return ruleBroken('eyeNotTaught', { eye: form.eye });
    if (!form.worked && form.miss === null) return invalid('miss', 'missRequired');
    const due = state.next[form.eye];
    if (form.move === 'on' && state.hourOver) return ruleBroken('hourOver');
    if (due !== form.move) return ruleBroken(due === 'on' ? 'noLensOnIt' : 'lensAlreadyOn', { eye: form.eye });
    // A lens is in the hand: the clock runs, whether somebody started it or not.
    if (!state.time.running) taken.add('lessonTurn', null, { lessonId: lesson.id, turn: 'run', note: null });
    taken.add('lessonAttempt', form.eye, {
      lessonId: lesson.id,
      move: form.move,
      worked: form.worked,
      unaided: form.unaided,
      miss: form.worked ? null : form.miss,
      technique: state.technique[form.move],
    });
    return ok(taken.done());
  },
});

export const recordTopic = defineCommand({
  name: 'recordTopic',
  right: 'clinicalWrite',
  input: topicForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: 'record', touches: [{ what: 'lessonTopic' }] });
    if (!of.ok) return of;
    const { taken, state } = of.value;
    if (!state.mandatory.includes(form.topic)) return invalid('topic', 'topicUnknown');
    taken.add('lessonTopic', null, { lessonId: state.lesson.id, topic: form.topic, atEnd: false });
    return ok(taken.done());
  },
});

/** Topics said back once more at the end: together, because they are asked together. */
export const recordTopicsAgain = defineCommand({
  name: 'recordTopicsAgain',
  right: 'clinicalWrite',
  input: topicsAgainForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: 'record', touches: [{ what: 'lessonTopic' }] });
    if (!of.ok) return of;
    const { taken, state } = of.value;
    if (form.topics.some((topic) => !state.again.includes(topic))) return invalid('topics', 'topicUnknown');
    // Asked again is what was told first.
    const untold = form.topics.filter((topic) => !state.topics.some((t) => t.topic === topic));
    if (untold.length > 0) return ruleBroken('topicsNotTold', { count: untold.length });
    for (const topic of new Set(form.topics)) taken.add('lessonTopic', null, { lessonId: state.lesson.id, topic, atEnd: true });
    return ok(taken.done());
  },
});

/** How this wearer is taught: hand, dexterity, skin of the drawings, techniques other than the plan's. */
export const setLessonWay = defineCommand({
  name: 'setLessonWay',
  right: 'clinicalWrite',
  input: lessonWayForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: 'record', touches: [{ what: 'lessonWay' }] });
    if (!of.ok) return of;
    const { hand, dexterity, skinTone, onTechnique, offTechnique } = form;
    const way: LessonWay = { hand, dexterity, skinTone, onTechnique, offTechnique };
    of.value.taken.add('lessonWay', null, { lessonId: form.lessonId, ...way });
    return ok(of.value.taken.done());
  },
});

/** The clock runs on, or rests. */
export const turnLessonClock = defineCommand({
  name: 'turnLessonClock',
  right: 'clinicalWrite',
  input: lessonTurnForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: 'record', touches: [{ what: 'lessonTurn' }] });
    if (!of.ok) return of;
    const { taken, state } = of.value;
    const past = form.turn === 'run' && state.hourOver;
    if (past && (!context.caller.roles.includes('prescriber') || form.note === null)) return ruleBroken('hourOver');
    if (!past && state.time.running === (form.turn === 'run')) return ruleBroken(form.turn === 'run' ? 'clockRuns' : 'clockRests');
    taken.add('lessonTurn', null, { lessonId: state.lesson.id, turn: form.turn, note: past ? form.note : null });
    return ok(taken.done());
  },
});

/** Enough for one day: the lesson stops, another day is booked, and what was reached carries over. */
export const stopLesson = defineCommand({
  name: 'stopLesson',
  right: 'clinicalWrite',
  input: stopLessonForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: 'record', touches: [{ what: 'lessonTurn' }] });
    if (!of.ok) return of;
    const { taken, state } = of.value;
    // Lenses stay with the practice: they come off before the wearer leaves.
    const still = EYES.find((eye) => state.lesson.eyes.includes(eye) && state.next[eye] === 'off');
    if (still) return ruleBroken('lensStillOn', { eye: still });
    const booked = await bookNext(context, taken.visit.wearerId, form.next === null ? null : { ...form.next, kind: 'lesson' }, form.unbookedReason);
    if (!booked.ok) return booked;
    taken.add('lessonTurn', null, { lessonId: state.lesson.id, turn: 'stop', note: form.note ?? form.unbookedReason });
    return ok(taken.done());
  },
});

/** Acuity of an eye through a lens that the wearer put on. */
export const recordLessonSight = defineCommand({
  name: 'recordLessonSight',
  right: 'clinicalWrite',
  input: lessonSightForm,
  about,
  run: async (context, form) => {
    const of = await takeLesson(context, form, { gate: 'record', touches: touching(['lessonSight'], [form.eye]) });
    if (!of.ok) return of;
    const { taken, state } = of.value;
    if (!state.lesson.eyes.includes(form.eye)) return ruleBroken('eyeNotTaught', { eye: form.eye });
    if (!state.putOn.includes(form.eye)) return ruleBroken('notPutOnYet', { eye: form.eye });
    if (state.next[form.eye] !== 'off') return ruleBroken('noLensOnIt', { eye: form.eye });
    taken.add('lessonSight', form.eye, { lessonId: state.lesson.id, acuityLogMar: form.acuity.logMar, acuityTyped: form.acuity.typed });
    return ok(taken.done());
  },
});

/** What is missing, by name, as it is kept with what was let pass. */
const missingNames = (state: LessonState): readonly string[] =>
  state.gate.missing.map((m) => [m.kind, 'topic' in m ? m.topic : '', 'move' in m ? m.move : '', 'eye' in m ? m.eye : ''].filter(Boolean).join(' '));

export const signOffLesson = defineCommand({
  name: 'signOffLesson',
  right: 'clinicalWrite',
  input: signOffForm,
  about,
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const found = await lessonOf(context, taken.value.visit, form.lessonId);
    if (!found.ok) return found;
    const state = found.value;
    const { lesson, gate } = state;
    const prescriber = caller.roles.includes('prescriber');
    if (!gate.open && (!prescriber || form.overrideNote === null)) return ruleBroken('lessonLocked', { missing: gate.missing.length });
    if (!gate.open && (form.overrideNote ?? '').length < 3) return invalid('overrideNote', 'reasonRequired');
    // Nobody goes home with lenses and without a day on which they are looked at.
    const booked = await bookNext(context, lesson.wearerId, form.next, form.unbookedReason, lesson.eyes.length > 0);
    if (!booked.ok) return booked;
    const reading = readingOf(context, taken.value.visit);
    const { careSystems } = await reading.supply();
    const was = await taughtNow(context, reading, lesson.singleUse);
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
      overnight: was.now.overnight,
      productId: lesson.singleUse ? null : (carePrescribed(careSystems)?.productId ?? null),
      overridden: gate.open ? [] : missingNames(state),
      overrideNote: gate.open ? null : form.overrideNote,
      appointmentId: booked.value,
      unbookedReason: booked.value === null ? form.unbookedReason : null,
    });
    return ok(taken.value.done());
  },
});
