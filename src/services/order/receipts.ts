import 'server-only';
import type { z } from 'zod';
import { boxesOf, EYES, expiryState, isEnded, isMade, type Eye, type Order, type OrderLineRow } from '../../core';
import { findFamilyInForce } from '../../db/family';
import { insertReceipts, lockOrder, type NewReceipt } from '../../db/order';
import { recalledOf } from '../../db/lotRecall';
import { insertTask } from '../../db/task';
import { listOtherDays, receiveTrials } from '../../db/trialStock';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { handOverBoxesForm, receiptForm } from '../../schema/order';
import { defineCommand, type Context } from '../define';
import { checkCodes, keepCodes } from './boxCodes';
import { makeableLenses } from '../lensOnEye/makeableLens';
import { tellWearer } from '../outbox/write';
import { unlistedLens } from '../lensOnEye/unlistedLens';
import { teachingOf } from '../lesson/owed';
import { drivingAsked } from '../near/driving';
import { namedLenses } from '../visit/lenses';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';

type Received = NonNullable<z.output<typeof receiptForm>['right']>;

/** The lens in a box: the one ordered, or what a laboratory made of a raw order, in the family and curve that it was sent. */
async function lensInBox(context: Context, eye: Eye, line: OrderLineRow, box: Received): Promise<Result<string>> {
  if (line.lensId !== null) return ok(line.lensId);
  const raw = must(line.raw, 'raw order');
  if (box.power === null) return invalid([eye, 'power'], 'boxPowerRequired');
  const { power } = box.power;
  const family = await findFamilyInForce(context.tx, context.caller.practiceId, raw.familyCode, context.today);
  const { baseCurveMm, diameterMm, familyName, modality } = raw;
  if (family && isMade({ ...power, axis: power.cylinder === 0 ? 180 : power.axis, add: null, baseCurve: baseCurveMm, diameter: diameterMm }, family)) {
    const spec = { familyId: family.id, ...power, add: null, baseCurve: baseCurveMm, diameter: diameterMm };
    const made = await makeableLenses(context, [{ path: [eye, 'power'], spec }], { evenEnded: true });
    return made.ok ? ok(must(made.value[0], 'lens').lensId) : made;
  }
  // A laboratory is bound by no list: what it made is kept as it stands on the box.
  return ok(await unlistedLens(context, { name: familyName, modality, power, baseCurveMm, diameterMm }));
}

/** What is wrong with boxes that are said to have come for an eye. */
function boxFault(order: Order, eye: Eye, box: Received, today: string): Result<OrderLineRow> {
  const line = order.lines.find((l) => l.eye === eye);
  if (!line) return invalid([eye, 'lot'], 'eyeNotOrdered');
  const left = line.packs - (boxesOf(order, eye)?.received ?? 0);
  // Of trial lenses a supplier may send more than one asked for.
  if (order.kind === 'supply' && box.packs > left) return invalid([eye, 'packs'], 'packsTooMany', { left, ordered: line.packs });
  if (expiryState(box.expiresOn, today) === 'expired') return invalid([eye, 'expiresOn'], 'boxExpired', { expired: box.expiresOn });
  return ok(line);
}

/** Trial lenses that came lie in the drawer; once none is missing, their wearer is called for a visit. */
async function intoDrawer(
  context: Context,
  order: Order & { readonly wearerId: string },
  receipts: readonly NewReceipt[],
  despite: string | null,
): Promise<Result<null>> {
  const { tx, caller, now, today, newId } = context;
  const trials = receipts.map(({ lensId, lot, expiresOn, packs }) => ({ lensId, lot, expiresOn, count: packs }));
  const [other] = despite === null ? await listOtherDays(tx, caller.practiceId, trials) : [];
  const eyeOf = (lensId: string): Eye | undefined => order.lines.find((l) => l.lensId === lensId)?.eye;
  if (other) return invalid([eyeOf(other.lensId) ?? 'right', 'expiresOn'], 'lotOtherDay', { lot: other.lot, other: other.expiresOn });
  await receiveTrials(tx, caller.practiceId, trials, { at: now, by: caller.personId, note: despite }, newId);
  const came = new Set([...order.receipts, ...receipts].map((r) => r.orderLineId));
  if (order.lines.some((line) => !came.has(line.id))) return ok(null);
  const task = { id: newId(), practiceId: caller.practiceId, kind: 'call', text: null, because: 'trialsCame', wearerId: order.wearerId } as const;
  await insertTask(tx, { ...task, appointmentId: null, dueOn: today, assignedTo: null }, { note: null, at: now, by: caller.personId });
  return ok(null);
}

