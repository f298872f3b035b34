import 'server-only';
import type postgres from 'postgres';
import { shipmentFaults, type IsoDate, type IsoInstant, type LensRow } from '../../core';
import type { Tx } from '../../db/client';
import { writeMessage } from '../../db/outbox';
import { insertPackageCodes, listPackageCodes, type NewPackageCode } from '../../db/packageCode';
import {
  insertOrderEvent,
  insertShipmentLines,
  insertSupplierMessage,
  lockOrderOfSupplier,
  type NewShipmentLine,
  type OrderedLine,
} from '../../db/supplierMessage';
import { supplierMessage, type SupplierMessage } from '../../schema/supplierMessage';

type Shipped = Extract<SupplierMessage, { kind: 'shipped' }>;

/** From whom a message came, and how. */
export interface MessageFrom {
  readonly practiceId: string;
  readonly supplierId: string;
  readonly cameBy: 'call' | 'poll';
  readonly at: IsoInstant;
  readonly today: IsoDate;
  /** From when on something written now may go to a wearer. */
  readonly dueAt: IsoInstant;
}

/** What became of a message: taken, known already, kept but of no order, or not understood and not kept. */
export type MessageTaken =
  | { readonly kind: 'taken' | 'known' }
  | { readonly kind: 'refused'; readonly why: 'orderUnknown' | 'eyeNotOrdered' | 'dayImpossible' }
  | { readonly kind: 'notUnderstood'; readonly path: string };

const near = (a: number | null, b: number | null): boolean => (a === null || b === null ? a === b : Math.abs(a - b) < 0.001);

/**
 * Is an announced lens the one of a line? Null where a laboratory makes it, or nothing says which lens it is.
 * @param known what the announced code names, where it was learned before
 */
function isOrdered(line: OrderedLine, { lens }: Shipped['lines'][number], known: LensRow | undefined): boolean | null {
  if (line.lensId === null) return null;
  if (lens !== null) {
    const turned = line.cylinderD === 0 || lens.axis === line.axisDeg;
    const figures = lens.familyCode === line.familyCode && near(lens.sphere, line.sphereD) && near(lens.cylinder, line.cylinderD) && lens.add === line.addBand;
    if (!(figures && turned && near(lens.baseCurve, line.baseCurveMm) && near(lens.diameter, line.diameterMm))) return false;
  }
  if (!known) return lens === null ? null : true;
  return (
    known.id === line.lensId ||
    (known.familyCode === line.familyCode &&
      near(known.sphereD, line.sphereD) &&
      near(known.cylinderD, line.cylinderD) &&
      (line.cylinderD === 0 || known.axisDeg === line.axisDeg) &&
      known.addBand === line.addBand)
  );
}

/** Why a message names days that cannot be. */
const impossible = (message: SupplierMessage, today: IsoDate): boolean =>
  (message.kind === 'shipped' && (message.shippedOn > today || message.expectedOn < message.shippedOn)) ||
  (message.kind === 'delivered' && message.deliveredOn > today);

/** Keeps the boxes of a despatch with what is wrong with them. @returns boxes by eye */
async function keepShipped(
  tx: Tx,
  { practiceId, at }: MessageFrom,
  of: { readonly id: string; readonly message: Shipped; readonly lines: readonly OrderedLine[] },
  newId: () => string,
): Promise<Readonly<Record<string, number>>> {
  const { message, lines } = of;
  const shipped: NewShipmentLine[] = [];
  const learned = new Map<string, NewPackageCode>();
  const detail: Record<string, number> = {};
  const left = new Map(lines.map((l) => [l.eye, l.packs - l.announced]));
  const named = message.lines.flatMap((l) => l.gtin ?? []);
  const codes = await listPackageCodes(tx, practiceId, named);
  for (const announced of message.lines) {
    const line = lines.find((l) => l.eye === announced.eye);
    if (!line) continue;
    const { eye, packs, gtin, lot, expiresOn } = announced;
    const { modality, daysPerWeek } = line;
    const known = codes.find((c) => c.gtin === gtin);
    const ordered = isOrdered(line, announced, known);
    const faults = shipmentFaults(
      { packs, expiresOn, isOrdered: ordered },
      { left: left.get(eye) ?? 0, lenses: line.packSize, wear: { modality, daysPerWeek }, arrivesOn: message.expectedOn },
    );
    left.set(eye, (left.get(eye) ?? 0) - packs);
    shipped.push({ id: newId(), orderLineId: line.id, packs, gtin, lot, expiresOn, faults });
    detail[eye] = (detail[eye] ?? 0) + packs;
    // Lens and code named together teach the code, before a box of it was ever read here.
    if (gtin !== null && !known && announced.lens !== null && ordered === true && line.lensId !== null)
      learned.set(gtin, { id: newId(), gtin, lensId: line.lensId, reason: null });
  }
  await insertShipmentLines(tx, practiceId, of.id, shipped);
  await insertPackageCodes(tx, practiceId, [...learned.values()], { at, supplierMessageId: of.id });
  return detail;
}

/**
 * Takes what a supplier says of an order, once however often it comes. What is wrong with announced boxes is kept beside them: a
 * wrong lens is known before the parcel is opened.
 */
export async function takeMessage(tx: Tx, from: MessageFrom, body: unknown, newId: () => string): Promise<MessageTaken> {
  const { practiceId, supplierId, cameBy, at, today } = from;
  const read = supplierMessage.safeParse(body);
  if (!read.success) return { kind: 'notUnderstood', path: read.error.issues[0]?.path.join('.') ?? '' };
  const message = read.data;
  const order = await lockOrderOfSupplier(tx, practiceId, supplierId, message.order);
  const lines = message.kind === 'shipped' ? message.lines : [];
  const stranger = lines.some((l) => !order?.lines.some((o) => o.eye === l.eye));
  const refused = order === null ? 'orderUnknown' : stranger ? 'eyeNotOrdered' : impossible(message, today) ? 'dayImpossible' : null;
  const id = newId();
  const kept = { id, practiceId, supplierId, messageRef: message.id, kind: message.kind, orderId: order?.id ?? null, cameBy, cameAt: at };
  const isNew = await insertSupplierMessage(tx, { ...kept, body: body as postgres.JSONValue, refused });
  if (!isNew) return { kind: 'known' };
  if (refused !== null || order === null) return { kind: 'refused', why: refused ?? 'orderUnknown' };
  const event = { id: newId(), practiceId, orderId: order.id, at, supplierReference: message.reference };
  if (message.kind === 'delayed') await insertOrderEvent(tx, { ...event, state: 'delayed', dueOn: message.expectedOn });
  else if (message.kind === 'delivered') {
    await insertOrderEvent(tx, { ...event, state: 'delivered', detail: { day: message.deliveredOn } });
    // Delivered, unseen: the wearer is asked.
    if (order.deliverTo === 'wearer') {
      const asked = { kind: 'parcelAsked', order: message.order } as const;
      await writeMessage(tx, practiceId, order.wearerId, asked, order.id, { at, by: null, dueAt: from.dueAt });
    }
  } else {
    const detail = await keepShipped(tx, from, { id, message, lines: order.lines }, newId);
    await insertOrderEvent(tx, { ...event, state: 'shipped', dueOn: message.expectedOn, detail });
  }
  return { kind: 'taken' };
}
