import { latest, type FactChain } from '../record/chains';
import type { NearFindingFact, TaskSightFact, AcuityBothFact } from '../record/visitFacts';
import type { LogMar } from '../optics/acuity';

/** What was said of driving with lenses that serve near: waits until used to them, is used to them, or does not drive. */
export const DRIVING_WORDS = ['waits', 'usedToIt', 'doesNotDrive'] as const;
export type DrivingWord = (typeof DRIVING_WORDS)[number];

/** Why lenses that serve near do not go home yet. */
export type DrivingGate = 'drivingUnasked' | 'drivingUnread' | 'drivingShort';

export interface DrivingFacts {
  readonly nearFindings: readonly FactChain<NearFindingFact>[];
  readonly visitId: string;
  /** Sight of both eyes at distance through these lenses, logMAR; null while it was not read. */
  readonly far: LogMar | null;
  /** The least that both eyes have to see before driving, logMAR. */
  readonly needs: LogMar;
  /** A pair that goes home to be worn for the first time; false for further boxes of what is worn. */
  readonly firstPair: boolean;
}

/** What was last said of driving, since it was decided how near is served; null while nothing was. */
export function drivingSaid(nearFindings: readonly FactChain<NearFindingFact>[]): NearFindingFact | null {
  const way = latest(nearFindings, (r) => r.sign === 'way')?.current;
  const said = latest(nearFindings, (r) => r.sign === 'driving')?.current;
  return said && (!way || said.recordedAt >= way.recordedAt) ? said : null;
}

/** Do the lenses serve near, so that distance may suffer? Reading glasses over distance lenses do not. */
export function servesNear(nearFindings: readonly FactChain<NearFindingFact>[]): boolean {
  const way = latest(nearFindings, (r) => r.sign === 'way')?.current.wordValue ?? null;
  return way !== null && way !== 'readers';
}

/**
 * May lenses that serve near go home? Driving is asked about first: no driving until somebody is used to them, and who says to be
 * has to read the least that driving asks, with both eyes. Null when nothing holds them.
 * @source no driving until adapted; both eyes 20/40 or the local figure: common practice, the figure from memory
 */
export function drivingGate({ nearFindings, visitId, far, needs, firstPair }: DrivingFacts): DrivingGate | null {
  if (!servesNear(nearFindings)) return null;
  const said = drivingSaid(nearFindings);
  if (said === null || (firstPair && said.wordValue === 'waits' && said.visitId !== visitId)) return 'drivingUnasked';
  if (said.wordValue !== 'usedToIt' || said.visitId !== visitId) return null;
  if (far === null) return 'drivingUnread';
  return far > needs + 1e-9 ? 'drivingShort' : null;
}

/** Distance from which on a task counts as far, cm. Our own choice. */
const FAR_FROM = 400;
/** The newest sight of both eyes together at distance in a visit, logMAR; null while none was read. */
export function farOfBoth(facts: {
  readonly acuitiesBoth: readonly FactChain<AcuityBothFact>[];
  readonly taskSights: readonly FactChain<TaskSightFact>[];
}): LogMar | null {
  const read = [
    ...facts.acuitiesBoth.flatMap(({ current: r }) => (r ? [{ at: r.recordedAt, acuity: r.acuityLogMar }] : [])),
    ...facts.taskSights.flatMap(({ current: r }) =>
      r && r.covered === null && r.distanceCm >= FAR_FROM && r.acuityLogMar !== null ? [{ at: r.recordedAt, acuity: r.acuityLogMar }] : [],
    ),
  ];
  return read.sort((a, b) => a.at.localeCompare(b.at)).at(-1)?.acuity ?? null;
}
