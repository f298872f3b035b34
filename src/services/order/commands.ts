import 'server-only';
import { EYES, isOrderable, latest, may, supplyPlan, type Eye, type PrescriptionEyeRow } from '../../core';
import { findFamily, findFamilyInForce, type FamilyWithBlocks } from '../../db/family';
import { listLenses } from '../../db/lens';
import { findOrderByKey, insertOrder } from '../../db/order';
import { hastenDispatch, isHeld } from '../../db/dispatch';
import { listPrescriptions } from '../../db/prescription';
import { nextNumber } from '../../db/practice';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { hastenForm, orderForm } from '../../schema/order';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand, type Context } from '../define';

/** The family an eye's lenses come from: of the lens named, or, raw, of the lens that was on the eye. */
async function prescribedFamily(context: Context, prescribed: PrescriptionEyeRow): Promise<FamilyWithBlocks | null> {
  const { tx, caller, today } = context;
  if (prescribed.raw) return findFamilyInForce(tx, caller.practiceId, prescribed.raw.familyCode, today);
  const [lens] = prescribed.lensId ? await listLenses(tx, caller.practiceId, [prescribed.lensId]) : [];
  return lens ? findFamily(tx, caller.practiceId, lens.familyVersionId) : null;
}

export const placeOrder = defineCommand({
  name: 'placeOrder',
  right: 'orders',
  input: orderForm,
  about: (_form, out: { orderId: string; visitId: string; version: number | null }) => ({ subjectKind: 'order', subjectId: out.orderId }),
  run: async (context, form) => {
    const { tx, caller, now, today, settings } = context;
    // The same press twice is the same order.
    const there = await findOrderByKey(tx, caller.practiceId, form.requestKey);
    if (there) return ok({ orderId: there, visitId: form.visitId, version: null });
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const { wearerId } = taken.value.visit;
    const { handOvers } = await readingOf(context, taken.value.visit).supply();
    const all = await listPrescriptions(tx, caller.practiceId, wearerId);
    const newest = all.find((p) => p.id === form.prescriptionId);
    if (!newest) return notFound('prescription');
    if (all.some((p) => p.supersedesId === newest.id)) return ruleBroken('prescriptionSuperseded');
    if (newest.expiresOn < today) return ruleBroken('prescriptionExpired', { expired: newest.expiresOn });
    const packsOf: Record<Eye, number> = { right: form.rightPacks, left: form.leftPacks };
    const lines = [];
    let lasts = false;
    for (const eye of EYES) {
      const packs = packsOf[eye];
      if (packs === 0) continue;
      const prescribed = newest.eyes.find((e) => e.eye === eye);
      if (!prescribed) return invalid(`${eye}Packs`, 'eyeNotPrescribed');
      const family = must(await prescribedFamily(context, prescribed), 'family of the prescribed lens');
      if (!isOrderable(family, today)) return invalid(`${eye}Packs`, 'familyEnded', { family: family.name, day: family.lastOrderOn ?? '' });
      const inHand = latest(handOvers, (h) => h.eye === eye)?.current ?? null;
      const plan = supplyPlan({
        today,
        packs,
        packSize: family.packSize,
        leadDays: family.leadDays,
        marginDays: settings.reorderMarginDays,
        inHand: inHand && { openedOn: inHand.openedOn ?? inHand.handedOn, lenses: inHand.lensCount },
        wear: { modality: family.modality, daysPerWeek: newest.daysPerWeek },
      });
      const past = plan.runOut !== null && plan.runOut > newest.expiresOn ? { runOut: plan.runOut, expires: newest.expiresOn } : null;
      if (past) {
        if (settings.pastExpiry === 'refuse') return invalid(`${eye}Packs`, 'pastExpiry', past);
        if (!may(caller.roles, 'sign')) return invalid(`${eye}Packs`, 'pastExpiryPrescriber', past);
        if (form.pastExpiryNote === null) return invalid('pastExpiryNote', 'pastExpiryNote', past);
        lasts = true;
      }
      lines.push({
        id: context.newId(),
        eye,
        mode: prescribed.mode,
        lensId: prescribed.lensId,
        raw: prescribed.raw,
        packs,
        packSize: family.packSize,
        packPriceMinor: family.packPriceMinor,
      });
    }
    taken.value.changed('supply');
    const id = context.newId();
    await insertOrder(
      tx,
      {
        id,
        practiceId: caller.practiceId,
        number: await nextNumber(tx, caller.practiceId, 'order'),
        requestKey: form.requestKey,
        visitId: form.visitId,
        visitVersion: taken.value.version,
        wearerId,
        prescriptionId: newest.id,
        placedAt: now,
        placedBy: caller.personId,
        pastExpiryNote: lasts ? form.pastExpiryNote : null,
      },
      lines,
      context.newId(),
    );
    taken.value.forgetDraft('supply');
    return ok({ orderId: id, visitId: form.visitId, version: taken.value.version });
  },
});

/** Try a waiting order again now. */
export const hastenOrder = defineCommand({
  name: 'hastenOrder',
  right: 'orders',
  input: hastenForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form) => {
    if (await isHeld(context.tx, context.caller.practiceId, form.orderId)) return ruleBroken('absoluteStop');
    const done = await hastenDispatch(context.tx, context.caller.practiceId, form.orderId, context.now);
    return done ? ok({ orderId: form.orderId }) : notFound('order');
  },
});
