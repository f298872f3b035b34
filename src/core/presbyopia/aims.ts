import type { FactChain } from '../record/chains';
import { latest } from '../record/chains';
import type { NearFindingFact, RefractionFact } from '../record/visitFacts';
import { EYES, type Dioptres, type Eye } from '../units';
import { dominanceOf, nearState, type NearState } from './nearFindings';

/** What an eye is to see, and by how much its lens is set nearer than far, D. */
export interface EyeAim {
  readonly sees: 'far' | 'near' | 'both';
  readonly plus: Dioptres;
}
export type Aims = Readonly<Record<Eye, EyeAim>>;

/** As far as partial monovision sets the eyes apart, D. Common practice: partial add to +1.50 first. */
export const PARTIAL_PLUS: Dioptres = 1.5;

const BOTH: EyeAim = { sees: 'both', plus: 0 };
const FAR: EyeAim = { sees: 'far', plus: 0 };

/**
 * What each eye is to see, by the way that was decided: of eyes set apart the dominant one far, the other near. Where dominance is
 * not known the right eye is taken for far.
 * @param add near addition, D; without one no eye is set nearer
 * @example aimsOf(nearState([]), null).right.sees → 'both'
 * @source dominant far, other near: common practice
 */
export function aimsOf(near: NearState, add: Dioptres | null): Aims {
  const far = dominanceOf(near).eye ?? 'right';
  const apart = (other: EyeAim): Aims => ({ right: far === 'right' ? FAR : other, left: far === 'left' ? FAR : other });
  switch (near.way) {
    case 'readers':
      return { right: FAR, left: FAR };
    case 'monovision':
      return apart({ sees: 'near', plus: add ?? 0 });
    case 'partialMonovision':
      return apart({ sees: 'near', plus: Math.min(add ?? 0, PARTIAL_PLUS) });
    case 'modified':
      return apart(BOTH);
    case 'multifocal':
    case 'toricMultifocal':
    case 'toricOneEye':
    case null:
      return { right: BOTH, left: BOTH };
  }
}

/** The near addition that a visit goes by: the stronger of the eyes' newest, D. */
export function addRecorded(refractions: readonly FactChain<RefractionFact>[]): Dioptres | null {
  const adds = EYES.flatMap((eye) => latest(refractions, (r) => r.eye === eye)?.current.addD ?? []);
  return adds.length === 0 ? null : Math.max(...adds);
}

/** The aims of a visit. */
export const aimsOfVisit = (nearFindings: readonly FactChain<NearFindingFact>[], refractions: readonly FactChain<RefractionFact>[]): Aims =>
  aimsOf(nearState(nearFindings), addRecorded(refractions));

/** The addition that a lens of an eye is looked for with: none where an eye sees one distance only. */
export const addWanted = (aim: EyeAim, add: Dioptres | null): Dioptres | null => (aim.sees === 'both' ? add : null);
