import type { Delivery } from '../supply/runway';
import type { Eye, IsoDate } from '../units';
import { boxesOf } from './boxes';
import type { Order } from './order';
import { arrivedOn, isEnded } from './orderState';
import type { Prescription } from './prescription';
import type { WearerFile } from './wearerFile';
import { lastHandOver } from './wornNow';

type StockFile = Pick<WearerFile, 'handOvers' | 'orders'>;

/** Lenses a box of the line that a hand-over came from; a trial is a box of its own. */
const packSizeOf = (orders: readonly Order[], orderLineId: string | null, lenses: number): number =>
  orders.flatMap((o) => o.lines).find((l) => l.id === orderLineId)?.packSize ?? lenses;

/**
 * Lenses of one eye that are with the wearer: every hand-over of the lens that was handed over last. Lenses of an earlier power
 * are not to be worn any more.
 * @source stock starts at hand-over, a changed power ends the old one: common practice
 */
export function inHandOf({ handOvers, orders }: StockFile, eye: Eye): readonly Delivery[] {
  const worn = lastHandOver(handOvers, eye);
  return handOvers.flatMap(({ current: h }) =>
    h?.eye === eye && h.lensId === worn?.lensId
      ? [
          {
            on: h.handedOn,
            openedOn: h.openedOn,
            lenses: h.lensCount,
            packSize: packSizeOf(orders, h.orderLineId, h.lensCount),
            state: 'inHand' as const,
          },
        ]
      : [],
  );
}

const isSame = (line: Order['lines'][number], prescription: Pick<Prescription, 'id' | 'eyes'>, order: Order): boolean =>
  line.lensId === null ? order.prescriptionId === prescription.id : prescription.eyes.some((e) => e.eye === line.eye && e.lensId === line.lensId);

/**
 * Boxes of the lens prescribed for an eye that are ordered and not yet handed over: those that lie here are with the wearer when
 * they are fetched, others on the day promised for them, at the earliest the day an order of today would come.
 * @param arrives the day on which an order placed today would come
 */
export const onTheWayTo = (
  { orders }: Pick<StockFile, 'orders'>,
  prescription: Pick<Prescription, 'id' | 'eyes'>,
  eye: Eye,
  today: IsoDate,
  arrives: IsoDate,
): readonly Delivery[] =>
  orders.flatMap((order): Delivery[] => {
    const line = order.lines.find((l) => l.eye === eye);
    const boxes = boxesOf(order, eye);
    if (order.kind !== 'supply' || !line || !boxes || !isSame(line, prescription, order)) return [];
    const here = boxes.here.reduce((sum, r) => sum + r.packs, 0);
    const coming = isEnded(order) ? 0 : boxes.ordered - boxes.received;
    const promised = order.events.findLast((e) => e.dueOn !== null)?.dueOn ?? null;
    const of = (on: IsoDate, packs: number, state: Delivery['state'] = 'onTheWay'): Delivery[] =>
      packs > 0 ? [{ on, openedOn: null, lenses: packs * line.packSize, packSize: line.packSize, state }] : [];
    // Sent straight to the wearer, who says that it came: in hand from that day, though nobody here has seen it.
    const arrived = arrivedOn(order);
    if (arrived !== null) return of(arrived.slice(0, 10), coming, 'inHand');
    return [...of(today, here), ...of(promised !== null && promised > today ? promised : arrives, coming)];
  });
