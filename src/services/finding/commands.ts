import 'server-only';
import type { z } from 'zod';
import { earlierGrades, EYES, findingsConflict, type Eye } from '../../core';
import { err, invalid, ok, type Result } from '../../lib/outcome';
import { findingsForm, lesionForm } from '../../schema/finding';
import { defineCommand, type Context } from '../define';
import { takeOffOthers } from '../lensOnEye/onOff';
import { openAbsoluteStops } from '../stop/openAbsoluteStops';
import { lockVisit, touching, type LockedVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';

type Form = z.output<typeof findingsForm>;

/**
 * Grades that are as last time: only of an eye that is being looked at, so its stain was graded at this visit; they keep their day.
 * Whoever pressed saw the very grades that are copied.
 */
async function copyGrades(context: Context, taken: LockedVisit, eye: Eye, form: Form): Promise<Result<null>> {
  const asked = form[`${eye}AsLastTime`];
  if (asked.length === 0) return ok(null);
  const reading = readingOf(context, taken.visit);
  const { today } = await reading.state();
  if (today[eye].staining === undefined && !form[eye].some((f) => f.sign === 'staining')) return invalid([eye, 'staining'], 'lookFirst');
  const of = { visitId: taken.visit.id, today: context.today, timeZone: context.practice.timeZone, settings: context.settings };
  const grades = earlierGrades((await reading.health()).findings, eye, of);
  for (const findingId of asked) {
    const grade = grades.find((g) => g.findingId === findingId);
    // Graded meanwhile, or corrected since it was shown: whoever pressed saw another grade.
    if (!grade) return err({ kind: 'conflict', what: 'visit', differs: [] });
    if (grade.bar !== null) return invalid([eye, grade.sign], 'gradeAnew');
    taken.add('finding', eye, { sign: grade.sign, numberValue: grade.value, wordValue: null, copiedFromId: findingId }, grade.seenAt);
  }
  return ok(null);
}

export const recordFindings = defineCommand({
  name: 'recordFindings',
  right: 'clinicalWrite',
  input: findingsForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const eyes = EYES.filter((eye) => form[eye].length > 0 || form[`${eye}Sight`].length > 0 || form[`${eye}AsLastTime`].length > 0);
    const touches = [...touching(['finding', 'eyeAcuity'], eyes), ...touching(['lensOnEye'], form.lensOff)];
    const taken = await lockVisit(context, form, { gate: 'record', touches });
    if (!taken.ok) return taken;
    const reading = readingOf(context, taken.value.visit);
    const state = await reading.state();
    for (const eye of EYES) {
      const typed = Object.fromEntries(form[eye].map((f) => [f.sign, f.value]));
      const [conflict] = findingsConflict({ ...state.today[eye], ...typed });
      if (conflict && form[eye].length > 0) return err({ kind: 'invalid', fields: [{ path: [eye, conflict.sign], code: conflict.code, data: conflict.data }] });
      // Read before anything of this eye is written down: what is repeated is of earlier visits.
      const copied = await copyGrades(context, taken.value, eye, form);
      if (!copied.ok) return copied;
      for (const f of form[eye]) {
        const value = typeof f.value === 'number' ? { numberValue: f.value, wordValue: null } : { numberValue: null, wordValue: f.value };
        taken.value.add('finding', eye, { sign: f.sign, ...value });
      }
      for (const read of form[`${eye}Sight`]) {
        taken.value.add('eyeAcuity', eye, { way: read.way, acuityLogMar: read.acuity.logMar, acuityTyped: read.acuity.typed });
      }
    }
    for (const eye of form.lensOff) takeOffOthers(context, taken.value, await reading.facts(), eye);
    await openAbsoluteStops(context, taken.value);
    taken.value.forgetDraft('eyeHealth');
    return ok(taken.value.done());
  },
});

export const recordLesion = defineCommand({
  name: 'recordLesion',
  right: 'clinicalWrite',
  input: lesionForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, { eye, kind, nasalMm, upMm, longMm, acrossMm, ...form }) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'cornealLesion', eye }] });
    if (!taken.ok) return taken;
    taken.value.add('cornealLesion', eye, { kind, nasalMm, upMm, longMm, acrossMm });
    await openAbsoluteStops(context, taken.value);
    return ok(taken.value.done());
  },
});
