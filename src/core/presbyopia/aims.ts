import type { FactChain } from '../record/chains';
import type { NearFindingFact, RefractionFact } from '../record/visitFacts';
import type { Centimetres, Dioptres, Eye } from '../units';
import { addKnown, USUAL_NEAR_CM, type NearAdd } from './addKnown';
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

/** What bears on what the eyes are to see. */
export interface AimsOf {
  readonly nearFindings: readonly FactChain<NearFindingFact>[];
  /** Newest refraction with an addition of each eye at earlier visits: who wears an addition keeps it while none is found again. */
  readonly addsBefore: readonly RefractionFact[];
}
/** The aims of a visit. */
export const aimsOfVisit = (of: AimsOf, refractions: readonly FactChain<RefractionFact>[]): Aims =>
  aimsOf(nearState(of.nearFindings), addKnown(refractions, of.addsBefore)?.addD ?? null);

/** The addition that a lens of an eye is looked for with: none where an eye sees one distance only. */
export const addWanted = (aim: EyeAim, add: Dioptres | null): Dioptres | null => (aim.sees === 'both' ? add : null);

/** What an eye is to see, as it stands on a prescription and on every order under it. */
export interface WrittenAim {
  readonly sees: EyeAim['sees'];
  /** Distance that near lies at, cm; null for an eye that sees far only. */
  readonly cm: Centimetres | null;
}

/**
 * What each eye is to see, as it is written down; null while nobody decided how near is served.
 * @param add whose distance near lies at
 * @example writtenAims(nearState([]), null) → null
 */
export function writtenAims(near: NearState, add: NearAdd | null): Readonly<Record<Eye, WrittenAim>> | null {
  if (near.way === null) return null;
  const aims = aimsOf(near, add?.addD ?? null);
  const written = ({ sees }: EyeAim): WrittenAim => ({ sees, cm: sees === 'far' ? null : (add?.cm ?? USUAL_NEAR_CM) });
  return { right: written(aims.right), left: written(aims.left) };
}

/** What is looked for among lenses, by what each eye is to see: its power set nearer, and its addition. */
export function servedBy<Need extends { readonly sphere: Dioptres }>(
  aims: Aims,
  asked: { readonly needs: Readonly<Record<Eye, Need | null>>; readonly adds: Readonly<Record<Eye, Dioptres | null>> },
): { readonly needs: Readonly<Record<Eye, Need | null>>; readonly adds: Readonly<Record<Eye, Dioptres | null>> } {
  const need = (eye: Eye): Need | null => asked.needs[eye] && { ...asked.needs[eye], sphere: asked.needs[eye].sphere + aims[eye].plus };
  return {
    needs: { right: need('right'), left: need('left') },
    adds: { right: addWanted(aims.right, asked.adds.right), left: addWanted(aims.left, asked.adds.left) },
  };
}
