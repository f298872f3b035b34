import {
  addToRecord,
  compensateAxis,
  formatRefraction,
  nearestLenses,
  roundToStep,
  sphericalEquivalent,
  toCornealPlane,
  type LensAdd,
  type Eye,
  type Refraction,
} from '../../src/core';
import type { FamilyWithBlocks } from '../../src/db/family';
import { must } from '../../src/lib/assert';
import type { Chance } from '../../src/lib/chance';
import type { Story } from './people';

/** One eye as it is, whatever is measured of it. */
export interface TrueEye {
  /** With glasses at 12 mm. */
  readonly glasses: Refraction;
  /** Power that it requires at the cornea. */
  readonly required: Refraction;
  /** Where the bottom mark of a toric goes, degrees to the examiner's left. */
  readonly turn: number;
}
export type Eyes = Readonly<Record<Eye, TrueEye>>;
export const VERTEX_MM = 12;

/** Two eyes of one person: alike in sphere, their axes mirrored. */
export function eyesOf(chance: Chance, story: Story): Eyes {
  const sphere = roundToStep(story.presbyope ? chance.between(-2.5, 1.75) : chance.between(-5.25, -0.75), 0.25);
  const axis = chance.pick([5, 10, 15, 20, 170, 175, 180, 90]);
  const eye = (side: Eye): TrueEye => {
    const glasses: Refraction = {
      sphere: side === 'right' ? sphere : roundToStep(sphere + chance.between(-0.75, 0.75), 0.25),
      cylinder: story.astigmatic ? -chance.pick([1, 1.25, 1.5, 1.75]) : -chance.pick([0, 0, 0.25]),
      axis: side === 'right' ? axis : axis === 180 || axis === 90 ? axis : 180 - axis,
    };
    return { glasses, required: toCornealPlane(glasses, VERTEX_MM), turn: story.turn ?? 0 };
  };
  return { right: eye('right'), left: eye('left') };
}

const FAMILY = {
  daily: { sphere: 'dunlin-1-day', toric: 'dunlin-1-day-toric', multifocal: 'dunlin-1-day-multifocal' },
  twoWeekly: { sphere: 'sanderling-14', toric: 'sanderling-14-toric', multifocal: 'sanderling-14-multifocal' },
  monthly: { sphere: 'turnstone-30', toric: 'plover-30-toric', multifocal: 'curlew-multifocal' },
} as const;
/** The family that a wearer of a story is fitted with. */
export const familyCodeOf = ({ modality, astigmatic, presbyope }: Story): string =>
  FAMILY[modality][presbyope ? 'multifocal' : astigmatic ? 'toric' : 'sphere'];

/** A lens as the forms take it. */
export interface LensForm {
  readonly familyId: string;
  readonly sphere: number;
  readonly cylinder: number;
  readonly axis: number;
  readonly add: LensAdd | null;
  readonly baseCurve: number;
  readonly diameter: number;
}
export const addBandFor = (story: Story): LensAdd | null => (story.presbyope ? (story.age < 52 ? 'low' : 'high') : null);
export const addFor = (story: Story): number | null => (story.presbyope ? addToRecord(story.age) : null);

/** The lens of a family that leaves a requirement the least blur. */
export function lensFor(required: Refraction, family: FamilyWithBlocks, add: LensAdd | null): LensForm {
  const nearest = must(nearestLenses(required, family, { limit: 1 })[0], `a lens of ${family.name}`);
  const variant = must(
    nearest.variants.find((v) => v.add === add),
    `add ${String(add)}`,
  );
  return { familyId: family.id, ...nearest.power, ...variant };
}

/** What an eye asks for through a lens, read as a sphere in quarters: a sphere measures the mean power only, however the lens turns. */
export function overRefractionOf({ required }: TrueEye, lens: LensForm): string {
  const sphere = roundToStep(sphericalEquivalent(required) - sphericalEquivalent(lens), 0.25);
  return formatRefraction({ sphere, cylinder: 0, axis: 180 });
}

/** The lens to order: its axis moved against the turn. */
export const orderFor = ({ required, turn }: TrueEye, family: FamilyWithBlocks, add: LensAdd | null): LensForm =>
  lensFor(family.geometry === 'toric' ? { ...required, axis: compensateAxis(required.axis, turn) } : required, family, add);

/** The same for each eye. */
export const eachEye = <T>(of: (eye: Eye) => T): Record<Eye, T> => ({ right: of('right'), left: of('left') });
