import 'server-only';
import { insertPicture } from '../../db/picture';
import { findVisit } from '../../db/visit';
import { remakePicture } from '../../formats/picture';
import { invalid, notFound, ok } from '../../lib/outcome';
import { pictureForm } from '../../schema/picture';
import { defineCommand } from '../define';
import { lockVisit } from '../visit/lock';
import { createHash } from 'node:crypto';

/** Takes a picture of an eye: made anew from its pixels, so that nothing else comes in with it. */
export const recordPicture = defineCommand({
  name: 'recordPicture',
  right: 'clinicalWrite',
  input: pictureForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  // Opening a large picture takes seconds: nothing of the record is held meanwhile.
  prepare: async ({ deps, caller }, form) => {
    if (!(await findVisit(deps.sql, caller.practiceId, form.visitId))) return notFound('visit');
    const made = await remakePicture(form.bytes, form.declaredType);
    return made.ok ? made : invalid('picture', made.error.code, made.error.data);
  },
  run: async (context, form, { bytes, width, height, placeRemoved }) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [] });
    if (!taken.ok) return taken;
    taken.value.changed('health');
    const id = context.newId();
    await insertPicture(context.tx, {
      id,
      practiceId: context.caller.practiceId,
      visitId: form.visitId,
      visitVersion: taken.value.version,
      eye: form.eye,
      title: form.title,
      bytes,
      width,
      height,
      sha256: createHash('sha256').update(bytes).digest('hex'),
      placeRemoved,
      at: context.now,
      by: context.caller.personId,
    });
    return ok({ ...taken.value.done(), pictureId: id, placeRemoved });
  },
});
