import type { LogMar } from '../optics/acuity';
import { EYES, type Eye, type Millimetres } from '../units';
import { forecastFor, type PairWearer, type TaskDemand } from './outlook';
import type { LensPair } from './pair';

/** What a lens off the pupil's centre is expected to cost both eyes at a task, logMAR. */
export interface CentreCost {
  readonly eye: Eye;
  readonly offMm: Millimetres;
  readonly tasks: readonly { readonly demand: TaskDemand; readonly centred: LogMar; readonly asItSits: LogMar }[];
}

/**
 * What each lens that does not sit before its pupil costs: the pair as it sits beside the same pair with that lens centred.
 * @example centreCosts({eyes: {right: {decentredMm: 0.5}, left: {decentredMm: 0}}}, null, []) → []
 * @source see expectedAcuity
 */
export function centreCosts(wearer: PairWearer, pair: LensPair, tasks: readonly TaskDemand[]): readonly CentreCost[] {
  const asItSits = forecastFor(wearer).both;
  return EYES.flatMap((eye) => {
    const own = wearer.eyes[eye];
    if (own.decentredMm === 0 || tasks.length === 0) return [];
    const centred = forecastFor({ ...wearer, eyes: { ...wearer.eyes, [eye]: { ...own, decentredMm: 0 } } }).both;
    return [{ eye, offMm: own.decentredMm, tasks: tasks.map((demand) => ({ demand, centred: centred(pair, demand), asItSits: asItSits(pair, demand) })) }];
  });
}
