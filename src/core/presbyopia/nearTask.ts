import type { Dioptres } from '../units';

/** Things that somebody wants to see, and how far away they usually are, cm. Common practice; the wearer's own distance goes before. */
export const NEAR_TASKS = {
  road: { cm: 600, light: 'dim' },
  dashboard: { cm: 75, light: 'dim' },
  screen: { cm: 63, light: 'room' },
  score: { cm: 65, light: 'room' },
  workbench: { cm: 55, light: 'room' },
  book: { cm: 40, light: 'room' },
  phone: { cm: 35, light: 'room' },
} as const satisfies Readonly<Record<string, { readonly cm: number; readonly light: 'room' | 'dim' }>>;
export type NearTask = keyof typeof NEAR_TASKS;
export const NEAR_TASK_IDS = Object.keys(NEAR_TASKS) as [NearTask, ...NearTask[]];

/** Distances that a task may lie at, cm: from here on nothing asks for an addition. Our own choice. */
export const TASK_CM = { min: 20, max: 600 } as const;

/**
 * Vergence that a distance asks of an eye in contact lenses, D: 100 / cm; from 6 m on none.
 * @example demandOf(40) → 2.5
 * @source optics: the reciprocal of the distance in metres
 */
export const demandOf = (cm: number): Dioptres => (cm >= TASK_CM.max ? 0 : 100 / cm);

/** One task of a wearer, with its distance. */
export interface TaskAt {
  readonly task: NearTask;
  readonly cm: number;
}
