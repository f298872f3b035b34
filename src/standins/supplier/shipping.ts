import { createHash, randomUUID } from 'node:crypto';
import { checkDigit } from '../../core';
import type { SupplierLine } from './stock';

/**
 * Failures of despatch, on demand. `twice`: the message comes again. `outOfOrder`: the parcel is delivered before it is said to be
 * shipped. `wrongLens`: a quarter dioptre off. `shortDated`: ends within a month. `oneEyeMissing`: the right eye's boxes now, the left's later.
 */
export const SHIP_FAULTS = ['none', 'twice', 'outOfOrder', 'wrongLens', 'shortDated', 'oneEyeMissing'] as const;
export type ShipFault = (typeof SHIP_FAULTS)[number];
export const isShipFault = (text: unknown): text is ShipFault => SHIP_FAULTS.some((f) => f === text);

const plusDays = (day: string, days: number): string => new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

export interface Shipping {
  readonly order: number;
  readonly reference: string;
  readonly deliverTo: string;
  readonly lines: readonly SupplierLine[];
}
export type Message = Readonly<Record<string, unknown>>;

/** The code of a lens's box: the same for the same figures. Numbers that begin with 02 name nothing outside a company (GS1). */
function gtinOf(figures: object): string {
  const place = createHash('sha256').update(JSON.stringify(figures)).digest().readUInt32BE(0) % 10 ** 9;
  const key = `0020${String(place).padStart(9, '0')}`;
  return `${key}${checkDigit(key)}`;
}

let lots = 0;
/** One line as it is announced. */
function announced(line: SupplierLine, fault: ShipFault, today: string): Message {
  lots += 1;
  const { eye, packs, familyCode, baseCurve, diameter } = line;
  const figures =
    line.mode === 'raw'
      ? null
      : { familyCode, sphere: line.sphere + (fault === 'wrongLens' ? 0.25 : 0), cylinder: line.cylinder, axis: line.axis, add: line.add, baseCurve, diameter };
  const gtin = figures === null ? null : gtinOf(figures);
  return { eye, packs, lens: figures, gtin, lot: `S${4000 + lots}`, expiresOn: fault === 'shortDated' ? plusDays(today, 30) : plusDays(today, 1100) };
}

/** The messages of a parcel with some boxes of an order, in the order in which they are sent. */
export function messagesOf(of: Shipping, lines: readonly SupplierLine[], fault: ShipFault, today: string): readonly Message[] {
  const about = { version: 1, order: of.order, reference: of.reference };
  const shipped = {
    ...about,
    kind: 'shipped',
    id: `ship-${randomUUID()}`,
    shippedOn: today,
    expectedOn: plusDays(today, 2),
    lines: lines.map((line) => announced(line, fault, today)),
  };
  const delivered = { ...about, kind: 'delivered', id: `there-${randomUUID()}`, deliveredOn: today };
  if (fault === 'outOfOrder') return [delivered, shipped];
  if (fault === 'twice') return [shipped, shipped];
  return of.deliverTo === 'wearer' ? [shipped, delivered] : [shipped];
}