/** Boxes came and were read by hand, each for its own eye. */
export const recordReceipt = defineCommand({
  name: 'recordReceipt',
  right: 'handOver',
  input: receiptForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form) => {
    const { tx, caller, now, today, newId } = context;
    const order = await lockOrder(tx, caller.practiceId, form.orderId);
    if (!order) return notFound('order');
    if (isEnded(order)) return ruleBroken(order.events.some((e) => e.state === 'refused') ? 'orderRefused' : 'orderCancelled');
    const receipts: NewReceipt[] = [];
    const scanned = [];
    const detail: Record<string, string | number> = {};
    for (const eye of EYES) {
      const box = form[eye];
      if (!box) continue;
      const line = boxFault(order, eye, box, today);
      if (!line.ok) return line;
      const lens = await lensInBox(context, eye, line.value, box);
      if (!lens.ok) return lens;
      if ((await recalledOf(tx, caller.practiceId, [{ lot: box.lot, lensId: lens.value }])).length > 0)
        return invalid([eye, 'lot'], 'lotRecalled', { lot: box.lot });
      const receipt = { id: newId(), orderLineId: line.value.id, lensId: lens.value, lot: box.lot, expiresOn: box.expiresOn, packs: box.packs };
      receipts.push(receipt);
      scanned.push({ eye, receipt, boxes: box.codes });
      detail[eye] = box.packs;
    }
    const codes = await checkCodes(context, order, scanned, form.relearnReason);
    if (!codes.ok) return codes;
    if (order.kind === 'trial') {
      const kept = await intoDrawer(context, order, receipts, form.despiteReason);
      if (!kept.ok) return kept;
    }
    await insertReceipts(tx, caller.practiceId, order.id, receipts, { at: now, by: caller.personId, eventId: newId(), detail });
    await keepCodes(context, scanned, codes.value);
    context.supplyOf.add(order.wearerId);
    const came = new Map(order.lines.map((l) => [l.id, 0]));
    for (const r of [...order.receipts, ...receipts]) came.set(r.orderLineId, (came.get(r.orderLineId) ?? 0) + r.packs);
    // Called in once, when nothing is missing any more.
    if (order.kind === 'supply' && order.lines.every((l) => (came.get(l.id) ?? 0) >= l.packs))
      await tellWearer(context, order.wearerId, { kind: 'boxesHere', order: order.number }, order.id);
    return ok({ orderId: order.id });
  },
});

/** Boxes that lie here go home with the wearer, and are what is worn from now on. */
export const handOverBoxes = defineCommand({
  name: 'handOverBoxes',
  right: 'handOver',
  input: handOverBoxesForm,
  about: (form) => ({ subjectKind: 'order', subjectId: form.orderId }),
  run: async (context, form) => {
    const { tx, caller, today } = context;
    const order = await lockOrder(tx, caller.practiceId, form.orderId);
    // Trial lenses are handed over from the eye, not from a bag.
    if (order?.kind !== 'supply') return notFound('order');
    const taken = await lockVisit(context, form);
    if (!taken.ok) return taken;
    // Boxes of somebody else are nothing that lies here.
    if (order.wearerId !== taken.value.visit.wearerId) return notFound('order');
    const going = order.receipts.filter((r) => form.receiptIds.includes(r.id)).map((r) => r.lensId);
    const { lenses } = await namedLenses(context, going);
    const reading = readingOf(context, taken.value.visit);
    const teaching = await teachingOf(context, reading, Object.values(lenses), form.experienceNote);
    if (!teaching.ok) return teaching;
    const driving = await drivingAsked(context, reading, false);
    if (!driving.ok) return driving;
    for (const receiptId of new Set(form.receiptIds)) {
      const line = order.lines.find((l) => order.receipts.some((r) => r.id === receiptId && r.orderLineId === l.id));
      if (!line) return notFound('orderReceipt');
      const receipt = boxesOf(order, line.eye)?.here.find((r) => r.id === receiptId);
      if (!receipt) return ruleBroken('handedOverAlready', { eye: line.eye });
      if (expiryState(receipt.expiresOn, today) === 'expired') return ruleBroken('boxExpired', { eye: line.eye, expired: receipt.expiresOn });
      if ((await recalledOf(tx, caller.practiceId, [receipt])).length > 0) return ruleBroken('lotRecalled', { lot: receipt.lot });
      taken.value.add('handOver', line.eye, {
        wearerId: order.wearerId,
        lensId: receipt.lensId,
        source: 'order',
        lensOnEyeId: null,
        orderLineId: line.id,
        orderReceiptId: receipt.id,
        lot: receipt.lot,
        expiresOn: receipt.expiresOn,
        openedOn: null,
        lensCount: receipt.packs * line.packSize,
        ...teaching.value,
        handedOn: today,
      });
    }
    return ok(taken.value.done());
  },
});
