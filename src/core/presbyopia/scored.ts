import { parseLensAdd } from '../lens/family';
import { LINE, type LogMar } from '../optics/acuity';
import type { Dioptres, Eye } from '../units';
import { changedPair, isSamePair, type LensPair, type PairChange } from './pair';

/** What was kept of one task before a change: vergence in D, acuity then and now in logMAR, satisfaction of ten. */
export interface KeptOutlook {
  readonly vergence: Dioptres;
  readonly now: LogMar;
  readonly then: LogMar;
  readonly satisfaction: number;
}
/** What was read of a task after it. */
export interface ReadAfter {
  readonly vergence: Dioptres;
  readonly acuity: LogMar | null;
  readonly satisfaction: number;
}
/** A forecast of one task beside what followed. */
export interface TaskScore {
  readonly foretold: KeptOutlook;
  readonly read: ReadAfter;
}

/** Reads what `writtenOutlook` kept; null where it is none. @example readOutlook('2.50 0.40 0.20 8.0')?.then → 0.2 */
export function readOutlook(text: string): KeptOutlook | null {
  const [vergence = NaN, now = NaN, then = NaN, satisfaction = NaN] = text.split(' ').map(Number);
  return [vergence, now, then, satisfaction].every(Number.isFinite) ? { vergence, now, then, satisfaction } : null;
}

const eyeOf = (text: string | undefined): Eye | null => (text === 'right' || text === 'left' ? text : null);
/** Reads what `writtenChange` kept; null where it is none. @example readChange('sphere left +0.25') → {kind: 'sphere', eye: 'left', by: 0.25} */
export function readChange(text: string): PairChange | null {
  const [kind, side, ...more] = text.split(' ');
  const eye = eyeOf(side);
  const rest = more.join(' ');
  if (kind === 'swap') return { kind };
  if (eye === null) return null;
  if (kind === 'toric') return { kind, eye };
  if (kind === 'sphere') return Number.isFinite(Number(rest)) && rest !== '' ? { kind, eye, by: Number(rest) } : null;
  if (kind !== 'add') return null;
  const to = rest === 'none' ? null : parseLensAdd(rest);
  return rest === 'none' || to !== null ? { kind, eye, to } : null;
}

/** Two vergences are of one task, D. */
const SAME_TASK: Dioptres = 0.01;

/**
 * A kept forecast beside what followed, task by task; nothing where another pair followed than the change makes.
 * @example scoreOf({change: '', foretold: []}, null, null, []) → []
 */
export function scoreOf(
  kept: { readonly change: string; readonly foretold: readonly string[] },
  before: LensPair,
  after: LensPair,
  read: readonly ReadAfter[],
): readonly TaskScore[] {
  const change = readChange(kept.change);
  if (change === null || !isSamePair(changedPair(before, change), after)) return [];
  return kept.foretold.flatMap((text) => {
    const foretold = readOutlook(text);
    const found = foretold && read.find((r) => Math.abs(r.vergence - foretold.vergence) < SAME_TASK);
    return foretold && found ? [{ foretold, read: found }] : [];
  });
}

/** How well forecasts did. */
export interface ForecastFigures {
  /** Tasks that were read again after a change. */
  readonly tasks: number;
  /** Of these, tasks whose letters were read. */
  readonly read: number;
  /** Of those, the ones foretold to a line. */
  readonly withinLine: number;
  /** Middle of read less foretold, lines: above 0 it was foretold too well. */
  readonly tooHopefulLines: number | null;
  /** Tasks whose satisfaction was foretold to two points of ten. */
  readonly satisfactionWithin: number;
}

/** Points of ten to which a satisfaction counts as foretold. Our own. */
const POINTS = 2;

/**
 * How well the forecasts of a practice did.
 * @example forecastFigures([]).tasks → 0
 * @source a line is the noise of the test: common practice
 */
export function forecastFigures(scores: readonly TaskScore[]): ForecastFigures {
  const off = scores.flatMap(({ foretold, read }) => (read.acuity === null ? [] : [read.acuity - foretold.then])).sort((a, b) => a - b);
  const middle = off.length === 0 ? null : ((off[(off.length - 1) >> 1] ?? 0) + (off[off.length >> 1] ?? 0)) / 2;
  return {
    tasks: scores.length,
    read: off.length,
    withinLine: off.filter((d) => Math.abs(d) <= LINE + 1e-9).length,
    tooHopefulLines: middle === null ? null : middle / LINE,
    satisfactionWithin: scores.filter(({ foretold, read }) => Math.abs(read.satisfaction - foretold.satisfaction) <= POINTS + 1e-9).length,
  };
}
