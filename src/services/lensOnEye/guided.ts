import 'server-only';
import { middleOfBlur, nextCylinder, type CylinderTry } from '../../core';
import { insertGuided } from '../../db/guidedCylinder';
import { invalid, notFound, ok } from '../../lib/outcome';
import { guidedCylinderForm } from '../../schema/guidedCylinder';
import { defineCommand } from '../define';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';

/** The axis between two blur points, and the cylinder that the answers came to: worked out here again, and kept with all that was said. */
export const recordGuidedCylinder = defineCommand({
  name: 'recordGuidedCylinder',
  right: 'clinicalWrite',
  input: guidedCylinderForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now, newId } = context;
    const taken = await lockVisit(context, form, { gate: 'measure', touches: [{ what: 'lensOnEye' }] });
    if (!taken.ok) return taken;
    const { onEye } = await readingOf(context, taken.value.visit).facts();
    if (onEye.find((c) => c.rootId === form.lensOnEyeId)?.current?.eye !== form.eye) return notFound('lensOnEye');
    const [one, other] = form.blur;
    const found = middleOfBlur(one, other, form.startAxis);
    if (!found.ok) return invalid('blur', `bracket_${found.problem}`);
    const tries: CylinderTry[] = [];
    for (const answer of form.answers) {
      const { offer } = nextCylinder(tries, form.step);
      // What was asked after the end was not asked.
      if (offer === null) return invalid('answers', 'answersPastEnd');
      tries.push({ cylinder: offer, answer });
    }
    const { settled } = nextCylinder(tries, form.step);
    if (settled === null) return invalid('answers', 'answersOpen');
    taken.value.changed('measures');
    await insertGuided(tx, {
      ...{ id: newId(), practiceId: caller.practiceId, visitId: form.visitId, visitVersion: taken.value.version, lensOnEyeId: form.lensOnEyeId },
      ...{ eye: form.eye, startAxis: form.startAxis, blur: form.blur, axis: found.axis, tries, cylinderD: settled, foundAt: now, foundBy: caller.personId },
    });
    return ok(taken.value.done());
  },
});
