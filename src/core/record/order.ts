import type { WrittenAim } from '../presbyopia/aims';
import type { RawOrder } from '../supply/rawOrder';
import type { Eye } from '../units';

/**
 * What happens to an order. `delayed`: the supplier names a later day. `delivered`: it says that a parcel reached the wearer, whom
 * nobody here saw; `arrived` and `notArrived` are what the wearer says of it.
 */
export const ORDER_STATES = [
  'placed',
  'sendFailed',
  'doubtful',
  'acknowledged',
  'backordered',
  'refused',
  'shipped',
  'delayed',
  'delivered',
  'arrived',
  'notArrived',
  'received',
  'cancelAsked',
  'cancelled',
  'cancelRefused',
] as const;
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
/** A line as it is read: with what its eye is to see, by the prescription it was ordered under. */
export interface OrderLine extends OrderLineRow {
  readonly aim: WrittenAim | null;
}
export interface OrderEventRow {
  readonly state: OrderState;
  readonly at: string;
  readonly supplierReference: string | null;
  readonly dueOn: string | null;
  readonly detail: Readonly<Record<string, string | number>>;
}
/** Where boxes are sent. */
export const DELIVER_TO = ['practice', 'wearer'] as const;
export type DeliverTo = (typeof DELIVER_TO)[number];

/** What is wrong with boxes: another lens, not there, broken, ending too soon; or unopened ones of a power that was changed. */
export const CLAIM_KINDS = ['wrong', 'missing', 'damaged', 'shortDated', 'exchange'] as const;
export type ClaimKind = (typeof CLAIM_KINDS)[number];
/** What becomes of a claim; all but `told` end it. */
export const CLAIM_STEPS = ['told', 'replaced', 'credited', 'refused', 'withdrawn'] as const;
export type ClaimStep = (typeof CLAIM_STEPS)[number];

/** What is wrong with boxes as they are announced. */
export const SHIPMENT_FAULTS = ['notOrdered', 'tooMany', 'wrongLens', 'shortDated', 'expired'] as const;
export type ShipmentFault = (typeof SHIPMENT_FAULTS)[number];

/** Boxes of one line on the road. */
export interface ShipmentLine {
  readonly orderLineId: string;
  readonly packs: number;
  readonly lot: string | null;
  readonly expiresOn: string | null;
  readonly faults: readonly ShipmentFault[];
}
export interface OrderClaim {
  readonly id: string;
  readonly orderLineId: string;
  readonly kind: ClaimKind;
  readonly packs: number;
  readonly note: string | null;
  readonly openedAt: string;
  readonly openedByName: string;
  /** Newest step; null while the supplier was not told. */
  readonly step: ClaimStep | null;
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
  /** Null of an order from before suppliers were kept. */
  readonly supplierId: string | null;
  readonly supplierName: string | null;
  readonly deliverTo: DeliverTo;
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
  readonly lines: readonly OrderLine[];
  /** What came, in its order. */
  readonly receipts: readonly OrderReceiptRow[];
  readonly events: readonly OrderEventRow[];
  readonly shipped: readonly ShipmentLine[];
  readonly claims: readonly OrderClaim[];
}
