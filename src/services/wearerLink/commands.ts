import 'server-only';
import { addSeconds, LINK_DAYS } from '../../core';
import { findLinkSubject, insertWearerLink, insertWearerLinkEnd } from '../../db/wearerLink';
import { notFound, ok } from '../../lib/outcome';
import { endLinkForm, openLinkForm } from '../../schema/wearerLink';
import { hashToken, newToken } from '../../server/token';
import { defineCommand } from '../define';

const DAY_SECONDS = 86_400;

/** Gives a wearer a link to one lesson or one paper. Its token is told once and kept as a hash. */
export const openWearerLink = defineCommand({
  name: 'openWearerLink',
  right: 'clinicalWrite',
  input: openLinkForm,
  about: (_form, out: { readonly linkId: string; readonly token: string; readonly expiresAt: string }) => ({
    subjectKind: 'wearerLink',
    subjectId: out.linkId,
  }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const wearerId = await findLinkSubject(tx, caller.practiceId, form.purpose, form.subjectId);
    if (wearerId === null) return notFound(form.purpose === 'lesson' ? 'lesson' : 'visit');
    const token = newToken();
    const id = context.newId();
    const expiresAt = addSeconds(now, LINK_DAYS[form.purpose] * DAY_SECONDS);
    await insertWearerLink(tx, {
      id,
      practiceId: caller.practiceId,
      wearerId,
      purpose: form.purpose,
      subjectId: form.subjectId,
      tokenHash: hashToken(token),
      openedAt: now,
      openedBy: caller.personId,
      expiresAt,
    });
    return ok({ linkId: id, token, expiresAt });
  },
});

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
