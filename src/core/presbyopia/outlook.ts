import type { MultifocalDesign } from '../lens/catalogueFamily';
import type { LensAdd } from '../lens/family';
import type { LogMar } from '../optics/acuity';
import { EYES, type Dioptres, type Eye, type Millimetres } from '../units';
import type { LensPair, PairLens } from './pair';
import { accommodations, finestOf, keptRows, type ContrastRow, type LensInPupil } from './throughFocus';

/** One eye of a wearer, as far as a forecast needs it. */
export interface PairEye {
  /** Mean sphere that the eye asks for at far, D at the cornea. */
  readonly need: Dioptres;
  /** Half the cylinder that a lens without one leaves, and that the toric of the same family leaves, D. */
  readonly halfCylinder: Dioptres;
  readonly halfCylinderToric: Dioptres;
  readonly best: LogMar;
  readonly decentredMm: Millimetres;
}
/** What a family gives under the name of an addition. */
export type NearOf = (add: LensAdd) => { readonly design: MultifocalDesign; readonly power: Dioptres };

/** A wearer as far as a forecast needs them. */
export interface PairWearer {
  readonly eyes: Readonly<Record<Eye, PairEye>>;
  readonly pupilRoomMm: Millimetres;
  readonly pupilDimMm: Millimetres;
  /** Dioptres that are comfortably accommodated. */
  readonly comfortable: Dioptres;
  readonly nearOf: NearOf;
}

/** A distance that matters, and in which light. */
export interface TaskDemand {
  readonly vergence: Dioptres;
  readonly light: 'room' | 'dim';
  /** Acuity that it needs, logMAR. */
  readonly needs: LogMar;
}

/** What may be otherwise than it was measured: far power of each eye beyond what was found, and the additions against their names. */
export interface Otherwise {
  readonly right: Dioptres;
  readonly left: Dioptres;
  readonly addMade: number;
}

/** Asks for the acuity that a pair gives at a task; what was reckoned once is kept. */
export type Forecast = (pair: LensPair, task: TaskDemand, otherwise?: Otherwise) => LogMar;

/** One eye alone, the other covered. */
export type ForecastAlone = (eye: Eye, lens: PairLens, task: TaskDemand, otherwise?: Otherwise) => LogMar;

const AS_FOUND: Otherwise = { right: 0, left: 0, addMade: 1 };

/**
 * A forecast for one wearer, with its memory.
 * @source see expectedAcuity; the smaller pupil of the two lights is taken for near work: our own
 */
export function forecastFor(wearer: PairWearer): { readonly both: Forecast; readonly alone: ForecastAlone } {
  const kept = new Map<string, (off: Dioptres) => ContrastRow>();
  const rowsOf = (eye: Eye, lens: PairLens, pupilMm: Millimetres, addMade: number): ((off: Dioptres) => ContrastRow) => {
    const key = `${eye} ${lens.add ?? ''} ${lens.toric} ${pupilMm} ${addMade}`;
    let rows = kept.get(key);
    if (!rows) {
      const own = wearer.eyes[eye];
      const near = lens.add === null ? null : wearer.nearOf(lens.add);
      const inPupil: LensInPupil = {
        halfCylinderLeft: lens.toric ? own.halfCylinderToric : own.halfCylinder,
        near: near && { design: near.design, add: near.power * addMade },
        pupilMm,
        decentredMm: own.decentredMm,
      };
      kept.set(key, (rows = keptRows(inPupil)));
    }
    return rows;
  };
  const seen = (eye: Eye, lens: PairLens, task: TaskDemand, otherwise: Otherwise, accommodated: Dioptres) => ({
    row: rowsOf(
      eye,
      lens,
      task.light === 'dim' ? wearer.pupilDimMm : wearer.pupilRoomMm,
      otherwise.addMade,
    )(lens.sphere - wearer.eyes[eye].need - otherwise[eye] - task.vergence + accommodated),
    best: wearer.eyes[eye].best,
  });
  const bestOf = (eyes: readonly Eye[], pair: Readonly<Record<Eye, PairLens>>, task: TaskDemand, otherwise: Otherwise): LogMar => {
    let best = Infinity;
    for (const a of accommodations(task.vergence, wearer.comfortable))
      best = Math.min(best, finestOf(eyes.map((eye) => seen(eye, pair[eye], task, otherwise, a))));
    return best;
  };
  return {
    both: (pair, task, otherwise = AS_FOUND) => bestOf(EYES, pair, task, otherwise),
    alone: (eye, lens, task, otherwise = AS_FOUND) => bestOf([eye], { right: lens, left: lens }, task, otherwise),
  };
}
