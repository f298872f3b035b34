import 'server-only';
import {
  EYES,
  isOrderable,
  latest,
  may,
  supplyPlan,
  type Eye,
  type OrderLineRow,
  type Prescription,
  type PrescriptionEyeRow,
  type WearerFile,
} from '../../core';
import { findFamily, findFamilyInForce, type FamilyWithBlocks } from '../../db/family';
import { listLenses } from '../../db/lens';
import { hastenDispatch, isHeld } from '../../db/dispatch';
import { listPrescriptions } from '../../db/prescription';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { hastenForm, orderForm } from '../../schema/order';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand, type Context } from '../define';
import { keepOrder, orderOfPress, type Ordered } from './newOrder';

/** The family an eye's lenses come from: of the lens named, or, raw, of the lens that was on the eye. */
async function prescribedFamily(context: Context, prescribed: PrescriptionEyeRow): Promise<FamilyWithBlocks | null> {
  const { tx, caller, today } = context;
  if (prescribed.raw) return findFamilyInForce(tx, caller.practiceId, prescribed.raw.familyCode, today);
  const [lens] = prescribed.lensId ? await listLenses(tx, caller.practiceId, [prescribed.lensId]) : [];
  return lens ? findFamily(tx, caller.practiceId, lens.familyVersionId) : null;
}

/** One eye's line of an order, if its lenses may be had and end in time; `lasts`: a prescriber lets them last past the prescription's end. */
async function orderLine(
  context: Context,
  prescription: Prescription,
  eye: Eye,
  asked: { readonly packs: number; readonly handOvers: WearerFile['handOvers']; readonly pastExpiryNote: string | null },
): Promise<Result<{ readonly line: OrderLineRow; readonly lasts: boolean }>> {
  const { today, settings, caller } = context;
  const { packs } = asked;
  const prescribed = prescription.eyes.find((e) => e.eye === eye);
  if (!prescribed) return invalid(`${eye}Packs`, 'eyeNotPrescribed');
  const family = must(await prescribedFamily(context, prescribed), 'family of the prescribed lens');
  if (!isOrderable(family, today)) return invalid(`${eye}Packs`, 'familyEnded', { family: family.name, day: family.lastOrderOn ?? '' });
  const inHand = latest(asked.handOvers, (h) => h.eye === eye)?.current ?? null;
  const plan = supplyPlan({
    today,
    packs,
    packSize: family.packSize,
    leadDays: family.leadDays,
    marginDays: settings.reorderMarginDays,
    inHand: inHand && { openedOn: inHand.openedOn ?? inHand.handedOn, lenses: inHand.lensCount },
    wear: { modality: family.modality, daysPerWeek: prescription.daysPerWeek },
  });
  const past = plan.runOut !== null && plan.runOut > prescription.expiresOn ? { runOut: plan.runOut, expires: prescription.expiresOn } : null;
  if (past) {
    if (settings.pastExpiry === 'refuse') return invalid(`${eye}Packs`, 'pastExpiry', past);
    if (!may(caller.roles, 'sign')) return invalid(`${eye}Packs`, 'pastExpiryPrescriber', past);
    if (asked.pastExpiryNote === null) return invalid('pastExpiryNote', 'pastExpiryNote', past);
  }
  const { packSize, packPriceMinor } = family;
  const { mode, lensId, raw } = prescribed;
  return ok({ line: { id: context.newId(), eye, mode, lensId, raw, packs, packSize, packPriceMinor }, lasts: past !== null });
}

export const placeOrder = defineCommand({
  name: 'placeOrder',
  right: 'orders',
  input: orderForm,
  about: (_form, out: Ordered) => ({ subjectKind: 'order', subjectId: out.orderId }),
  run: async (context, form) => {
    const { tx, caller, today } = context;
    const there = await orderOfPress(context, form);
    if (there) return ok(there);
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    const { wearerId } = taken.value.visit;
    const { handOvers } = await readingOf(context, taken.value.visit).supply();
    const all = await listPrescriptions(tx, caller.practiceId, wearerId);
    const newest = all.find((p) => p.id === form.prescriptionId);
    if (!newest) return notFound('prescription');
    // The newest of its purpose is in force, whichever of two merged records it came with.
    if (all.find((p) => p.purpose === newest.purpose)?.id !== newest.id) return ruleBroken('prescriptionSuperseded');
    if (newest.expiresOn < today) return ruleBroken('prescriptionExpired', { expired: newest.expiresOn });
    const packsOf: Record<Eye, number> = { right: form.rightPacks, left: form.leftPacks };
    const lines = [];
    let lasts = false;
    for (const eye of EYES) {
      if (packsOf[eye] === 0) continue;
      const line = await orderLine(context, newest, eye, { packs: packsOf[eye], handOvers, pastExpiryNote: form.pastExpiryNote });
      if (!line.ok) return line;
      lasts ||= line.value.lasts;
      lines.push(line.value.line);
    }
    taken.value.changed('supply');
    const of = { requestKey: form.requestKey, kind: 'supply', prescriptionId: newest.id, pastExpiryNote: lasts ? form.pastExpiryNote : null } as const;
    const ordered = await keepOrder(context, taken.value, of, lines);
    taken.value.forgetDraft('supply');
    return ok(ordered);
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
