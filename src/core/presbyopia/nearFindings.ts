import { latest, type FactChain } from '../record/chains';
import type { NearFindingFact } from '../record/visitFacts';
import type { Eye } from '../units';
import { DRIVING_WORDS } from './driving';
import { NEAR_TASK_IDS, NEAR_TASKS, TASK_CM, type NearTask, type TaskAt } from './nearTask';

/** Ways of serving somebody whose near sight fails. */
export const NEAR_WAYS = ['multifocal', 'toricMultifocal', 'toricOneEye', 'monovision', 'partialMonovision', 'modified', 'readers'] as const;
export type NearWay = (typeof NEAR_WAYS)[number];

const WORDS = {
  /** +1.50 before one eye in turn, looking far with both: the eye where it disturbs more. */
  dominanceBlur: ['right', 'left', 'none'],
  /** Through a hole in a card. */
  dominanceSighting: ['right', 'left', 'none'],
  coverTest: ['straight', 'phoria', 'tropia'],
  /** A squint, patching or prism in the past. */
  oldSquint: ['no', 'squint', 'prism'],
  /** Monovision worn before this visit, and how. */
  monovisionBefore: ['never', 'liked', 'disliked'],
  /** Driving with lenses that serve near, as it was said when they went home. */
  driving: DRIVING_WORDS,
  /** How near is to be served. */
  way: NEAR_WAYS,
} as const;
export type NearWordSign = keyof typeof WORDS;
export const NEAR_WORD_SIGNS = Object.keys(WORDS) as [NearWordSign, ...NearWordSign[]];
export const nearOptions = <S extends NearWordSign>(sign: S): (typeof WORDS)[S] => WORDS[sign];

/** Seconds of arc; 0: the wearer sees none of it. */
export const STEREO_LIMITS = { min: 0, max: 1000 } as const;
/** Numbers that are asked: stereo in seconds of arc, and the distance of each task in cm; 0: no task of this wearer any more. */
export type NearNumberSign = 'stereo' | NearTask;
export const NEAR_NUMBER_SIGNS = ['stereo', ...NEAR_TASK_IDS] as const satisfies readonly NearNumberSign[];
export const NEAR_SIGNS = [...NEAR_WORD_SIGNS, ...NEAR_NUMBER_SIGNS] as const;
export type NearSign = (typeof NEAR_SIGNS)[number];

/** What is wrong with a value of a sign; null when nothing is. */
export function nearFindingProblem(sign: NearSign, value: number | string): { readonly code: string; readonly data: Readonly<Record<string, number>> } | null {
  if (typeof value === 'string')
    return (NEAR_WORD_SIGNS as readonly string[]).includes(sign) && (WORDS[sign as NearWordSign] as readonly string[]).includes(value)
      ? null
      : { code: 'notUnderstood', data: {} };
  if (!(NEAR_NUMBER_SIGNS as readonly string[]).includes(sign) || !Number.isInteger(value)) return { code: 'notUnderstood', data: {} };
  if (sign === 'stereo') return value >= STEREO_LIMITS.min && value <= STEREO_LIMITS.max ? null : { code: 'stereoOutOfRange', data: STEREO_LIMITS };
  return value === 0 || (value >= TASK_CM.min && value <= TASK_CM.max) ? null : { code: 'distanceOutOfRange', data: TASK_CM };
}

/** What is known of near sight and of seeing with both eyes: the newest of each, at whatever visit. */
export interface NearState {
  readonly dominanceBlur: 'right' | 'left' | 'none' | null;
  readonly dominanceSighting: 'right' | 'left' | 'none' | null;
  readonly coverTest: 'straight' | 'phoria' | 'tropia' | null;
  readonly oldSquint: 'no' | 'squint' | 'prism' | null;
  readonly monovisionBefore: 'never' | 'liked' | 'disliked' | null;
  readonly way: NearWay | null;
  readonly stereo: number | null;
  readonly tasks: readonly TaskAt[];
}

/** @example nearState([]).tasks → [] */
export function nearState(chains: readonly FactChain<NearFindingFact>[]): NearState {
  const word = <S extends NearWordSign>(sign: S): (typeof WORDS)[S][number] | null =>
    (WORDS[sign] as readonly (typeof WORDS)[S][number][]).find((o) => o === latest(chains, (r) => r.sign === sign)?.current.wordValue) ?? null;
  const number = (sign: NearNumberSign): number | null => latest(chains, (r) => r.sign === sign)?.current.numberValue ?? null;
  return {
    dominanceBlur: word('dominanceBlur'),
    dominanceSighting: word('dominanceSighting'),
    coverTest: word('coverTest'),
    oldSquint: word('oldSquint'),
    monovisionBefore: word('monovisionBefore'),
    way: word('way'),
    stereo: number('stereo'),
    tasks: NEAR_TASK_IDS.flatMap((task) => {
      const cm = number(task);
      return cm === null || cm === 0 ? [] : [{ task, cm }];
    }),
  };
}

/** The dominant eye, and by what. */
export interface Dominance {
  readonly eye: Eye | null;
  readonly by: 'blur' | 'sighting' | 'blurOverSighting' | 'unclear' | 'unknown';
}
const eyeOf = (found: 'right' | 'left' | 'none' | null): Eye | null => (found === 'right' || found === 'left' ? found : null);
/**
 * The eye that is fitted for far: blur decides, since it asks just what a near lens will do; sighting where blur says nothing.
 * @example dominanceOf({dominanceBlur: 'left', dominanceSighting: 'right'}).eye → 'left'
 * @source common practice
 */
export function dominanceOf({ dominanceBlur, dominanceSighting }: Pick<NearState, 'dominanceBlur' | 'dominanceSighting'>): Dominance {
  const [blur, sighting] = [eyeOf(dominanceBlur), eyeOf(dominanceSighting)];
  if (blur) return { eye: blur, by: sighting && sighting !== blur ? 'blurOverSighting' : 'blur' };
  if (sighting) return { eye: sighting, by: 'sighting' };
  return { eye: null, by: dominanceBlur === null && dominanceSighting === null ? 'unknown' : 'unclear' };
}

/** Where a task usually lies, for whoever has not said. */
export const usualCm = (task: NearTask): number => NEAR_TASKS[task].cm;
