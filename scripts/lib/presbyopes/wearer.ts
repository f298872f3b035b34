import type { Eye } from '../../../src/core';
import type { Chance } from '../../../src/lib/chance';
import type { Ranges } from './ranges';

export const SIM_TASKS = ['road', 'dashboard', 'screen', 'phone', 'book', 'fineWork'] as const;
export type SimTask = (typeof SIM_TASKS)[number];
/** How far away, as vergence in D, and the acuity each needs, logMAR. Common practice: 20/30 or so for all but fine work. */
export const SIM_TASK_FIGURES: Readonly<Record<SimTask, { readonly vergence: number; readonly needs: number }>> = {
  road: { vergence: 0, needs: 0.08 },
  dashboard: { vergence: 1.33, needs: 0.22 },
  screen: { vergence: 1.6, needs: 0.2 },
  phone: { vergence: 2.7, needs: 0.26 },
  book: { vergence: 2.5, needs: 0.2 },
  fineWork: { vergence: 1.82, needs: 0.12 },
};

/** One eye as it is, whatever anybody measures of it. */
export interface SimEye {
  /** The eye's own far power beyond what was recorded of it, D. */
  readonly beyondRecorded: number;
  readonly halfCylinder: number;
  readonly aberration: number;
  readonly best: number;
  readonly decentredMm: number;
}
export interface SimWearer {
  readonly age: number;
  readonly amplitude: number;
  /** As it was measured, with its error, D. */
  readonly measuredAdd: number;
  readonly eyes: Readonly<Record<Eye, SimEye>>;
  readonly pupilRoomMm: number;
  readonly pupilDimMm: number;
  readonly dominant: Eye;
  /** What the test of dominance found. */
  readonly foundDominant: Eye | null;
  readonly dominantWeight: number;
  readonly bearsDifference: number;
  readonly ghostCost: number;
  readonly addMade: number;
  readonly zones: number;
  readonly tasks: readonly SimTask[];
  /** Beyond what a task needs, logMAR, by task. */
  readonly wants: Readonly<Record<SimTask, number>>;
}

/** A normal draw. Source: Box and Muller 1958. */
export function normal(chance: Chance, sd: number): number {
  const u = Math.max(chance.between(0, 1), 1e-12);
  return sd * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * chance.between(0, 1));
}
const within = (chance: Chance, [from, to]: readonly [number, number]): number => chance.between(from, to);
const clamp = (value: number, from: number, to: number): number => Math.min(to, Math.max(from, value));

/** Somebody from the ranges. */
export function drawWearer(chance: Chance, ranges: Ranges): SimWearer {
  const age = Math.round(within(chance, ranges.age));
  const amplitude = Math.max(ranges.leastAmplitude, 18.5 - 0.3 * age + normal(chance, ranges.amplitudeSd));
  const eye = (): SimEye => ({
    beyondRecorded: normal(chance, ranges.refractionSd),
    halfCylinder: within(chance, ranges.cylinder) / 2,
    aberration: within(chance, ranges.aberration),
    best: within(chance, ranges.best),
    decentredMm: within(chance, ranges.decentred),
  });
  const pupilRoomMm = clamp(ranges.pupilAt45 - ranges.pupilPerYear * (age - 45) + normal(chance, ranges.pupilSd), 2.4, 7);
  const dominant: Eye = chance.happens(0.65) ? 'right' : 'left';
  const other: Eye = dominant === 'right' ? 'left' : 'right';
  const found = chance.happens(ranges.dominanceUnknown) ? null : chance.happens(ranges.dominanceFound / (1 - ranges.dominanceUnknown || 1)) ? dominant : other;
  const more = SIM_TASKS.filter((task) => task !== 'road' && task !== 'phone' && chance.happens(ranges.taskLikely));
  const wants = Object.fromEntries(SIM_TASKS.map((task) => [task, normal(chance, ranges.wantsSd)])) as Record<SimTask, number>;
  return {
    age,
    amplitude,
    measuredAdd: clamp(Math.round((2.5 - amplitude / 2 + normal(chance, ranges.addSd)) / 0.25) * 0.25, 0.5, 3),
    eyes: { right: eye(), left: eye() },
    pupilRoomMm,
    pupilDimMm: Math.min(8, pupilRoomMm + within(chance, [0.6, 1.6])),
    dominant,
    foundDominant: found,
    dominantWeight: within(chance, ranges.dominantWeight),
    bearsDifference: within(chance, ranges.bearsDifference),
    ghostCost: within(chance, ranges.ghostCost),
    addMade: within(chance, ranges.addMade),
    zones: within(chance, ranges.zones),
    tasks: ['road', 'phone', ...more],
    wants,
  };
}
