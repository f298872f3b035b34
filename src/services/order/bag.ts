import 'server-only';
import { boxesOf, EYES, readBagCode, type Eye, type Order } from '../../core';
import { findOrder } from '../../db/order';
import { findReceiptOfBox, findReceiptOwner, listPackageCodes } from '../../db/packageCode';
import { readBoxCode } from '../../formats/gs1/elementString';
import { notFound, ok, type Result } from '../../lib/outcome';
import { bagForm } from '../../schema/order';
import { defineQuery, type Context } from '../define';

/** What a scanned label or box is, beside the order that is handed over. */
export type BagSaid =
  | { readonly kind: 'here'; readonly by: 'label' | 'box'; readonly receiptIds: readonly string[]; readonly eye: Eye }
  | { readonly kind: 'handedOver'; readonly eye: Eye }
  | { readonly kind: 'another'; readonly number: number; readonly wearerName: string; readonly eye: Eye }
  | { readonly kind: 'unknown' }
  | { readonly kind: 'unread' };

const eyeOfReceipt = (order: Order, receiptId: string): Eye | null => {
  const receipt = order.receipts.find((r) => r.id === receiptId);
  return order.lines.find((l) => l.id === receipt?.orderLineId)?.eye ?? null;
};

/** A receipt as it stands to the order. */
async function saidOf({ tx, caller }: Context, order: Order, receiptId: string, by: 'label' | 'box'): Promise<BagSaid> {
  const eye = eyeOfReceipt(order, receiptId);
  if (eye !== null) {
    const isHere = boxesOf(order, eye)?.here.some((r) => r.id === receiptId) === true;
    return isHere ? { kind: 'here', by, receiptIds: [receiptId], eye } : { kind: 'handedOver', eye };
  }
  const owner = await findReceiptOwner(tx, caller.practiceId, receiptId);
  return owner ? { kind: 'another', ...owner } : { kind: 'unknown' };
}

/** Boxes of this order that lie here with the code's lens and lot; those of both eyes where they are alike. */
async function byLot({ tx, caller }: Context, order: Order, gtin: string, lot: string | null): Promise<BagSaid> {
  const [known] = await listPackageCodes(tx, caller.practiceId, [gtin]);
  const here = EYES.flatMap((eye) => (boxesOf(order, eye)?.here ?? []).filter((r) => r.lensId === known?.id && r.lot === lot).map((r) => ({ eye, id: r.id })));
  const [first] = here;
  if (!first) return { kind: 'unknown' };
  return { kind: 'here', by: 'box', receiptIds: here.map((h) => h.id), eye: first.eye };
}

/** Whose a bag or a box is that is about to be handed over: scanned or typed as it stands on it. */
export const readBag = defineQuery({
  name: 'readBag',
  right: 'handOver',
  audited: false,
  input: bagForm,
  about: () => null,
  run: async (context, form): Promise<Result<BagSaid>> => {
    const { tx, caller, today } = context;
    const order = await findOrder(tx, caller.practiceId, form.orderId);
    if (order?.kind !== 'supply') return notFound('order');
    const label = readBagCode(form.code);
    if (label) return ok(await saidOf(context, order, label.receiptId, 'label'));
    const box = readBoxCode(form.code, today);
    if (!box.ok || box.value.gtin === null) return ok({ kind: 'unread' });
    const { gtin, serial, lot } = box.value;
    const receiptId = serial === null ? null : await findReceiptOfBox(tx, caller.practiceId, { gtin, serial });
    return ok(receiptId ? await saidOf(context, order, receiptId, 'box') : await byLot(context, order, gtin, lot));
  },
});
