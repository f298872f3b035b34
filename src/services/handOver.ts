import 'server-only';
import { chains, EYES, type OnEyeFact } from '../core';
import { findFact, listFacts } from '../db/facts';
import { listLessons } from '../db/lessons';
import { deleteDraft, listVisits } from '../db/visits';
import { invalid, notFound, ok, ruleBroken } from '../lib/outcome';
import { handOverForm } from '../schema/teachForms';
import { takeVisit } from './change';
import { defineService } from './define';
import type { HandOverFact } from './visitRecord';

export const handOver = defineService({
  name: 'handOver',
  right: 'clinicalWrite',
  input: handOverForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, today } = context;
    const taken = await takeVisit(context, form.visitId, form.version);
    if (!taken.ok) return taken;
    const { wearerId } = taken.value.visit;
    const lessons = await listLessons(tx, caller.practiceId, wearerId);
    const signOff = lessons.findLast((l) => l.signOffId !== null)?.signOffId ?? null;
    // No lenses go home with a new wearer before the sign-off; who handles lenses already is noted instead.
    if (signOff === null && form.experienceNote === null) return ruleBroken('signOffNeeded');
    const visitIds = (await listVisits(tx, caller.practiceId, wearerId)).map((v) => v.id);
    const given = chains(await listFacts<HandOverFact>(tx, 'hand_over', caller.practiceId, visitIds));
    for (const eye of EYES) {
      const box = form[eye];
      if (!box) continue;
      const row = await findFact<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, box.lensOnEyeId);
      if (!row || row.visitId !== form.visitId) return notFound('lensOnEye');
      if (row.eye !== eye) return invalid([eye, 'lensOnEyeId'], 'otherEye');
      if (row.lensId === null) return invalid([eye, 'lensOnEyeId'], 'lensUnknown');
      if (row.source === 'broughtIn') return invalid([eye, 'lensOnEyeId'], 'broughtInNotGiven');
      // Worn home since an earlier hand-over: it is the wearer's already.
      if (row.source === 'dispensed') return ruleBroken('handedOverAlready', { eye });
      if (box.expiresOn < today) return invalid([eye, 'expiresOn'], 'lensExpired', { expired: box.expiresOn });
      if (given.some((c) => c.current?.lensOnEyeId === row.rootId)) return ruleBroken('handedOverAlready', { eye });
      await taken.value.add('handOver', eye, {
        wearerId,
        lensId: row.lensId,
        source: 'trial',
        lensOnEyeId: row.rootId,
        orderLineId: null,
        lot: box.lot,
        expiresOn: box.expiresOn,
        openedOn: today,
        lensCount: 1,
        teaching: signOff === null ? 'experienced' : 'signedOff',
        signOffId: signOff,
        experienceNote: signOff === null ? form.experienceNote : null,
        handedOn: today,
      });
    }
    await deleteDraft(tx, caller.practiceId, form.visitId, 'teach', caller.personId);
    return ok(taken.value.done());
  },
});
