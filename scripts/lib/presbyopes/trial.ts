import { EYES, type Eye } from '../../../src/core';
import type { Chance } from '../../../src/lib/chance';
import type { Ranges } from './ranges';
import type { SimTask, SimWearer } from './wearer';
import { heldBefore, read, readAlone, served, taskTruth, type HandHeld, type SimPair } from './world';

/** What a fitter knows of somebody at a point of the trial: nothing that was not asked, read or said. */
export interface Seen {
  readonly age: number;
  readonly add: number;
  readonly dominant: Eye | null;
  readonly pupilRoomMm: number;
  readonly pupilDimMm: number;
  readonly pair: SimPair;
  readonly tasks: readonly { readonly task: SimTask; readonly acuity: number; readonly satisfaction: number }[];
  /** One eye alone, where it was asked for. */
  readonly alone: (eye: Eye, task: SimTask) => number;
  /** A quarter held before an eye. */
  readonly held: (eye: Eye, by: number, task: SimTask) => HandHeld;
  /** Pairs worn before this one, oldest first, with what was said of them. */
  readonly before: readonly { readonly pair: SimPair; readonly tasks: Seen['tasks'] }[];
}

/** What a fitter does next: another pair that differs by one change, or it is kept, or given up. */
export type Next = { readonly do: 'change'; readonly pair: SimPair } | { readonly do: 'keep'; readonly pair?: SimPair } | { readonly do: 'stop' };
export type Fitter = (seen: Seen) => Next;

export interface Outcome {
  readonly served: boolean;
  readonly changes: number;
  readonly ended: 'kept' | 'stopped' | 'outOfChanges';
}

/** Changes that a fitter has. */
export const CHANGES = 3;

/** Runs one trial to its end. */
export function runTrial(chance: Chance, ranges: Ranges, wearer: SimWearer, start: SimPair, fitter: Fitter, changes: number = CHANGES): Outcome {
  let pair = start;
  const before: { pair: SimPair; tasks: Seen['tasks'] }[] = [];
  for (let used = 0; ; used++) {
    const now = pair;
    const tasks = wearer.tasks.map((task) => ({ task, ...read(chance, ranges, taskTruth(wearer, now, task)) }));
    const next = fitter({
      age: wearer.age,
      add: wearer.measuredAdd,
      dominant: wearer.foundDominant,
      pupilRoomMm: Math.round(wearer.pupilRoomMm * 2) / 2,
      pupilDimMm: Math.round(wearer.pupilDimMm * 2) / 2,
      pair: now,
      tasks,
      alone: (eye, task) => readAlone(chance, ranges, wearer, now, eye, task),
      held: (eye, by, task) => heldBefore(chance, ranges, wearer, now, eye, by, task),
      before,
    });
    if (next.do === 'keep') return { served: served(wearer, next.pair ?? now), changes: used, ended: 'kept' };
    if (next.do === 'stop') return { served: false, changes: used, ended: 'stopped' };
    if (used === changes) return { served: served(wearer, now), changes: used, ended: 'outOfChanges' };
    before.push({ pair: now, tasks });
    pair = next.pair;
  }
}

/** Two pairs of the same powers and near zones. */
export const samePair = (a: SimPair, b: SimPair): boolean =>
  EYES.every(
    (eye) =>
      Math.abs(a[eye].offset - b[eye].offset) < 1e-9 &&
      a[eye].near?.power === b[eye].near?.power &&
      a[eye].near?.design === b[eye].near?.design &&
      a[eye].toric === b[eye].toric,
  );
