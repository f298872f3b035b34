import type { Kind } from '../advice/recommend';
import type { Refraction } from '../optics/refraction';
import type { CareSupply } from '../supply/yearlyCost';
import { startLensOf } from '../presbyopia/startPair';
import type { Dioptres, Eye } from '../units';
import { listOf, shapeFor, type ListedFamily, type ListInput, type Needs } from './listOf';
import { bestOf } from './shortlist';

/** What is typed so far: needs at the cornea and near additions. */
export interface AskedSoFar {
  readonly needs: Needs;
  readonly adds: Readonly<Record<Eye, Dioptres | null>>;
}
export interface BestSoFar {
  readonly code: string;
  readonly name: string;
  /** Blur of the worse eye, D. */
  readonly worst: Dioptres;
  readonly powers: Readonly<Record<Eye, Refraction | null>>;
}
export interface SoFar {
  /** Families that come within range of every eye that asks. */
  readonly reached: number;
  readonly best: readonly BestSoFar[];
}
/** What the ranking while typing is asked in. */
export interface SoFarRoom<F extends ListedFamily = ListedFamily> {
  readonly room: ListInput<F>;
  readonly kind: Kind | null;
  readonly product: CareSupply | null;
}

const SHOWN = 3;
/** A need is within a family's range where its nearest lens leaves no more blur than half a quarter dioptre. */
export const WITHIN_RANGE: Dioptres = 0.125;

/** The best families for what is typed so far. */
export function soFar({ room, kind, product }: SoFarRoom, asked: AskedSoFar): SoFar {
  const { needs, adds } = asked;
  const { rows } = listOf(room, { needs, adds, kind, shape: shapeFor(needs, adds), withoutMaterial: null, product });
  const served = rows.filter((r) => Number.isFinite(r.worst));
  const powerOf = (family: ListedFamily, eye: Eye): Refraction | null => {
    const need = needs[eye];
    return need
      ? (bestOf(family, need, startLensOf(family, eye, { age: room.age, adds, dominant: room.dominant ?? null }, needs), {
          limit: 1,
          cylinderCap: room.settings.cylinderCap,
          lastAxis: room.lastAxis[eye],
        })[0]?.power ?? null)
      : null;
  };
  return {
    reached: served.filter((r) => r.worst <= WITHIN_RANGE + 1e-9).length,
    best: served.slice(0, SHOWN).map(({ family, worst }) => ({
      code: family.code,
      name: family.name,
      worst,
      powers: { right: powerOf(family, 'right'), left: powerOf(family, 'left') },
    })),
  };
}
