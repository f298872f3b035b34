import { EYES, type Eye, type MultifocalDesign } from '../../../src/core';
import type { Chance } from '../../../src/lib/chance';
import { contrasts, lettersThrough, type Blur } from './light';
import type { Ranges } from './ranges';
import { normal, SIM_TASK_FIGURES, type SimTask, type SimWearer } from './wearer';

/** A lens as it is worn: its far power against what was recorded of the eye, and its near zone by the label. */
export interface SimLens {
  /** Sphere beyond the recorded power of the eye, D; plus is more plus. */
  readonly offset: number;
  readonly near: { readonly design: MultifocalDesign; readonly power: number } | null;
  /** Corrects the cylinder too. */
  readonly toric: boolean;
}
export type SimPair = Readonly<Record<Eye, SimLens>>;

const rise = (at: number, from: number, to: number): number => {
  const t = Math.min(1, Math.max(0, (at - from) / (to - from)));
  return t * t * (3 - 2 * t);
};
/** How much of the near power a ring of a design as drawn here has, 0 to 1, by its radius in mm. */
function nearShare(design: MultifocalDesign, ring: number): number {
  switch (design) {
    case 'centreNear':
      return 1 - rise(ring, 0.55, 1.75);
    case 'centreDistance':
      return rise(ring, 1.05, 2.15);
    case 'concentric':
      return ring < 0.85 ? 0 : Math.floor((ring - 0.85) / 0.45) % 2 === 0 ? 1 : 0;
    case 'extendedDepth':
      return Math.max(0, 1 - ring / 2.4) * 0.9;
  }
}

/** Contrast that one eye lets through from a distance, with so much accommodation. */
function through(wearer: SimWearer, eye: Eye, lens: SimLens, vergence: number, accommodation: number, pupilMm: number): Float64Array {
  const own = wearer.eyes[eye];
  // A lens beside the pupil shows another part of its drawing: taken as zones that are smeared by as much.
  const error = (ring: number): number => {
    const near = lens.near;
    const share = near
      ? (nearShare(near.design, Math.abs(ring / wearer.zones - own.decentredMm / 2)) + nearShare(near.design, ring / wearer.zones + own.decentredMm / 2)) / 2
      : 0;
    return lens.offset - own.beyondRecorded + share * (near?.power ?? 0) * wearer.addMade + own.aberration * ring * ring + accommodation - vergence;
  };
  const blur: Blur = { error, halfCylinder: lens.toric ? Math.min(own.halfCylinder, 0.12) : own.halfCylinder, pupilMm };
  return contrasts(blur);
}

/** What is true of a task with a pair: letters read with both eyes, and what the wearer thinks of it. */
export interface TaskTruth {
  readonly acuity: number;
  readonly satisfaction: number;
}

const together = (a: Float64Array, b: Float64Array): Float64Array => a.map((x, i) => Math.hypot(x, b[i] ?? 0));
/** A coarse detail of the list in light.ts: what a ghost takes from it. */
const COARSE = 5;

/** The truth about one task. */
export function taskTruth(wearer: SimWearer, pair: SimPair, task: SimTask): TaskTruth {
  const { vergence, needs } = SIM_TASK_FIGURES[task];
  const pupil = task === 'road' ? wearer.pupilDimMm : task === 'phone' || task === 'book' ? wearer.pupilRoomMm - 0.4 : wearer.pupilRoomMm;
  const comfortable = Math.min(wearer.amplitude / 2, vergence);
  const best = { right: wearer.eyes.right.best, left: wearer.eyes.left.best };
  let found: { acuity: number; each: Record<Eye, number>; ghost: number } | null = null;
  for (const accommodation of new Set([0, comfortable / 2, comfortable])) {
    const c = {
      right: through(wearer, 'right', pair.right, vergence, accommodation, pupil),
      left: through(wearer, 'left', pair.left, vergence, accommodation, pupil),
    };
    const both = together(c.right, c.left);
    const acuity = lettersThrough(both, Math.min(best.right, best.left));
    if (found && acuity >= found.acuity) continue;
    const each = { right: lettersThrough(c.right, best.right), left: lettersThrough(c.left, best.left) };
    found = { acuity, each, ghost: 1 - Math.min(1, (both[COARSE] ?? 0) / 1.2) };
  }
  if (!found) throw new Error('no accommodation tried');
  const want = needs + wearer.wants[task];
  let satisfaction = 10 / (1 + Math.exp((found.acuity - want - 0.06) / 0.06));
  satisfaction -= found.ghost * wearer.ghostCost;
  const apart = Math.abs(EYES.map((eye) => pair[eye].offset - wearer.eyes[eye].beyondRecorded + (pair[eye].near?.power ?? 0) * 0.5).reduce((a, b) => a - b));
  satisfaction -= Math.max(0, apart - wearer.bearsDifference) * 3;
  if (task === 'road') satisfaction -= wearer.dominantWeight * 10 * Math.max(0, found.each[wearer.dominant] - found.acuity - 0.1);
  return { acuity: found.acuity, satisfaction: Math.min(10, Math.max(0, satisfaction)) };
}

/** Satisfied at a task from here on. */
export const SATISFIED = 7;

/** Is a wearer truly served by a pair at every task they have? */
export const served = (wearer: SimWearer, pair: SimPair): boolean => wearer.tasks.every((task) => taskTruth(wearer, pair, task).satisfaction >= SATISFIED);

/** What is read and said, with its noise. */
export function read(chance: Chance, ranges: Ranges, truth: TaskTruth): { readonly acuity: number; readonly satisfaction: number } {
  return {
    acuity: Math.round((truth.acuity + normal(chance, ranges.chartSd)) / 0.02) * 0.02,
    satisfaction: Math.min(10, Math.max(0, Math.round(truth.satisfaction + normal(chance, ranges.saidSd)))),
  };
}

/** One eye alone at a distance, the other covered: letters as they are read. */
export function readAlone(chance: Chance, ranges: Ranges, wearer: SimWearer, pair: SimPair, eye: Eye, task: SimTask): number {
  const { vergence } = SIM_TASK_FIGURES[task];
  const comfortable = Math.min(wearer.amplitude / 2, vergence);
  const acuity = Math.min(
    ...[0, comfortable].map((a) => lettersThrough(through(wearer, eye, pair[eye], vergence, a, wearer.pupilRoomMm), wearer.eyes[eye].best)),
  );
  return Math.round((acuity + normal(chance, ranges.chartSd)) / 0.02) * 0.02;
}

export type HandHeld = 'better' | 'same' | 'worse';
/** A quarter held before one eye with both open: what the wearer says of a task. */
export function heldBefore(chance: Chance, ranges: Ranges, wearer: SimWearer, pair: SimPair, eye: Eye, by: number, task: SimTask): HandHeld {
  const held: SimPair = { ...pair, [eye]: { ...pair[eye], offset: pair[eye].offset + by } };
  const gain = taskTruth(wearer, held, task).satisfaction - taskTruth(wearer, pair, task).satisfaction + normal(chance, ranges.saidSd / 2);
  return gain > 0.5 ? 'better' : gain < -0.5 ? 'worse' : 'same';
}
