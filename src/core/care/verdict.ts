import { OWN, TRADE, type Source } from '../advice/source';
import { carePairOf, type CarePair } from './carePair';
import { disinfects, type CareProduct } from './careSystem';

/**
 * What is wrong with a product for these lenses. `absolute`: cannot be overridden; `stop`: a prescriber's sentence lets it pass; `watch`:
 * said, and asked about.
 */
export type CareGravity = 'absolute' | 'stop' | 'watch';
export const CARE_FAULTS = ['rigidOnSoft', 'disinfectsNothing', 'figuresUnknown', 'pairAvoid', 'noOwnCase', 'ended', 'pairIrritates', 'ownLabel'] as const;
export type CareFault = (typeof CARE_FAULTS)[number];

interface CareRule {
  readonly fault: CareFault;
  readonly gravity: CareGravity;
  readonly source: Source;
  readonly holds: (product: CareProduct, materials: readonly string[], pairs: readonly CarePair[]) => boolean;
}
const pairIs =
  (effect: 'avoid' | 'irritates'): CareRule['holds'] =>
  (product, materials, pairs) =>
    materials.some((material) => carePairOf(pairs, product.productId, material)?.effect === effect);

/** Rules of care products for soft lenses, gravest first. */
const RULES: readonly CareRule[] = [
  { fault: 'rigidOnSoft', gravity: 'absolute', source: TRADE, holds: (p) => p.system === 'rigid' },
  { fault: 'disinfectsNothing', gravity: 'absolute', source: TRADE, holds: (p) => p.system === 'saline' || p.system === 'drops' },
  // The clock, the card and the page to take home read them: nothing is taught from memory.
  {
    fault: 'figuresUnknown',
    gravity: 'absolute',
    source: OWN,
    holds: (p) => disinfects(p.system) && (p.soakMinutes === null || p.discardDays === null || p.storeDays === null),
  },
  { fault: 'pairAvoid', gravity: 'stop', source: TRADE, holds: pairIs('avoid') },
  { fault: 'noOwnCase', gravity: 'stop', source: TRADE, holds: (p) => p.system === 'peroxide' && !p.includesCase },
  { fault: 'ended', gravity: 'stop', source: OWN, holds: (p) => p.ended },
  { fault: 'pairIrritates', gravity: 'watch', source: TRADE, holds: pairIs('irritates') },
  { fault: 'ownLabel', gravity: 'watch', source: TRADE, holds: (p) => p.ownLabel },
];

export interface CareFinding {
  readonly fault: CareFault;
  readonly gravity: CareGravity;
  readonly source: Source;
}

/**
 * What is wrong with caring for soft lenses of these materials with a product; empty when nothing is known to be.
 * @param materials as families name them
 * @example careFindings({productId: 's', system: 'saline', name: 'S', maker: 'M', ownLabel: false, soakMinutes: null, storeDays: null, discardDays: null, catalystDays: null, includesCase: false, ended: false}, [], []).length → 1
 */
export const careFindings = (product: CareProduct, materials: readonly string[], pairs: readonly CarePair[]): readonly CareFinding[] =>
  RULES.filter((rule) => rule.holds(product, materials, pairs)).map(({ fault, gravity, source }) => ({ fault, gravity, source }));
