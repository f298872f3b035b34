import 'server-only';
import { EYES } from '../../core';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { handOverForm } from '../../schema/handOver';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand } from '../define';

export const handOver = defineCommand({
  name: 'handOver',
  right: 'clinicalWrite',
  input: handOverForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { today } = context;
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const { wearerId } = taken.value.visit;
    const reading = readingOf(context, taken.value.visit);
    const { lessons } = await reading.supply();
    const signOff = lessons.findLast((l) => l.signOffId !== null)?.signOffId ?? null;
    // No lenses go home with a new wearer before the sign-off; who handles lenses already is noted instead.
    if (signOff === null && form.experienceNote === null) return ruleBroken('signOffNeeded');
    const { handOvers: given } = await reading.supply();
    const { onEye } = await reading.facts();
    for (const eye of EYES) {
      const box = form[eye];
      if (!box) continue;
      const row = onEye.find((c) => c.rootId === box.lensOnEyeId)?.current;
      if (!row) return notFound('lensOnEye');
      if (row.eye !== eye) return invalid([eye, 'lensOnEyeId'], 'otherEye');
      if (row.lensId === null) return invalid([eye, 'lensOnEyeId'], 'lensUnknown');
      if (row.source === 'broughtIn') return invalid([eye, 'lensOnEyeId'], 'broughtInNotGiven');
      // Worn home since an earlier hand-over: it is the wearer's already.
      if (row.source === 'dispensed') return ruleBroken('handedOverAlready', { eye });
      if (box.expiresOn < today) return invalid([eye, 'expiresOn'], 'lensExpired', { expired: box.expiresOn });
      if (given.some((c) => c.current?.lensOnEyeId === row.rootId)) return ruleBroken('handedOverAlready', { eye });
      taken.value.add('handOver', eye, {
        wearerId,
        lensId: row.lensId,
        source: 'trial',
        lensOnEyeId: row.rootId,
        orderLineId: null,
        orderReceiptId: null,
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
    taken.value.forgetDraft('lesson');
    return ok(taken.value.done());
  },
});
