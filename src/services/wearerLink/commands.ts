import 'server-only';
import { insertWearerLinkEnd } from '../../db/wearerLink';
import { notFound, ok } from '../../lib/outcome';
import { endLinkForm } from '../../schema/wearerLink';
import { defineCommand } from '../define';

/** A link that went to the wrong person, or was lost, opens nothing any more. */
export const endWearerLink = defineCommand({
  name: 'endWearerLink',
  right: 'clinicalWrite',
  input: endLinkForm,
  about: (form) => ({ subjectKind: 'wearerLink', subjectId: form.linkId }),
  run: async ({ tx, caller, now }, form) => {
    const done = await insertWearerLinkEnd(tx, { practiceId: caller.practiceId, linkId: form.linkId, at: now, by: caller.personId });
    return done ? ok(null) : notFound('wearerLink');
  },
});
