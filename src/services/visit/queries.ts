import 'server-only';
import { STEP_SLICES } from '../../core';
import { findVisit } from '../../db/visit';
import { notFound, ok } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { readNewerForm, readVisitForm } from '../../schema/visit';
import { defineQuery } from '../define';
import { sessionContextOf } from '../sessionContext';
import { readVisitPart, type VisitPart } from './slices';

/** The practice, the moment and the person. */
export const readSession = defineQuery({
  name: 'readSession',
  right: 'read',
  audited: false,
  input: emptyForm,
  about: () => null,
  run: (context) => Promise.resolve(ok(sessionContextOf(context))),
});

/** What a page of a visit shows: its head, and the parts that the page works with. */
export const readVisit = defineQuery({
  name: 'readVisit',
  right: 'clinicalRead',
  input: readVisitForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const visit = await findVisit(context.tx, context.caller.practiceId, form.visitId);
    if (!visit) return notFound('visit');
    const part: VisitPart = await readVisitPart(context, visit, STEP_SLICES[form.page]);
    return ok({ session: sessionContextOf(context), part });
  },
});

/** The same for a page that lies open; null while it shows what is so. Only what is read is audited. */
export const readNewer = defineQuery({
  name: 'readNewer',
  right: 'clinicalRead',
  audited: (out: { readonly part: VisitPart | null }) => out.part !== null,
  input: readNewerForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const visit = await findVisit(context.tx, context.caller.practiceId, form.visitId);
    if (!visit) return notFound('visit');
    return ok({ part: visit.version === form.version ? null : await readVisitPart(context, visit, STEP_SLICES[form.page]) });
  },
});
