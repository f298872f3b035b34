import 'server-only';
import { EYES } from '../../core';
import { recalledOf } from '../../db/lotRecall';
import { lockTrialStock, moveTrials } from '../../db/trialStock';
import { err, invalid, notFound, ok, ruleBroken, type ProblemData, type Result } from '../../lib/outcome';
import { handOverForm } from '../../schema/handOver';
import { teachingOf } from '../lesson/owed';
import { drivingAsked } from '../near/driving';
import { lensIdsOf, namedLenses } from '../visit/lenses';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand, type Context } from '../define';

/** The lenses that go home beside the one on the eye come from its lot in the drawer. A lot that the drawer does not know is not counted there. */
async function takeMore(
  { tx, caller, now }: Context,
  visitId: string,
  row: { readonly trialStockId: string | null; readonly lot: string | null },
  box: { readonly lot: string; readonly lensCount: number },
): Promise<Result<null, { readonly code: string; readonly data: ProblemData }>> {
  if (row.trialStockId === null || row.lot !== box.lot) return ok(null);
  const more = box.lensCount - 1;
  const stock = await lockTrialStock(tx, caller.practiceId, row.trialStockId);
  if (!stock || stock.count < more) return err({ code: 'trialsFewer', data: { lot: box.lot, left: (stock?.count ?? 0) + 1 } });
  await moveTrials(tx, caller.practiceId, [{ trialStockId: row.trialStockId, kind: 'givenHome', change: -more, visitId, note: null }], {
    at: now,
    by: caller.personId,
  });
  return ok(null);
}

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
    const going = EYES.flatMap((eye) => (form[eye] ? [form[eye].lensOnEyeId] : []));
    const facts = await reading.facts();
    const named = await namedLenses(context, lensIdsOf(facts));
    const lenses = facts.onEye.flatMap((c) => (going.includes(c.rootId) && c.current?.lensId ? (named.lenses[c.current.lensId] ?? []) : []));
    const teaching = await teachingOf(context, reading, lenses, form.experienceNote);
    if (!teaching.ok) return teaching;
    const driving = await drivingAsked(context, reading, true);
    if (!driving.ok) return driving;
    const { handOvers: given } = await reading.supply();
    const { onEye } = facts;
    for (const eye of EYES) {
      const box = form[eye];
      if (!box) continue;
      const row = onEye.find((c) => c.rootId === box.lensOnEyeId)?.current;
      if (!row) return notFound('lensOnEye');
      if (row.eye !== eye) return invalid([eye, 'lensOnEyeId'], 'otherEye');
      if (row.lensId === null) return invalid([eye, 'lensOnEyeId'], 'lensUnknown');
      if (row.diagnosticLensId !== null) return invalid([eye, 'lensOnEyeId'], 'setLensStays');
      if (row.source === 'broughtIn') return invalid([eye, 'lensOnEyeId'], 'broughtInNotGiven');
      // Worn home since an earlier hand-over, or sent to the wearer: it is theirs already.
      if (row.source === 'dispensed' || row.source === 'order') return ruleBroken('handedOverAlready', { eye });
      if ((await recalledOf(context.tx, context.caller.practiceId, [{ lot: box.lot, lensId: row.lensId }])).length > 0)
        return invalid([eye, 'lot'], 'lotRecalled', { lot: box.lot });
      if (box.expiresOn < today) return invalid([eye, 'expiresOn'], 'lensExpired', { expired: box.expiresOn });
      if (given.some((c) => c.current?.lensOnEyeId === row.rootId)) return ruleBroken('handedOverAlready', { eye });
      if (box.lensCount > 1) {
        const more = await takeMore(context, taken.value.visit.id, row, box);
        if (!more.ok) return invalid([eye, 'lensCount'], more.error.code, more.error.data);
      }
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
        lensCount: box.lensCount,
        ...teaching.value,
        handedOn: today,
      });
    }
    taken.value.forgetDraft('lesson');
    return ok(taken.value.done());
  },
});
