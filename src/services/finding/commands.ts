import 'server-only';
import { EYES, findingsConflict } from '../../core';
import { err, ok } from '../../lib/outcome';
import { findingsForm } from '../../schema/finding';
import { defineCommand } from '../define';
import { openAbsoluteStops } from '../stop/openAbsoluteStops';
import { lockVisit, touching } from '../visit/lock';
import { readingOf } from '../visit/reading';

export const recordFindings = defineCommand({
  name: 'recordFindings',
  right: 'clinicalWrite',
  input: findingsForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const eyes = EYES.filter((eye) => form[eye].length > 0 || form[`${eye}Sight`].length > 0);
    const taken = await lockVisit(context, form, { gate: 'record', touches: touching(['finding', 'eyeAcuity'], eyes) });
    if (!taken.ok) return taken;
    const state = await readingOf(context, taken.value.visit).state();
    for (const eye of EYES) {
      const typed = Object.fromEntries(form[eye].map((f) => [f.sign, f.value]));
      const [conflict] = findingsConflict({ ...state.today[eye], ...typed });
      if (conflict && form[eye].length > 0) return err({ kind: 'invalid', fields: [{ path: [eye, conflict.sign], code: conflict.code, data: conflict.data }] });
      for (const f of form[eye]) {
        const value = typeof f.value === 'number' ? { numberValue: f.value, wordValue: null } : { numberValue: null, wordValue: f.value };
        taken.value.add('finding', eye, { sign: f.sign, ...value });
      }
      for (const read of form[`${eye}Sight`]) {
        taken.value.add('eyeAcuity', eye, { way: read.way, acuityLogMar: read.acuity.logMar, acuityTyped: read.acuity.typed });
      }
    }
    await openAbsoluteStops(context, taken.value);
    taken.value.forgetDraft('eyeHealth');
    return ok(taken.value.done());
  },
});
