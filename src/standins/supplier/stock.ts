/** One line of an order as the supplier reads it: final figures, or raw data that its laboratory works from. */
export type SupplierLine = {
  readonly eye: 'right' | 'left';
  readonly familyCode: string;
  readonly baseCurve: number | null;
  readonly diameter: number | null;
  readonly packs: number;
} & (
  | { readonly mode: 'final'; readonly sphere: number; readonly cylinder: number; readonly axis: number; readonly add: string | null }
  | { readonly mode: 'raw'; readonly raw: unknown }
);

/** What the supplier answers to an order. */
export interface SupplierAnswer {
  readonly reference: string;
  readonly state: 'acknowledged' | 'backordered';
  /** Day the boxes are promised. */
  readonly dueOn: string;
}

/** Packs on the shelf and days to deliver, by family; toric axes off the tens are made to order. */
export function stockOf(line: SupplierLine): { readonly packs: number; readonly leadDays: number } {
  // A laboratory works the figures out before it makes anything.
  if (line.mode === 'raw') return { packs: line.packs, leadDays: 15 };
  const madeToOrder = line.cylinder !== 0 && line.axis % 10 !== 0;
  const strong = Math.abs(line.sphere) > 8;
  return { packs: madeToOrder ? 0 : strong ? 4 : 40, leadDays: madeToOrder ? 12 : strong ? 9 : 5 };
}
