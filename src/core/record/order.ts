import type { RawOrder } from '../supply/rawOrder';
import type { Eye } from '../units';

export type OrderState = 'placed' | 'sendFailed' | 'acknowledged' | 'backordered' | 'refused';

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
  readonly prescriptionId: string;
  readonly placedAt: string;
  readonly placedByName: string;
  readonly dueAt: string | null;
  readonly doneAt: string | null;
  readonly attempts: number | null;
}
export interface Order extends OrderRow {
  readonly lines: readonly OrderLineRow[];
  readonly events: readonly OrderEventRow[];
}
