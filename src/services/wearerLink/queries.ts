import 'server-only';
import { prescriptionCopy, signedAt, type PrescriptionCopy } from '../../core';
import { listLenses } from '../../db/lens';
import { listPrescriptions } from '../../db/prescription';
import { findVisit } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { must } from '../../lib/assert';
import { notFound, ok } from '../../lib/outcome';
import { takeHomeForm } from '../../schema/wearerLink';
import { leadsTo } from '../authorise';
import { defineLinkQuery } from '../define';

/** A paper to take home, as data: whoever shows it brings the words of the language. */
export interface TakeHome {
  readonly language: string;
  readonly wearer: { readonly name: string; readonly birthDate: string };
  readonly practice: { readonly name: string; readonly address: string; readonly telephone: string };
  /** Whom to call when an eye is red or hurts: no paper goes without it. */
  readonly emergencyTelephone: string | null;
  readonly prescription: PrescriptionCopy | null;
}

/** What a wearer takes home from a visit: to the staff, and to whoever holds the link to it. */
export const readTakeHome = defineLinkQuery({
  name: 'readTakeHome',
  right: 'clinicalRead',
  links: ['takeHome'],
  input: takeHomeForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async ({ tx, caller, practice }, form) => {
    const visit = leadsTo(caller, form.visitId) ? await findVisit(tx, caller.practiceId, form.visitId) : null;
    if (!visit) return notFound('visit');
    const wearer = must(await findWearer(tx, caller.practiceId, visit.wearerId), 'wearer of the visit');
    const signed = signedAt(await listPrescriptions(tx, caller.practiceId, visit.wearerId), visit.id);
    const lenses = await listLenses(
      tx,
      caller.practiceId,
      (signed?.eyes ?? []).flatMap((e) => e.lensId ?? []),
    );
    const paper: TakeHome = {
      language: wearer.language,
      wearer: { name: wearer.name, birthDate: wearer.birthDate },
      practice: { name: practice.name, address: practice.address, telephone: practice.telephone },
      emergencyTelephone: practice.emergencyTelephone,
      prescription: signed && prescriptionCopy(signed, Object.fromEntries(lenses.map((l) => [l.id, l]))),
    };
    return ok(paper);
  },
});
