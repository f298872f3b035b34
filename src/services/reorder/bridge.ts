import 'server-only';
import { EYES, eyeReorder, inForce, isSameLens, lastHandOver, provenance, reorderBar, type Eye, type HandOverFact } from '../../core';
import { insertAnswers } from '../../db/history';
import { returnBridged, takeTrials, type TakenTrial } from '../../db/trialStock';
import { insertCorrection } from '../../db/fact';
import { findVisit, insertVisit, setVisitClosed } from '../../db/visit';
import { listTrade } from '../../db/family';
import { err, invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { bridgeForm, bridgeWithdrawalForm } from '../../schema/reorder';
import { defineCommand, type Context } from '../define';
import { decideVisit } from '../visit/kindAndFee';
import { lockVisit, type LockedVisit } from '../visit/lock';
import { metaOf } from '../visit/meta';
import { readWearerFile } from '../wearer/file';

/** Takes one eye's lenses from the drawer and hands them over, each lot a row of its own. `last`: the hand-over whose lens is worn. */
async function giveHome(
  context: Context,
  taken: LockedVisit,
  of: { readonly eye: Eye; readonly count: number; readonly last: HandOverFact },
): Promise<Result<null>> {
  const { tx, caller, today, now } = context;
  const { eye, count, last } = of;
  const { id: visitId, wearerId } = taken.visit;
  const moved = { at: now, by: caller.personId, visitId, kind: 'givenHome' } as const;
  const asked = Array.from({ length: count }, () => last.lensId);
  const took = (await takeTrials(tx, caller.practiceId, asked, today, moved)).filter((t): t is TakenTrial => t !== null);
  if (took.length < count) return invalid([eye], 'bridgeFewer', { left: took.length });
  for (const { id, lot, expiresOn } of new Map(took.map((t) => [t.id, t])).values()) {
    taken.add('handOver', eye, {
      wearerId,
      // As the lenses that it continues have it: a lot of an earlier version of the family is the same lens.
      lensId: last.lensId,
      source: 'trial',
      lensOnEyeId: null,
      orderLineId: null,
      orderReceiptId: null,
      lot,
      expiresOn,
      openedOn: null,
      lensCount: took.filter((t) => t.id === id).length,
      teaching: 'experienced',
      signOffId: null,
      experienceNote: 'Wears this lens: trial lenses until the boxes come.',
      handedOn: today,
    });
  }
  return ok(null);
}

/**
 * Trial lenses of the very lens that is prescribed and worn go home until its boxes come. Whatever bars an order bars them; what was
 * asked and given is kept as a visit of its own, which is over when they go.
 */
export const bridgeWithTrials = defineCommand({
  name: 'bridgeWithTrials',
  right: 'handOver',
  input: bridgeForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form): Promise<Result<{ readonly visitId: string }>> => {
    const { tx, caller, today, now, newId } = context;
    const { wearerId } = form;
    const file = await readWearerFile(context, wearerId, null);
    if (!file) return notFound('wearer');
    const prescription = inForce(file.prescriptions).find((p) => p.id === form.prescriptionId);
    if (!prescription) return notFound('prescription');
    const codes = prescription.eyes.flatMap((e) => (e.lensId ? (file.lenses[e.lensId]?.familyCode ?? []) : []));
    const sold = await listTrade(tx, caller.practiceId, codes, today);
    const source = { file, trade: Object.fromEntries(sold.map(({ code, ...of }) => [code, of])), today, marginDays: 0 };
    const eyes = { right: eyeReorder(source, prescription, 'right'), left: eyeReorder(source, prescription, 'left') };
    const bar = reorderBar(file, prescription, eyes, today);
    // A family that is sold no more may still lie in the drawer.
    if (bar !== null && bar !== 'familyEnded') return ruleBroken('bridgeBarred', { bar });
    const visitId = newId();
    await insertVisit(tx, { id: visitId, practiceId: caller.practiceId, wearerId, kind: 'reorder', appointmentId: null, at: now, by: caller.personId });
    await decideVisit(context, { visitId, wearerId, kind: 'reorder' }, 0);
    const taken = await lockVisit(context, { visitId, version: 1 });
    if (!taken.ok) return taken;
    await insertAnswers(tx, metaOf(context, taken.value), [{ id: newId(), question: 'danger', value: ['none'], note: null }]);
    taken.value.changed('health', 'drawer');
    for (const eye of EYES) {
      if (form[eye] === 0) continue;
      const last = lastHandOver(file.handOvers, eye);
      const { worn } = provenance(file, eye);
      const [prescribed, wears] = [eyes[eye]?.lens, worn && file.lenses[worn.lensId]];
      const lensOfLast = last && file.lenses[last.lensId];
      if (!prescribed || !wears || !last || !lensOfLast || !isSameLens(prescribed, wears) || !isSameLens(prescribed, lensOfLast))
        return invalid([eye], 'bridgeOther');
      const given = await giveHome(context, taken.value, { eye, count: form[eye], last });
      if (!given.ok) return given;
    }
    await context.flush();
    await setVisitClosed(tx, caller.practiceId, visitId, now);
    context.supplyOf.add(wearerId);
    return ok({ visitId });
  },
});

/** Trial lenses that were said to have gone home did not: they lie in the drawer again, and count for nothing at the wearer's. */
export const withdrawBridge = defineCommand({
  name: 'withdrawBridge',
  right: 'handOver',
  input: bridgeWithdrawalForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form): Promise<Result<null>> => {
    const { tx, caller, today, now, newId } = context;
    const visit = await findVisit(tx, caller.practiceId, form.visitId);
    const file = visit && (await readWearerFile(context, visit.wearerId, null));
    const given = file?.handOvers.flatMap(({ current: h }) => (h?.visitId === form.visitId && h.source === 'trial' && h.lensOnEyeId === null ? [h] : [])) ?? [];
    if (!visit || given.length === 0) return notFound('handOver');
    // Later they may have been worn: what is said then is a loss, not an undoing.
    if (given.some((h) => h.handedOn !== today)) return ruleBroken('bridgeOlder');
    for (const { id, eye, lot, expiresOn, lensCount, observedAt } of given) {
      const of = { practiceId: caller.practiceId, visitId: visit.id, visitVersion: visit.version };
      const meta = { ...of, id: newId(), eye, observedAt, recordedAt: now, recordedBy: caller.personId };
      const done = await insertCorrection(tx, 'handOver', meta, { correctsId: id, reason: form.reason, voided: true }, {});
      if (!done) return err({ kind: 'conflict', what: 'handOver', differs: [] });
      await returnBridged(tx, caller.practiceId, { visitId: visit.id, lot, expiresOn, count: lensCount }, { at: now, by: caller.personId });
    }
    context.supplyOf.add(visit.wearerId);
    return ok(null);
  },
});
