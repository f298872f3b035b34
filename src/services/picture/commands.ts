import 'server-only';
import { insertPicture } from '../../db/picture';
import { findVisit } from '../../db/visit';
import type { Eye } from '../../core';
import { listLenses } from '../../db/lens';
import { remakePicture, type RemadePicture } from '../../formats/picture';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { pictureForm, takePicturesForm } from '../../schema/picture';
import { defineCommand, type Context } from '../define';
import { lockVisit, type LockedVisit } from '../visit/lock';
import { takenByCamera } from './camera';
import { createHash } from 'node:crypto';

/** Writes a picture down. @returns its identity */
async function keep(context: Context, taken: LockedVisit, { eye, title }: { readonly eye: Eye; readonly title: string }, made: RemadePicture): Promise<string> {
  taken.changed('health');
  const id = context.newId();
  await insertPicture(context.tx, {
    id,
    practiceId: context.caller.practiceId,
    visitId: taken.visit.id,
    visitVersion: taken.version,
    eye,
    title,
    ...made,
    sha256: createHash('sha256').update(made.bytes).digest('hex'),
    at: context.now,
    by: context.caller.personId,
  });
  return id;
}

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
    const id = await keep(context, taken.value, form, { bytes, width, height, placeRemoved });
    return ok({ ...taken.value.done(), pictureId: id, placeRemoved });
  },
});

/** Has the slit-lamp camera take pictures of the lens on an eye, one after another, and keeps them all, or none. */
export const takePictures = defineCommand({
  name: 'takePictures',
  right: 'clinicalWrite',
  input: takePicturesForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  // A camera takes seconds: nothing of the record is held meanwhile.
  prepare: async ({ deps, caller }, form) => {
    if (!(await findVisit(deps.sql, caller.practiceId, form.visitId))) return notFound('visit');
    if (!deps.cameraUrl) return ruleBroken('noCamera');
    const [lens] = await listLenses(deps.sql, caller.practiceId, [form.lensId]);
    if (!lens) return notFound('lens');
    return takenByCamera(deps.cameraUrl, { eye: form.eye, layout: lens.markLayout, spacing: lens.markSpacing ?? 0 }, form.count);
  },
  run: async (context, form, pictures) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [] });
    if (!taken.ok) return taken;
    const pictureIds: string[] = [];
    for (const made of pictures) pictureIds.push(await keep(context, taken.value, { eye: form.eye, title: '' }, made));
    return ok({ ...taken.value.done(), pictureIds });
  },
});
