import type { RawOrder } from '../supply/rawOrder';
import type { Eye } from '../units';

/** What happens to an order. */
export const ORDER_STATES = ['placed', 'sendFailed', 'doubtful', 'acknowledged', 'backordered', 'refused', 'received'] as const;
export type OrderState = (typeof ORDER_STATES)[number];

/** Lenses to wear, under a prescription; or trial lenses that the drawer lacks. */
export const ORDER_KINDS = ['supply', 'trial'] as const;
export type OrderKind = (typeof ORDER_KINDS)[number];

export interface OrderLineRow {
  readonly id: string;
  readonly eye: Eye;
  readonly mode: 'final' | 'raw';
  readonly lensId: string | null;
  readonly raw: RawOrder | null;
  readonly packs: number;
  readonly packSize: number;
  readonly packPriceMinor: number;
}
export interface OrderEventRow {
  readonly state: OrderState;
  readonly at: string;
  readonly supplierReference: string | null;
  readonly dueOn: string | null;
  readonly detail: Readonly<Record<string, string | number>>;
}
export interface OrderRow {
  readonly id: string;
  readonly number: number;
  readonly requestKey: string;
  readonly visitId: string;
  readonly kind: OrderKind;
  /** None of trial lenses. */
  readonly prescriptionId: string | null;
  readonly placedAt: string;
  readonly placedByName: string;
  readonly dueAt: string | null;
  readonly doneAt: string | null;
  readonly attempts: number | null;
}
/** Boxes of one line that came, of one lot. */
export interface OrderReceiptRow {
  readonly id: string;
  readonly orderLineId: string;
  readonly lensId: string;
  readonly lot: string;
  readonly expiresOn: string;
  readonly packs: number;
  readonly receivedAt: string;
  readonly receivedByName: string;
  /** They went home with the wearer. */
  readonly handedOver: boolean;
}
export interface Order extends OrderRow {
  readonly lines: readonly OrderLineRow[];
  /** What came, in its order. */
  readonly receipts: readonly OrderReceiptRow[];
  readonly events: readonly OrderEventRow[];
}
