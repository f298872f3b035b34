import 'server-only';
import { EYES, supplierOf, type Eye } from '../../core';
import { listPrescriptions } from '../../db/prescription';
import { listSuppliers } from '../../db/supplier';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import type { LockedVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { orderLine } from './lines';
import { keepOrder, type LineOfMaker, type Ordered } from './newOrder';

/** Boxes for each eye, 0 for none; `pastExpiryNote`: why a prescriber lets them last past the prescription's end. */
export interface BoxesAsked {
  readonly requestKey: string;
  readonly prescriptionId: string;
  readonly rightPacks: number;
  readonly leftPacks: number;
  readonly pastExpiryNote: string | null;
  /** The wearer's address, for a parcel that is sent straight there; null: to the practice. */
  readonly deliveryAddress?: string | null;
}

/** Places an order under a prescription in force, in a visit that is held. */
export async function orderUnder(context: Context, taken: LockedVisit, asked: BoxesAsked): Promise<Result<Ordered>> {
  const { tx, caller, today } = context;
  const { wearerId } = taken.visit;
  const { handOvers, orders, losses } = await readingOf(context, taken.visit).supply();
  const all = await listPrescriptions(tx, caller.practiceId, wearerId);
  const newest = all.find((p) => p.id === asked.prescriptionId);
  if (!newest) return notFound('prescription');
  // The newest of its purpose is in force, whichever of two merged records it came with.
  if (all.find((p) => p.purpose === newest.purpose)?.id !== newest.id) return ruleBroken('prescriptionSuperseded');
  if (newest.expiresOn < today) return ruleBroken('prescriptionExpired', { expired: newest.expiresOn });
  const packsOf: Record<Eye, number> = { right: asked.rightPacks, left: asked.leftPacks };
  const lines: LineOfMaker[] = [];
  let lasts = false;
  for (const eye of EYES) {
    if (packsOf[eye] === 0) continue;
    const line = await orderLine(context, newest, eye, {
      wearerId,
      packs: packsOf[eye],
      file: { handOvers, orders, losses },
      pastExpiryNote: asked.pastExpiryNote,
    });
    if (!line.ok) return line;
    lasts ||= line.value.lasts;
    lines.push(line.value);
  }
  const deliveryAddress = asked.deliveryAddress ?? null;
  if (deliveryAddress !== null) {
    const suppliers = await listSuppliers(tx, caller.practiceId);
    const here = lines.map(({ maker }) => supplierOf(suppliers, maker)).find((s) => !s?.toWearers);
    if (here !== undefined) return invalid('deliveryAddress', 'supplierNotToWearers', { supplier: here?.name ?? '' });
  }
  taken.changed('supply');
  const of = { requestKey: asked.requestKey, kind: 'supply', prescriptionId: newest.id, pastExpiryNote: lasts ? asked.pastExpiryNote : null } as const;
  const way = { deliverTo: deliveryAddress === null ? 'practice' : 'wearer', deliveryAddress } as const;
  return ok(await keepOrder(context, taken, { ...of, ...way }, lines));
}
