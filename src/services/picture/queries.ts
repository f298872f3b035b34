import 'server-only';
import { findPicture } from '../../db/picture';
import { notFound, ok } from '../../lib/outcome';
import { readPictureForm } from '../../schema/picture';
import { defineQuery } from '../define';

export const readPicture = defineQuery({
  name: 'readPicture',
  right: 'clinicalRead',
  input: readPictureForm,
  about: (form) => ({ subjectKind: 'picture', subjectId: form.pictureId }),
  run: async (context, form) => {
    const picture = await findPicture(context.tx, context.caller.practiceId, form.pictureId);
    return picture ? ok(picture) : notFound('picture');
  },
});
