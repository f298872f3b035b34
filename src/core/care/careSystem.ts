/**
 * What a product for lenses does. Multipurpose and peroxide clean and disinfect; what is made for rigid lenses ruins soft ones; saline
 * and drops disinfect nothing.
 * @source common practice
 */
export const CARE_SYSTEMS = ['multipurpose', 'peroxide', 'rigid', 'saline', 'drops'] as const;
export type CareSystem = (typeof CARE_SYSTEMS)[number];

const DISINFECTING: readonly CareSystem[] = ['multipurpose', 'peroxide'];

/**
 * Can soft lenses be kept with it overnight?
 * @example disinfects('saline') → false
 */
export const disinfects = (system: CareSystem): boolean => DISINFECTING.includes(system);

/** What is known of a product; a figure nobody has looked up is null, which is not the same as none. */
export interface CareProduct {
  readonly productId: string;
  readonly system: CareSystem;
  readonly name: string;
  readonly maker: string;
  /** Sold under a shop's own name: who makes it, and what is in it, may change. */
  readonly ownLabel: boolean;
  /** Least time of disinfection, minutes. */
  readonly soakMinutes: number | null;
  /** Lenses may stay in the closed case so many days; then they are disinfected again. */
  readonly storeDays: number | null;
  /** The bottle is thrown away so many days after it was opened. */
  readonly discardDays: number | null;
  /** The catalyst disc neutralises for so many days; null where the product has none. */
  readonly catalystDays: number | null;
  /** A case comes with it; a peroxide's is its own neutralising case. */
  readonly includesCase: boolean;
  /** No longer sold. */
  readonly ended: boolean;
}
