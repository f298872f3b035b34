/** One line of an order as the supplier reads it. */
export interface SupplierLine {
  readonly eye: 'right' | 'left';
  readonly familyCode: string;
  readonly sphere: number;
  readonly cylinder: number;
  readonly axis: number;
  readonly add: string | null;
  readonly baseCurve: number | null;
  readonly diameter: number | null;
  readonly packs: number;
}

/** What the supplier answers to an order. */
export interface SupplierAnswer {
  readonly reference: string;
  readonly state: 'acknowledged' | 'backordered';
  /** Day the boxes are promised. */
  readonly dueOn: string;
}

/** Packs on the shelf and days to deliver, by family; toric axes off the tens are made to order. */
export function stockOf(line: SupplierLine): { readonly packs: number; readonly leadDays: number } {
  const madeToOrder = line.cylinder !== 0 && line.axis % 10 !== 0;
  const strong = Math.abs(line.sphere) > 8;
  return { packs: madeToOrder ? 0 : strong ? 4 : 40, leadDays: madeToOrder ? 12 : strong ? 9 : 5 };
}
