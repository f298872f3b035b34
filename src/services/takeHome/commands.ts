import 'server-only';
import { addSeconds, LINK_DAYS, publicAddressOf } from '../../core';
import { insertLanguageCheck, insertSheet } from '../../db/takeHome';
import { findVisit } from '../../db/visit';
import { insertWearerLink } from '../../db/wearerLink';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { checkLanguageForm, giveTakeHomeForm } from '../../schema/takeHome';
import { hashToken, newToken } from '../../server/token';
import { defineCommand } from '../define';
import { pageOf } from './page';

const DAY_SECONDS = 86_400;

/**
 * Gives a wearer the page of a visit, and keeps it as it was given. On a telephone it is opened by a link that ends; the link's token is told
 * once and kept as a hash.
 */
export const giveTakeHome = defineCommand({
  name: 'giveTakeHome',
  right: 'handOver',
  input: giveTakeHomeForm,
  about: (_form, out: { readonly sheetId: string; readonly number: number; readonly link: string | null }) => ({
    subjectKind: 'takeHomeSheet',
    subjectId: out.sheetId,
  }),
  run: async (context, form) => {
    const { tx, caller, now, settings } = context;
    const visit = await findVisit(tx, caller.practiceId, form.visitId);
    if (!visit) return notFound('visit');
    const made = await pageOf(context, visit);
    if (!made.ok) return ruleBroken('takeHomeMissing', { missing: made.missing.join(' ') });
    const address = publicAddressOf(settings.publicAddress);
    if (form.way === 'link' && address === null) return ruleBroken('noPublicAddress');
    const id = context.newId();
    const number = await insertSheet(tx, {
      ...{ id, practiceId: caller.practiceId, wearerId: visit.wearerId, visitId: visit.id, language: form.language, way: form.way, page: made.page },
      ...{ givenAt: now, givenBy: caller.personId },
    });
    if (form.way !== 'link') return ok({ sheetId: id, number, link: null });
    const token = newToken();
    await insertWearerLink(tx, {
      ...{ id: context.newId(), practiceId: caller.practiceId, wearerId: visit.wearerId, purpose: 'takeHome', subjectId: visit.id },
      ...{ tokenHash: hashToken(token), openedAt: now, openedBy: caller.personId, expiresAt: addSeconds(now, LINK_DAYS.takeHome * DAY_SECONDS) },
    });
    // Behind the hash: no server on the way is told it, and none writes it down.
    return ok({ sheetId: id, number, link: `${address ?? ''}/home#${token}` });
  },
});

/** A speaker of a language looked at the words of the page. */
export const checkLanguage = defineCommand({
  name: 'checkLanguage',
  right: 'settings',
  input: checkLanguageForm,
  about: (_form, out: { readonly id: string }) => ({ subjectKind: 'languageCheck', subjectId: out.id }),
  run: async ({ tx, caller, now, today, newId }, form) => {
    if (form.checkedOn > today) return invalid('checkedOn', 'checkedAhead');
    const id = newId();
    await insertLanguageCheck(tx, { id, practiceId: caller.practiceId, ...form, recordedAt: now, recordedBy: caller.personId });
    return ok({ id });
  },
});
